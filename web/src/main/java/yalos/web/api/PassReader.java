package yalos.web.api;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;
import yalos.core.fault.InputFault;
import yalos.core.kit.Scanner;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.AlignmentPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.TieStrips;
import yalos.core.pattern.TiltedPasses;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * Reads {@code plan.passes}: one main pass (grid, corridor or lidar), and those added to it. Without the member there is one grid.
 */
final class PassReader {
    private static final String PATTERNS = "alignment, corridor, crossing, grid, lidar, tie, tilted";
    private static final Set<String> OWN = Set.of("pattern", "heightM", "forwardOverlap", "sideOverlap");

    /** What a main pass may say for itself instead of the plan. */
    static final Set<String> SETTINGS = Set.of(
            "heightM", "gsdCm", "forwardOverlap", "sideOverlap", "marginM", "speedMps", "directionDeg", "headingDeg");

    private static final Set<String> SCANNER =
            Set.of("fieldOfViewDeg", "pulsesPerSecond", "usableShare", "maxRangeM", "pointsPerM2");
    private static final double USUAL_USABLE = 0.8;
    private static final double USUAL_RANGE_M = 300;

    private Optional<JsonNode> main = Optional.empty();
    private String mainPath = "plan";
    private final List<AddedPass> added = new ArrayList<>();

    private PassReader() {}

    /**
     * @throws InputFault naming the pass and its member
     */
    static PassReader read(JsonNode plan) {
        PassReader reader = new PassReader();
        JsonNode passes = plan.path("passes");
        if (passes.isMissingNode() || passes.isNull()) {
            return reader;
        }
        if (!passes.isArray()) {
            throw new InputFault("plan.passes", passes, "passes must be a list of objects with a pattern each.");
        }
        for (int i = 0; i < passes.size(); i++) {
            String path = "plan.passes[" + i + "]";
            try {
                reader.pass(passes.get(i), path);
            } catch (InputFault fault) {
                throw fault.field().startsWith("plan.") ? fault : fault.at(path + "." + fault.field());
            }
        }
        return reader;
    }

    private void pass(JsonNode pass, String path) {
        String pattern = pass.path("pattern").asString("");
        switch (pattern) {
            case "grid", "corridor", "lidar" -> main(pass, pattern, path);
            case "crossing" -> {
                refuse(pass, path, "angleDeg");
                added.add(new Crossing(own(pass, path), degrees(pass, path, "angleDeg", 90)));
            }
            case "tilted" -> {
                refuse(pass, path, "tiltDeg", "looks");
                added.add(new TiltedPasses(own(pass, path), degrees(pass, path, "tiltDeg", 30), looks(pass, path)));
            }
            case "tie" -> {
                refuse(pass, path, "angleDeg", "tiltDeg", "count");
                int count = (int)
                        CameraReader.number(pass, "count", path + ".count").orElse(1);
                added.add(new TieStrips(
                        own(pass, path),
                        count,
                        degrees(pass, path, "angleDeg", 90),
                        degrees(pass, path, "tiltDeg", 0)));
            }
            case "alignment" -> {
                Members.refuseUnknown(pass, path, Set.of("pattern", "stillS", "straightS", "eights"));
                added.add(new AlignmentPass(
                        measure(pass, path, "stillS", 1, Unit.SECOND).orElse(AlignmentPass.USUAL.still()),
                        measure(pass, path, "straightS", 1, Unit.SECOND).orElse(AlignmentPass.USUAL.straight()),
                        (int) CameraReader.number(pass, "eights", path + ".eights")
                                .orElse(AlignmentPass.USUAL.eights())));
            }
            default ->
                throw new InputFault(
                        path + ".pattern",
                        pattern.isEmpty() ? "missing" : pattern,
                        "A pattern is one of %s.".formatted(PATTERNS));
        }
    }

    private void main(JsonNode pass, String pattern, String path) {
        if (main.isPresent()) {
            throw new InputFault(
                    path + ".pattern",
                    pattern,
                    "There is one main pass; “%s” is a second. A second grid is a “crossing”.".formatted(pattern));
        }
        Set<String> known = Stream.of(Set.of("pattern"), SETTINGS, pattern.equals("lidar") ? SCANNER : Set.<String>of())
                .flatMap(Set::stream)
                .collect(Collectors.toSet());
        Members.refuseUnknown(pass, path, known);
        main = Optional.of(pass);
        mainPath = path;
    }

