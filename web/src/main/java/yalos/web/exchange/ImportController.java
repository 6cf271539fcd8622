package yalos.web.exchange;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.exchange.Axes;
import yalos.core.exchange.ImportedOutlines;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.Visit;
import yalos.web.shell.Htmx;
import yalos.web.shell.Preferences;

/**
 * Takes an outline from a file or a pasted text. Where the file leaves a choice, or the place is doubtful, it asks first;
 * the file waits here meanwhile.
 */
@Controller
class ImportController {
    private static final int MOST_WAITING = 8;
    private static final double FAR_AWAY_M = 100_000;
    private static final int ALL = -1;

    private final Blocks blocks;
    private final BlockPage page;
    private final Preferences preferences;
    private final Map<String, OutlineFile> waiting = Collections.synchronizedMap(new LinkedHashMap<>() {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<String, OutlineFile> eldest) {
            return size() > MOST_WAITING;
        }
    });

    ImportController(Blocks blocks, BlockPage page, Preferences preferences) {
        this.blocks = blocks;
        this.page = page;
        this.preferences = preferences;
    }

    /** One outline to choose. */
    record Choice(int index, String name, String area, String corners, String place) {}

    @PostMapping("/blocks/{id}/import")
    String take(
            @PathVariable long id,
            @RequestParam(required = false) MultipartFile file,
            @RequestParam(defaultValue = "") String text,
            Visit visit)
            throws IOException {
        OutlineFile given;
        if (file != null && !file.isEmpty()) {
            String name = Optional.ofNullable(file.getOriginalFilename()).orElse("file");
            given = new OutlineFile(name, file.getBytes());
        } else if (!text.isBlank()) {
            given = new OutlineFile("pasted text", text.getBytes(StandardCharsets.UTF_8));
        } else {
            throw new InputFault("file", "nothing", "Choose a file, or paste the corners, one position a line.");
        }
        String token = UUID.randomUUID().toString();
        waiting.put(token, given);
        return consider(id, token, given, Axes.LON_LAT, visit);
    }

    /** Reads the waiting file with its axes swapped. */
    @PostMapping("/blocks/{id}/import/swap")
    String swap(@PathVariable long id, @RequestParam String token, Visit visit) {
        return consider(id, token, waitingFor(token), Axes.LAT_LON, visit);
    }

    /** Reads the waiting file in a coordinate system that it does not name itself. */
    @PostMapping("/blocks/{id}/import/system")
    String system(@PathVariable long id, @RequestParam String token, @RequestParam String epsg, Visit visit) {
        OutlineFile file = waitingFor(token).in(code(epsg));
        waiting.put(token, file);
        return consider(id, token, file, Axes.LON_LAT, visit);
    }

    private static int code(String typed) {
        String digits = typed.strip().toUpperCase(Locale.ROOT).replaceFirst("^EPSG:", "");
        if (!digits.matches("\\d{3,6}")) {
            throw new InputFault("epsg", typed, "An EPSG code is a number, such as 32632 or 4326.");
        }
        return Integer.parseInt(digits);
    }

    /** Takes one of the outlines of the waiting file, or all of them as the parts of one block. */
    @PostMapping("/blocks/{id}/import/choose")
    String choose(
            @PathVariable long id,
            @RequestParam String token,
            @RequestParam int index,
            @RequestParam boolean swapped,
            Visit visit) {
        OutlineFile file = waitingFor(token);
        ImportedOutlines outlines =
                file.read(Axes.swapped(swapped), blocks.open(id).facts().grid());
        if (index < ALL || index >= outlines.choices()) {
            throw new InputFault("index", index, "The file has no outline number %d.".formatted(index + 1));
        }
        if (index >= outlines.candidates().size()) {
            return apply(
                    id, file, outlines.axes().get(index - outlines.candidates().size()), visit);
        }
        Outline chosen = index == ALL
                ? new Outline(outlines.candidates().stream()
                        .flatMap(candidate -> candidate.outline().parts().stream())
                        .toList())
                : outlines.candidates().get(index).outline();
        return apply(id, file, chosen, visit);
    }

    private OutlineFile waitingFor(String token) {
        return Optional.ofNullable(waiting.get(token))
                .orElseThrow(() -> new InputFault("file", "gone", "The file is no longer at hand. Choose it again."));
    }

    private String consider(long id, String token, OutlineFile file, Axes axes, Visit visit) {
        OpenBlock block = blocks.open(id);
        ImportedOutlines outlines;
        try {
            outlines = file.read(axes, block.facts().grid());
        } catch (InputFault fault) {
            if (axes == Axes.LON_LAT && fault.field().equals("coordinates") && readsSwapped(file, block)) {
                return ask(fault.getMessage(), token, List.of(), false, true, visit);
            }
            if (fault.field().equals("epsg") && file.epsg().isEmpty()) {
                visit.model().addAttribute("system", true);
                return ask(fault.getMessage(), token, List.of(), false, false, visit);
            }
            throw fault;
        }
        if (outlines.candidates().size() == 1) {
            OutlineCheck.sound(outlines.candidates().get(0).outline());
        }
        boolean swapped = axes == Axes.LAT_LON;
        Optional<String> doubt = doubt(block, outlines);
        if (outlines.choices() == 1 && doubt.isEmpty() && outlines.remarks().isEmpty()) {
            return outlines.axes().isEmpty()
                    ? apply(id, file, outlines.candidates().get(0).outline(), visit)
                    : apply(id, file, outlines.axes().get(0), visit);
        }
        List<String> sentences = new ArrayList<>(outlines.remarks());
        doubt.ifPresent(sentences::add);
        if (outlines.choices() > 1) {
            String what = outlines.axes().isEmpty() ? "outlines" : "outlines and lines";
            sentences.add("“%s” holds %d %s. Which one?".formatted(file.name(), outlines.choices(), what));
        }
        boolean swappable =
                outlines.candidates().stream().allMatch(c -> c.outline().swappable());
        return ask(
                String.join(" ", sentences), token, choices(outlines), swapped, swappable && doubt.isPresent(), visit);
    }

    private static boolean readsSwapped(OutlineFile file, OpenBlock block) {
        try {
            file.read(Axes.LAT_LON, block.facts().grid());
            return true;
        } catch (InputFault stillWrong) {
            return false;
        }
    }

    /** An outline far from everything else of the block is likely swapped, or of another job. */
    private static Optional<String> doubt(OpenBlock block, ImportedOutlines outlines) {
        Optional<LonLat> known = block.facts().place();
        LonLat there = outlines.candidates().isEmpty()
                ? outlines.axes().get(0).line().get(0)
                : outlines.candidates().get(0).outline().middle();
        return known.map(here -> Geodesics.distanceM(here, there))
                .filter(distance -> distance > FAR_AWAY_M)
                .map(distance -> "What the file holds lies at %s, %.0f km from the rest of this job."
                        .formatted(place(there), distance / 1000));
    }

    private List<Choice> choices(ImportedOutlines outlines) {
        List<Choice> choices = new ArrayList<>();
        for (int i = 0; i < outlines.candidates().size(); i++) {
            Outline outline = outlines.candidates().get(i).outline();
            choices.add(new Choice(
                    i,
                    outlines.candidates().get(i).name(),
                    preferences.units().text(UnitKind.AREA, outline.areaM2()),
                    outline.corners().size() + " corners",
                    place(outline.middle())));
        }
        for (ImportedOutlines.Axis axis : outlines.axes()) {
            choices.add(new Choice(
                    choices.size(),
                    axis.name(),
                    "axis of a corridor, " + preferences.units().text(UnitKind.LENGTH, length(axis.line())),
                    axis.line().size() + " points",
                    place(axis.line().get(0))));
        }
        return choices;
    }

    private static double length(List<LonLat> line) {
        double length = 0;
        for (int i = 1; i < line.size(); i++) {
            length += Geodesics.distanceM(line.get(i - 1), line.get(i));
        }
        return length;
    }

    private static String place(LonLat at) {
        return String.format(
                Locale.ROOT,
                "%.4f° %s, %.4f° %s",
                Math.abs(at.latDeg()),
                at.latDeg() < 0 ? "S" : "N",
                Math.abs(at.lonDeg()),
                at.lonDeg() < 0 ? "W" : "E");
    }

    private String ask(
            String sentence, String token, List<Choice> choices, boolean swapped, boolean swappable, Visit visit) {
        visit.model().addAttribute("sentence", sentence);
        visit.model().addAttribute("token", token);
        visit.model().addAttribute("choices", choices);
        visit.model().addAttribute("swapped", swapped);
        visit.model().addAttribute("swappable", swappable);
        visit.model().addAttribute("version", visit.version());
        visit.model().addAttribute("stageKey", visit.stage().key());
        visit.model().addAttribute("action", visit.request().getRequestURI().replaceFirst("/import.*", "/import"));
        visit.response().setHeader(Htmx.RETARGET, "#notice");
        visit.response().setHeader(Htmx.RESWAP, "innerHTML");
        return Htmx.asked(visit.request()) ? "ground/choose :: choose" : "ground/choose";
    }

    /** A corridor along a line, as wide as the block's was. */
    private String apply(long id, OutlineFile file, ImportedOutlines.Axis axis, Visit visit) {
        OpenBlock changed =
                blocks.change(id, visit.version(), "axis from " + file.name(), facts -> facts.withAxis(axis.line()));
        return page.changed(changed, visit);
    }

    private String apply(long id, OutlineFile file, Outline outline, Visit visit) {
        Outline sound = OutlineCheck.sound(outline);
        OpenBlock changed =
                blocks.change(id, visit.version(), "outline from " + file.name(), facts -> facts.with(sound));
        return page.changed(changed, visit);
    }
}
