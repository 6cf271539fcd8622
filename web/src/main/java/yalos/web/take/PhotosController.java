package yalos.web.take;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import yalos.core.exchange.PlanSheetData;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.FlyAgain;
import yalos.core.proof.Judgement;
import yalos.core.take.Take;
import yalos.core.units.UnitChoice;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.exchange.PlanFile;
import yalos.web.proof.ProofLayer;
import yalos.web.proof.ProofPicture;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.shell.Preferences;
import yalos.web.store.TakeMapper;
import yalos.web.store.TakeMapper.DecisionRow;
import yalos.web.take.TakeDesk.Found;

/** Looks at the photos of a take, the worst first; decides what is flown again. */
@Controller
class PhotosController {
    private static final int PER_PAGE = 60;
    private static final int IN_DRAWER = 24;
    private static final int MOST_CORNERS = 400;

    private final Blocks blocks;
    private final TakeDesk desk;
    private final TakeStore store;
    private final TakeMapper rows;
    private final Preferences preferences;

    PhotosController(Blocks blocks, TakeDesk desk, TakeStore store, TakeMapper rows, Preferences preferences) {
        this.blocks = blocks;
        this.desk = desk;
        this.store = store;
        this.rows = rows;
        this.preferences = preferences;
    }

    private Found found(OpenBlock block) {
        return desk.of(block)
                .orElseThrow(() -> new NotThere("There are no photos yet, or no plan to hold them against."));
    }

    @GetMapping("/blocks/{id}/take/photos")
    String page(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String show,
            @RequestParam(defaultValue = "1") int page,
            Model model) {
        OpenBlock block = blocks.open(id);
        Found found = found(block);
        Take take = found.take();
        List<Integer> order = TakeView.worstFirst(take).stream()
                .filter(i -> TakeView.shown(take, i, show))
                .toList();
        int pages = Math.max(1, (order.size() + PER_PAGE - 1) / PER_PAGE);
        int at = Math.max(1, Math.min(pages, page));
        UnitChoice units = preferences.units();
        model.addAttribute("block", block);
        model.addAttribute("show", show);
        model.addAttribute("page", at);
        model.addAttribute("pages", pages);
        model.addAttribute("count", order.size());
        model.addAttribute("all", take.photos().size());
        model.addAttribute(
                "notes",
                TakeView.findings(take, units).stream()
                        .filter(line -> !line.show().isEmpty())
                        .toList());
        model.addAttribute(
                "tiles",
                order.subList((at - 1) * PER_PAGE, Math.min(order.size(), at * PER_PAGE)).stream()
                        .map(i -> TakeView.tile(found, i, units))
                        .toList());
        return "take/photos";
    }

    /** The worst of them, for the drawer. */
    @GetMapping("/blocks/{id}/take/contact")
    String contact(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        Optional<Found> found = desk.of(block);
        UnitChoice units = preferences.units();
        model.addAttribute("block", block);
        model.addAttribute(
                "tiles",
                found.map(known -> TakeView.worstFirst(known.take()).stream()
                                .limit(IN_DRAWER)
                                .map(i -> TakeView.tile(known, i, units))
                                .toList())
                        .orElse(List.of()));
        model.addAttribute(
                "all", found.map(known -> known.take().photos().size()).orElse(0));
        return "take/contact";
    }

