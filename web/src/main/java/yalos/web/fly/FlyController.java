package yalos.web.fly;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import yalos.core.exchange.PlanSheetData;
import yalos.core.fault.InputFault;
import yalos.core.flight.Flight;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.FlyAgain;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Debrief;
import yalos.core.rehearsal.Fault;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.exchange.PlanFile;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.shell.Preferences;
import yalos.web.work.WorkQueue;

/** Begins, steers and ends rehearsals, and streams them. */
@Controller
class FlyController {
    private static final long BYTES_OF_PHOTOS = 60_000_000;
    private static final Duration PHOTOS_END = Duration.ofMinutes(10);

    private final Blocks blocks;
    private final FlyDesk desk;
    private final Preferences preferences;
    private final WorkQueue queue;
    private final Runs runs;

    FlyController(Blocks blocks, FlyDesk desk, Preferences preferences, WorkQueue queue, Runs runs) {
        this.runs = runs;
        this.queue = queue;
        this.blocks = blocks;
        this.desk = desk;
        this.preferences = preferences;
    }

    @PostMapping("/blocks/{id}/fly/begin")
    String begin(
            @PathVariable long id,
            @RequestParam int sortie,
            @RequestParam(defaultValue = "1") String seed,
            @RequestParam(defaultValue = "") List<String> faults,
            @RequestParam(defaultValue = "false") boolean chance) {
        List<Fault> wanted = new ArrayList<>();
        faults.forEach(key -> Fault.ofKey(key).ifPresent(wanted::add));
        desk.begin(blocks.open(id), new FlyDesk.Asked(sortie, seed(seed), wanted, chance));
        return "redirect:/blocks/" + id + "/fly";
    }

    private static long seed(String typed) {
        try {
            return Long.parseLong(typed.strip());
        } catch (NumberFormatException words) {
            throw new InputFault(
                    "seed", typed, "“%s” is no whole number; the same number gives the same flight.".formatted(typed));
        }
    }

    /** Moments of a run, five a second, for as long as somebody listens. */
    @GetMapping(path = "/blocks/{id}/fly/{run}/stream", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter stream(@PathVariable long id, @PathVariable long run, HttpServletResponse response) {
        response.setHeader("Cache-Control", "no-store");
        response.setHeader("X-Accel-Buffering", "no");
        return desk.join(desk.run(id, run), preferences.units());
    }

    /** The moment it has come to, once. */
    @GetMapping("/blocks/{id}/fly/{run}/now.json")
    @ResponseBody
    FlyState now(@PathVariable long id, @PathVariable long run) {
        return desk.run(id, run).state(preferences.units(), 0, 0);
    }

    @PostMapping("/blocks/{id}/fly/{run}/press")
    @ResponseBody
    ResponseEntity<Void> press(
            @PathVariable long id,
            @PathVariable long run,
            @RequestParam Command.Kind kind,
            @RequestParam(defaultValue = "0") double first,
            @RequestParam(defaultValue = "0") double second,
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String note) {
        String who = Person.present().isEmpty() ? person : Person.present();
        desk.press(desk.run(id, run), new Command(kind, first, second), who, note);
        return ResponseEntity.status(HttpStatus.NO_CONTENT).build();
    }

    @PostMapping("/blocks/{id}/fly/{run}/speed")
    @ResponseBody
    ResponseEntity<Void> speed(@PathVariable long id, @PathVariable long run, @RequestParam int speed) {
        desk.speed(desk.run(id, run), speed);
        return ResponseEntity.status(HttpStatus.NO_CONTENT).build();
    }

    @PostMapping("/blocks/{id}/fly/{run}/end")
    String end(@PathVariable long id, @PathVariable long run) {
        desk.end(desk.run(id, run));
        return "redirect:/blocks/" + id + "/fly/" + run + "/debrief";
    }

    /** Height and battery over time, as far as it has come. */
    @GetMapping("/blocks/{id}/fly/{run}/charts")
    String charts(@PathVariable long id, @PathVariable long run, Model model) {
        model.addAttribute("block", blocks.open(id));
        model.addAttribute("run", run);
        model.addAttribute("chart", desk.run(id, run).ask(flight -> FlyCharts.svg(flight, preferences.units())));
        return "fly/charts";
    }

    /** What was done when, what had been better, what the take lost. */
    @GetMapping("/blocks/{id}/fly/{run}/debrief")
    String debrief(@PathVariable long id, @PathVariable long run, Model model) {
        model.addAttribute("block", blocks.open(id));
        model.addAttribute("run", run);
        desk.run(id, run).ask(flight -> {
            DebriefView.fill(flight, preferences.units(), model);
            return true;
        });
        return "fly/debrief";
    }

    /** What is missing, as a plan of its own. */
    @GetMapping("/blocks/{id}/fly/{run}/again.{format}")
    void again(@PathVariable long id, @PathVariable long run, @PathVariable String format, HttpServletResponse response)
            throws IOException {
        OpenBlock block = blocks.open(id);
        PlanFile file =
                PlanFile.ofKey(format).orElseThrow(() -> new NotThere("A plan is not written as " + format + "."));
        PlanSheetData data = desk.run(id, run).ask(flight -> {
            Debrief debrief = Debrief.of(flight);
            Flight again = debrief.again()
                    .map(FlyAgain::flight)
                    .orElseThrow(() -> new NotThere("Nothing is missing, so there is nothing to fly again."));
            BlockPlan plan = flight.sorties().given().plan();
            return new PlanSheetData(block.jobName() + ", " + block.name(), plan)
                    .part("what is missing of sortie " + flight.sortie().number(), again, 0);
        });
        response.setContentType(file.type());
        response.setHeader("Content-Disposition", "attachment; filename=\"fly-again-%d.%s\"".formatted(run, format));
        file.write(data, response.getOutputStream());
    }

    /** The photos it took, as files with their positions inside. */
    @GetMapping("/blocks/{id}/fly/{run}/photos.zip")
    void photos(@PathVariable long id, @PathVariable long run, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        OpenBlock block = blocks.open(id);
        LiveRun live = desk.run(id, run);
        PhotoFiles files = live.ask(flight -> runs.photos(block, run, flight));
        Path made = Files.createTempFile("photos", ".zip");
        try {
            queue.answer(request, "The photos", BYTES_OF_PHOTOS, PHOTOS_END, work -> {
                try (OutputStream out = Files.newOutputStream(made)) {
                    files.zip(out, work::goOn);
                }
                work.check();
                return true;
            });
            response.setContentType("application/zip");
            response.setContentLengthLong(Files.size(made));
            response.setHeader(
                    "Content-Disposition", "attachment; filename=\"rehearsal-%d-photos.zip\"".formatted(run));
            Files.copy(made, response.getOutputStream());
        } finally {
            Files.deleteIfExists(made);
        }
    }

    @GetMapping("/blocks/{id}/fly/{run}/log.{format}")
    void log(@PathVariable long id, @PathVariable long run, @PathVariable String format, HttpServletResponse response)
            throws IOException {
        FlyLog.File file = desk.run(id, run).ask(flight -> FlyLog.of(flight, format));
        response.setContentType(file.type());
        response.setHeader("Content-Disposition", "attachment; filename=\"rehearsal-%d.%s\"".formatted(run, format));
        response.getOutputStream().write(file.content());
    }
}
