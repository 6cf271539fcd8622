package yalos.core.pattern;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import yalos.core.block.PlaneBlock;
import yalos.core.camera.Camera;
import yalos.core.fault.InputFault;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * Passes with the camera tilted, one for each way it looks. Lines lie along the way looked, and the whole pass is set back by as far as
 * the middle of the picture lies ahead, so that the block's edges are seen as by a pass straight down.
 *
 * <p>A multirotor holds its nose the way it looks, so that each pass looks one way. A wing cannot: its lines look ahead, there and back, and lie
 * half as far apart.
 *
 * <p>KNOWN LIMITS: set back as over level ground; on a slope of 20 % the middle of a picture tilted by 30° lies up to 13 % nearer or farther.
 *
 * @param tilt from straight down
 * @param looks which ways, from the direction of the main pass's lines
 */
public record TiltedPasses(Own own, Measure tilt, Set<Toward> looks) implements AddedPass {
    private static final double LEAST_RAD = Math.toRadians(20);
    private static final double MOST_RAD = Math.toRadians(45);
    /** Beyond it the upper edge of the picture looks at the horizon. */
    private static final double FARTHEST_RAD = Math.toRadians(80);

    /** Four ways, 30° from straight down. */
    public static final TiltedPasses FOUR =
            new TiltedPasses(Own.NONE, Measure.of(30, Unit.DEGREE), EnumSet.allOf(Toward.class));

    /** A way to look. */
    public enum Toward {
        AHEAD(0),
        RIGHT(90),
        BACK(180),
        LEFT(270);

        private final double offRad;

        Toward(double offDeg) {
            this.offRad = Math.toRadians(offDeg);
        }

        public String key() {
            return name().toLowerCase(Locale.ROOT);
        }

        private Toward opposite() {
            return values()[(ordinal() + 2) % 4];
        }
    }

    public TiltedPasses {
        if (!(tilt.si() >= LEAST_RAD - 1e-9 && tilt.si() <= MOST_RAD + 1e-9)) {
            throw new InputFault(
                    "tilt",
                    tilt.asTyped(),
                    "The tilt counts from straight down and must be between 20° and 45°; %s is not."
                            .formatted(tilt.asTyped()));
        }
        if (looks.isEmpty()) {
            throw new InputFault("looks", "none", "Leave at least one of the tilted passes.");
        }
        looks = Set.copyOf(looks);
    }

    @Override
    public String key() {
        return "tilted";
    }

    @Override
    public TiltedPasses with(Own other) {
        return new TiltedPasses(other, tilt, looks);
    }

    @Override
    public String words() {
        return String.format(
                Locale.ROOT,
                "tilted by %.0f°, looking %s",
                Math.toDegrees(tilt.si()),
                inOrder().stream().map(Toward::key).collect(Collectors.joining(", ")));
    }

    private List<Toward> inOrder() {
        return looks.stream().sorted(Comparator.naturalOrder()).toList();
    }

    @Override
    public List<Flown> passes(PlaneBlock block, double mainRad, Setting setting) {
        Task task = task(setting);
        double aheadM = setting.task().heightM() * Math.tan(tilt.si());
        double pitch = tilt.si() - Math.PI / 2;
        List<Flown> passes = new ArrayList<>();
        EnumSet<Toward> done = EnumSet.noneOf(Toward.class);
        for (Toward look : inOrder()) {
            double track = mainRad + look.offRad;
            PlaneBlock before = set(block, track, -aheadM);
            StripGrid grid = StripGrid.towards(track);
            if (setting.holdsHeading()) {
                passes.add(new Flown(new Pass(grid.looking(Gaze.held(pitch, track)), task), before));
            } else if (!done.contains(look.opposite())) {
                Task dense =
                        new Task(task.spacingM() / 2, task.baseM(), task.heightM(), task.speedMps(), task.camera());
                PlaneBlock bothWays = before.with(set(block, track, aheadM));
                passes.add(new Flown(new Pass(grid.looking(Gaze.tilted(pitch, 0)), dense), bothWays));
            }
            done.add(look);
        }
        return passes;
    }

    private static PlaneBlock set(PlaneBlock block, double directionRad, double byM) {
        return block.moved(byM * Math.sin(directionRad), byM * Math.cos(directionRad));
    }

    /** Base and spacing by what the tilted picture shows: along from its lower to its upper edge, across at its middle. */
    private Task task(Setting setting) {
        Camera camera = setting.task().camera();
        double heightM = setting.task().heightM();
        double half = Math.atan(camera.sideAlongM() / 2 / camera.focalLengthM());
        if (tilt.si() + half > FARTHEST_RAD) {
            throw new InputFault(
                    "tilt",
                    tilt.asTyped(),
                    String.format(
                            Locale.ROOT,
                            "Tilted by %s the upper edge of this camera's picture looks %.0f° from straight down, almost at the horizon. Tilt by %.0f° at most.",
                            tilt.asTyped(),
                            Math.toDegrees(tilt.si() + half),
                            Math.floor(Math.toDegrees(FARTHEST_RAD - half))));
        }
        double alongM = heightM * (Math.tan(tilt.si() + half) - Math.tan(tilt.si() - half));
        double acrossM = camera.sideAcrossM() / camera.focalLengthM() * heightM / Math.cos(tilt.si());
        return new Task(
                acrossM * (1 - setting.sideOverlap()),
                alongM * (1 - setting.forwardOverlap()),
                heightM,
                setting.task().speedMps(),
                camera);
    }
}
