package yalos.web.jobs;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.ModelAndView;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.Summaries;
import yalos.web.history.Templates;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.JobMapper;
import yalos.web.store.SummaryMapper.ListRow;

/** The page one starts from: all jobs, their blocks, and a new one. */
@Controller
class JobsController {
    private final Jobs jobs;
    private final JobMapper rows;
    private final Blocks blocks;
    private final Summaries summaries;
    private final Preferences preferences;
    private final Templates templates;

    JobsController(
            Jobs jobs,
            JobMapper rows,
            Blocks blocks,
            Summaries summaries,
            Preferences preferences,
            Templates templates) {
        this.templates = templates;
        this.jobs = jobs;
        this.rows = rows;
        this.blocks = blocks;
        this.summaries = summaries;
        this.preferences = preferences;
    }

    /** A job with its blocks. */
    record JobView(long id, String name, List<BlockView> blocks) {}

    /** A block in a line: how large, how fine, how long, and its outline drawn small. */
    record BlockView(
            long id,
            String name,
            String area,
            String gsd,
            String photos,
            String time,
            String label,
            String outline,
            boolean hidden,
            String number) {}

    @GetMapping("/jobs")
    ModelAndView list() {
        return page(HttpStatus.OK, "", "", "");
    }

    @PostMapping("/jobs")
    ModelAndView create(@RequestParam String name, @RequestParam(defaultValue = "") String place) {
        try {
            Optional<LonLat> launch =
                    place.isBlank() ? Optional.empty() : Optional.of(TypedPosition.read(place, Optional.empty()));
            long block = jobs.create(name, launch);
            return new ModelAndView("redirect:/blocks/" + block + "/brief");
        } catch (InputFault fault) {
            return page(HttpStatus.BAD_REQUEST, fault.getMessage(), name, place);
        }
    }

    private ModelAndView page(HttpStatus status, String fault, String name, String place) {
        UnitChoice units = preferences.units();
        ModelAndView view = new ModelAndView("jobs/jobs", status);
        Map<Long, List<BlockView>> listed = summaries.all().stream()
                .collect(Collectors.groupingBy(
                        ListRow::jobId, Collectors.mapping(row -> view(row, units), Collectors.toList())));
        view.addObject(
                "jobs",
                rows.jobs().stream()
                        .map(job -> new JobView(job.id(), job.name(), listed.getOrDefault(job.id(), List.of())))
                        .toList());
        view.addObject("fault", fault);
        view.addObject("name", name);
        view.addObject("place", place);
        return view;
    }

    private static BlockView view(ListRow row, UnitChoice units) {
        return view(row, units, "");
    }

    private static BlockView view(ListRow row, UnitChoice units, String number) {
        return new BlockView(
                row.id(),
                row.name(),
                row.areaM2() == null ? row.known() ? "no outline yet" : "…" : units.text(UnitKind.AREA, row.areaM2()),
                figure(row, row.gsdM(), gsd -> units.text(UnitKind.GSD, gsd)),
                figure(row, row.photos(), "%,d photos"::formatted),
                figure(row, row.flightTimeS(), seconds -> units.text(UnitKind.DURATION, seconds)),
                row.label(),
                row.outline(),
                row.hidden(),
                number);
    }

    private static <T> String figure(ListRow row, T figure, Function<T, String> shown) {
        return figure == null ? row.known() ? "–" : "…" : shown.apply(figure);
    }

    @GetMapping("/jobs/{id}")
    String job(@PathVariable long id, Model model) {
        JobMapper.JobRow job = rows.job(id).orElseThrow(() -> new NotThere("There is no such job; it may be deleted."));
        model.addAttribute("job", job);
        model.addAttribute("templates", templates.all());
        model.addAttribute("belongings", rows.belongings(id));
        List<ListRow> listed = summaries.ofJob(id);
        Map<Long, Integer> numbers = numbers(listed);
        UnitChoice units = preferences.units();
        model.addAttribute(
                "blocks",
                listed.stream()
                        .map(row -> view(
                                row,
                                units,
                                row.hidden() ? "" : numbers.get(row.id()).toString()))
                        .toList());
        model.addAttribute("sheet", JobSheet.of(drawn(id, numbers), units).orElse(null));
        model.addAttribute("totals", totals(listed, units));
        return "jobs/job";
    }