    @GetMapping("/blocks/{id}/take/photos/{photo}.jpg")
    @ResponseBody
    ResponseEntity<byte[]> small(@PathVariable long id, @PathVariable long photo) {
        byte[] jpeg = rows.small(id, photo)
                .map(TakeMapper.Small::jpeg)
                .orElseThrow(() -> new NotThere("There is no small picture of this photo."));
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_JPEG)
                .cacheControl(CacheControl.maxAge(Duration.ofHours(12)).cachePrivate())
                .body(jpeg);
    }

    @PostMapping("/blocks/{id}/take/photos/{photo}/aside")
    String aside(
            @PathVariable long id,
            @PathVariable long photo,
            @RequestParam boolean aside,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam(defaultValue = "") String show,
            @RequestParam(defaultValue = "1") int page) {
        store.aside(blocks.open(id).id(), photo, aside, reason);
        return "redirect:/blocks/%d/take/photos?show=%s&page=%d".formatted(id, show.replaceAll("[^a-z_]", ""), page);
    }

    /** A layer of the take, or of its plan over the same cells. */
    @GetMapping("/blocks/{id}/take/proof/{of}-{layer}.png")
    @ResponseBody
    ResponseEntity<byte[]> layer(@PathVariable long id, @PathVariable String of, @PathVariable String layer) {
        Found found = found(blocks.open(id));
        ProofLayer wanted =
                ProofLayer.ofKey(layer).orElseThrow(() -> new NotThere("There is no layer “" + layer + "”."));
        Optional<Judgement> judgement = of.equals("planned") ? found.planned() : found.taken();
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(CacheControl.noStore())
                .body(ProofPicture.png(
                        judgement.orElseThrow(() -> new NotThere("The take is not proved yet.")),
                        wanted,
                        preferences.units()));
    }

    /** The take proved beside its plan, layer by layer. */
    @GetMapping("/blocks/{id}/take/proof")
    String proof(@PathVariable long id, @RequestParam(defaultValue = "") String layer, Model model) {
        OpenBlock block = blocks.open(id);
        Found found = found(block);
        UnitChoice units = preferences.units();
        ProofLayer shown = ProofLayer.ofKey(layer).orElse(ProofLayer.ADEQUATE);
        model.addAttribute("block", block);
        model.addAttribute("running", found.running());
        model.addAttribute("layer", shown);
        model.addAttribute("layers", ProofLayer.values());
        model.addAttribute("shareTaken", TakeView.share(found.taken()));
        model.addAttribute("sharePlanned", TakeView.share(found.planned()));
        found.taken().ifPresent(taken -> {
            model.addAttribute("bandsTaken", shown.bands(taken, units));
            model.addAttribute("bandsPlanned", shown.bands(found.planned().orElseThrow(), units));
            model.addAttribute("verdict", taken.verdict());
        });
        return "take/proof";
    }

    /** What is still to be flown, as a plan of its own. */
    @GetMapping("/blocks/{id}/take/again.{format}")
    void again(@PathVariable long id, @PathVariable String format, HttpServletResponse response) throws IOException {
        OpenBlock block = blocks.open(id);
        PlanFile file =
                PlanFile.ofKey(format).orElseThrow(() -> new NotThere("A plan is not written as " + format + "."));
        Found found = found(block);
        FlyAgain again = TakeView.again(found, rows.decisions(id))
                .orElseThrow(() -> new NotThere("Nothing is missing, so there is nothing to fly again."));
        PlanSheetData data = new PlanSheetData(
                        block.jobName() + ", " + block.name(), found.take().plan())
                .part("what is missing of the take", again.flight(), 0);
        response.setContentType(file.type());
        response.setHeader("Content-Disposition", "attachment; filename=\"fly-again-%d.%s\"".formatted(id, format));
        file.write(data, response.getOutputStream());
    }

    /**
     * Decides on a gap, or on an area that was drawn or typed.
     *
     * @param gap its number; 0 for an area
     * @param places corners of the area, one on a line
     */
    @PostMapping("/blocks/{id}/take/decide")
    String decide(
            @PathVariable long id,
            @RequestParam String kind,
            @RequestParam(defaultValue = "0") int gap,
            @RequestParam(defaultValue = "") String places,
            @RequestParam(defaultValue = "") String reason) {
        OpenBlock block = blocks.open(id);
        Found found = found(block);
        Decisions.Kind chosen = Decisions.Kind.of(kind);
        List<LonLat> area;
        String about;
        if (gap > 0) {
            if (gap > found.gaps().size()) {
                throw new InputFault("gap", gap, "There is no gap %d any more; reload the page.".formatted(gap));
            }
            Take.Gap one = found.gaps().get(gap - 1);
            area = Decisions.area(
                    one,
                    found.taken().orElseThrow().proof().grid(),
                    found.take().plan().block().plane());
            about = Decisions.about(gap - 1, one);
        } else {
            area = places.lines()
                    .filter(line -> !line.isBlank())
                    .map(line -> TypedPosition.read(line, block.facts().grid()))
                    .toList();
            if (area.size() < 3) {
                throw new InputFault("places", area.size(), "An area has three corners or more, one on a line.");
            }
            if (area.size() > MOST_CORNERS) {
                throw new InputFault(
                        "places", area.size(), "An area may have up to %d corners.".formatted(MOST_CORNERS));
            }
            about = Decisions.about(area.size());
        }
        store.decide(
                id,
                new DecisionRow(
                        0,
                        chosen.name(),
                        Decisions.text(area),
                        TakeStore.cut(about, 300),
                        TakeStore.cut(reason, 300),
                        Person.present(),
                        null,
                        ""));
        return "redirect:/blocks/" + id + "/take";
    }

    @PostMapping("/blocks/{id}/take/decisions/{decision}/take-back")
    String takeBack(
            @PathVariable long id, @PathVariable long decision, @RequestParam(defaultValue = "") String reason) {
        store.takeBack(blocks.open(id).id(), decision, reason);
        return "redirect:/blocks/" + id + "/take";
    }
}