    private static void refuse(JsonNode pass, String path, String... more) {
        Members.refuseUnknown(
                pass, path, Stream.concat(OWN.stream(), Stream.of(more)).collect(Collectors.toSet()));
    }

    private static AddedPass.Own own(JsonNode pass, String path) {
        return new AddedPass.Own(
                measure(pass, path, "heightM", 1, Unit.METRE),
                measure(pass, path, "forwardOverlap", 100, Unit.PERCENT),
                measure(pass, path, "sideOverlap", 100, Unit.PERCENT));
    }

    private static Optional<Measure> measure(JsonNode pass, String path, String name, double by, Unit unit) {
        OptionalDouble figure = CameraReader.number(pass, name, path + "." + name);
        return figure.isEmpty() ? Optional.empty() : Optional.of(Measure.of(figure.getAsDouble() * by, unit));
    }

    private static Measure degrees(JsonNode pass, String path, String name, double usual) {
        return measure(pass, path, name, 1, Unit.DEGREE).orElse(Measure.of(usual, Unit.DEGREE));
    }

    private static Set<TiltedPasses.Toward> looks(JsonNode pass, String path) {
        JsonNode looks = pass.path("looks");
        if (looks.isMissingNode() || looks.isNull()) {
            return EnumSet.allOf(TiltedPasses.Toward.class);
        }
        Set<TiltedPasses.Toward> ways = EnumSet.noneOf(TiltedPasses.Toward.class);
        for (JsonNode look : looks) {
            String word = look.asString("").toUpperCase(Locale.ROOT);
            ways.add(Stream.of(TiltedPasses.Toward.values())
                    .filter(way -> way.name().equals(word))
                    .findFirst()
                    .orElseThrow(() ->
                            new InputFault(path + ".looks", look, "A tilted pass looks ahead, back, left or right.")));
        }
        return ways;
    }

    /** Passes flown besides the main one. */
    List<AddedPass> added() {
        return added;
    }

    /** Whether the main pass follows an axis. */
    boolean corridor() {
        return is("corridor");
    }

    private boolean is(String pattern) {
        return main.filter(pass -> pass.path("pattern").asString("").equals(pattern))
                .isPresent();
    }

    /** Where a setting stands: in the main pass where that has it, otherwise in the plan. */
    JsonNode holder(JsonNode plan, String name) {
        return main.filter(pass -> pass.has(name)).orElse(plan);
    }

    /** The path of a setting. */
    String path(String name) {
        return (main.filter(pass -> pass.has(name)).isPresent() ? mainPath : "plan") + "." + name;
    }

    /** What says how high the main pass is flown: itself, otherwise the plan. */
    JsonNode scale(JsonNode plan) {
        return main.filter(pass -> pass.has("heightM") || pass.has("gsdCm")).orElse(plan);
    }

    /** The scanner that leads, where the main pass is one of lidar. */
    Optional<Scanner> scanner() {
        if (!is("lidar")) {
            return Optional.empty();
        }
        JsonNode pass = main.orElseThrow();
        try {
            return Optional.of(new Scanner(
                    "scanner",
                    Math.toRadians(needed(pass, "fieldOfViewDeg")),
                    needed(pass, "pulsesPerSecond"),
                    CameraReader.number(pass, "usableShare", mainPath + ".usableShare")
                            .orElse(USUAL_USABLE),
                    CameraReader.number(pass, "maxRangeM", mainPath + ".maxRangeM")
                            .orElse(USUAL_RANGE_M)));
        } catch (InputFault fault) {
            throw fault.field().startsWith("plan.") ? fault : fault.at(mainPath + "." + fault.field());
        }
    }

    private double needed(JsonNode pass, String name) {
        String path = mainPath + "." + name;
        return CameraReader.number(pass, name, path)
                .orElseThrow(() -> new InputFault(path, "missing", "A lidar pass needs %s.".formatted(name)));
    }
}