    /** Numbers of the blocks that are not hidden, in the order flown. */
    private static Map<Long, Integer> numbers(List<ListRow> listed) {
        Map<Long, Integer> numbers = new HashMap<>();
        listed.stream().filter(row -> !row.hidden()).forEach(row -> numbers.put(row.id(), numbers.size() + 1));
        return numbers;
    }

    /** Blocks of a job that have a number and can be read. */
    private List<JobSheet.Listed> drawn(long job, Map<Long, Integer> numbers) {
        return rows.blocksOf(job).stream()
                .filter(row -> numbers.containsKey(row.id()))
                .flatMap(row -> row.readable().stream()
                        .map(facts -> new JobSheet.Listed(numbers.get(row.id()), row.name(), facts)))
                .toList();
    }

    /** Area, photos and flight time of all blocks that are not hidden. */
    private static String totals(List<ListRow> listed, UnitChoice units) {
        List<ListRow> shown = listed.stream().filter(row -> !row.hidden()).toList();
        double area = shown.stream()
                .filter(row -> row.areaM2() != null)
                .mapToDouble(ListRow::areaM2)
                .sum();
        long photos = shown.stream()
                .filter(row -> row.photos() != null)
                .mapToLong(ListRow::photos)
                .sum();
        double time = shown.stream()
                .filter(row -> row.flightTimeS() != null)
                .mapToDouble(ListRow::flightTimeS)
                .sum();
        return "%d %s, %s, %,d photos, %s in the air"
                .formatted(
                        shown.size(),
                        shown.size() == 1 ? "block" : "blocks",
                        units.text(UnitKind.AREA, area),
                        photos,
                        units.text(UnitKind.DURATION, time));
    }

    /** Renames a block, hides it or shows it again, flies it earlier or later. */
    @PostMapping("/jobs/{job}/list")
    String change(
            @PathVariable long job,
            @RequestParam long block,
            @RequestParam String act,
            @RequestParam(defaultValue = "") String name) {
        jobs.refuseElsewhere(job, block);
        switch (act) {
            case "rename" -> jobs.renameBlock(block, name);
            case "hide" -> jobs.hide(block, true);
            case "show" -> jobs.hide(block, false);
            case "earlier" -> jobs.move(block, -1);
            case "later" -> jobs.move(block, 1);
            default -> throw new InputFault("act", act, "That is nothing a block in a list can do.");
        }
        return "redirect:/jobs/" + job;
    }

    @PostMapping("/jobs/{id}/blocks")
    String addBlock(@PathVariable long id, @RequestParam String name, @RequestParam(defaultValue = "0") long template) {
        rows.job(id).orElseThrow(() -> new NotThere("There is no such job; it may be deleted."));
        return "redirect:/blocks/" + jobs.addBlock(id, name, template) + "/brief";
    }

    @PostMapping("/jobs/{id}/rename")
    String rename(@PathVariable long id, @RequestParam String name) {
        jobs.rename(id, name);
        return "redirect:/jobs/" + id;
    }

    @PostMapping("/jobs/{id}/delete")
    String delete(@PathVariable long id, @RequestParam String confirm) {
        JobMapper.JobRow job = rows.job(id).orElseThrow(() -> new NotThere("There is no such job; it may be deleted."));
        if (!job.name().equals(confirm.strip())) {
            throw new InputFault(
                    "confirm",
                    confirm,
                    "The job was not deleted. Type its name, “%s”, to put it into the bin.".formatted(job.name()));
        }
        jobs.bin(id);
        return "redirect:/jobs";
    }

    @PostMapping("/blocks/{id}/copy")
    String copy(@PathVariable long id) {
        return "redirect:/blocks/" + jobs.copyBlock(id) + "/strips";
    }

    @PostMapping("/blocks/{id}/delete")
    String deleteBlock(@PathVariable long id) {
        long job = blocks.named(id).jobId();
        jobs.deleteBlock(id);
        return "redirect:/jobs/" + job;
    }
}
