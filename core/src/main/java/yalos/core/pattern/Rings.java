package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Prism;
import yalos.core.site.Structure.Built;
import yalos.core.units.Measure;

/**
 * Rings round an object at several heights, the camera aimed at its axis.
 *
 * @param name of the object
 * @param off from the outermost corner, unless a radius is given
 * @param radius of the rings from the axis; by the stand-off where empty
 * @param low height of the lowest ring above the foot; as low as can be flown where empty
 * @param high height of the highest ring above the foot; at the top where empty
 * @param rings how many; by the overlap where empty
 * @param photos of each ring; by the overlap where empty
 * @param aim height above the foot at which all rings aim; each looks level, and down from above the top, where empty
 */
public record Rings(
        String name,
        StandOff off,
        Optional<Measure> radius,
        Optional<Measure> low,
        Optional<Measure> high,
        OptionalInt rings,
        OptionalInt photos,
        Optional<Measure> aim,
        Habit habit)
        implements StructurePass {
    private static final int MOST_RINGS = 60;
    private static final int MOST_PHOTOS = 720;
    /** Neighbouring photos look from no farther apart than this, so that they match (common practice). */
    private static final int FEWEST_PHOTOS = 24;

    /** As it is usual: all of it by the stand-off and the overlaps. */
    public static Rings usual(String object, StandOff off) {
        return new Rings(
                object,
                off,
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                OptionalInt.empty(),
                OptionalInt.empty(),
                Optional.empty(),
                Habit.USUAL);
    }

    public Rings {
        radius.ifPresent(m -> InputFault.within("radius", m.si(), 1, 2000, "m"));
        rings.ifPresent(n -> InputFault.within("rings", n, 1, MOST_RINGS, ""));
        photos.ifPresent(n -> InputFault.within("photos", n, 3, MOST_PHOTOS, ""));
        if (low.isPresent() && high.isPresent() && high.get().si() < low.get().si()) {
            throw new InputFault(
                    "high",
                    high.get().asTyped(),
                    "The highest ring, at %s, must not lie below the lowest, at %s."
                            .formatted(high.get().asTyped(), low.get().asTyped()));
        }
    }

    /** The same from another stand-off, whatever radius that makes. */
    public Rings from(StandOff other) {
        return new Rings(name, other, Optional.empty(), low, high, rings, photos, aim, habit);
    }

    @Override
    public Rings with(Habit other) {
        return new Rings(name, off, radius, low, high, rings, photos, aim, other);
    }

    @Override
    public String key() {
        return "rings";
    }

    @Override
    public Optional<String> object() {
        return Optional.of(name);
    }

    @Override
    public String words() {
        return "rings round “%s”, %s"
                .formatted(name, radius.map(m -> "radius " + m.asTyped()).orElseGet(off::words));
    }

    /** The object from above: where its axis stands, how far it reaches, its foot and top. */
    private record Shape(PlanePoint axis, double reachM, double footM, double topM) {
        static Shape of(List<Built> parts) {
            double west = Double.POSITIVE_INFINITY;
            double east = Double.NEGATIVE_INFINITY;
            double south = Double.POSITIVE_INFINITY;
            double north = Double.NEGATIVE_INFINITY;
            double foot = Double.POSITIVE_INFINITY;
            double top = Double.NEGATIVE_INFINITY;
            for (Built one : parts) {
                Prism solid = one.solid();
                foot = Math.min(foot, solid.bottomM());
                top = Math.max(top, solid.topM());
                for (PlanePoint at : solid.ring()) {
                    west = Math.min(west, at.xM());
                    east = Math.max(east, at.xM());
                    south = Math.min(south, at.yM());
                    north = Math.max(north, at.yM());
                }
            }
            PlanePoint axis = new PlanePoint((west + east) / 2, (south + north) / 2);
            double reach = parts.stream()
                    .flatMap(one -> one.solid().ring().stream())
                    .mapToDouble(axis::distanceM)
                    .max()
                    .orElse(0);
            return new Shape(axis, reach, foot, top);
        }
    }

    @Override
    public double standOffM(Scene scene) {
        Shape shape = Shape.of(scene.required(name));
        return radius.map(m -> m.si() - shape.reachM()).orElseGet(() -> off.metres(scene.camera()));
    }

    /** Radius of the rings, in metres. */
    public double radiusM(Scene scene) {
        return Shape.of(scene.required(name)).reachM() + standOffM(scene);
    }

    /** How each ring is photographed. */
    public CircleShots shots(Scene scene) {
        Shape shape = Shape.of(scene.required(name));
        double d = standOffM(scene);
        double r = shape.reachM() + d;
        // What a photo shows of the object's face, seen from the axis, is as much of the ring.
        double shown = scene.acrossM(d) * r / Math.max(0.1, shape.reachM());
        CircleShots byOverlap = CircleShots.of(r, shown, habit.forward().si(), 1);
        int count = photos.orElse(Math.max(FEWEST_PHOTOS, byOverlap.photos()));
        double arc = 2 * Math.PI * r / count;
        return CircleShots.with(r, count, scene.speedMps(habit, gsdM(scene), arc, r < 30));
    }

    @Override
    public List<Run> runs(Scene scene) {
        Shape shape = Shape.of(scene.required(name));
        double d = standOffM(scene);
        if (d < scene.clearM() - 1e-9) {
            throw new InputFault(
                    radius.isPresent() ? "radius" : "standOff",
                    "%.2f m".formatted(d),
                    "The rings pass %.2f m from the outermost corner, and %.1f m are to be kept clear. The radius must be %.1f m or more."
                            .formatted(d, scene.clearM(), shape.reachM() + scene.clearM()));
        }
        double r = shape.reachM() + d;
        CircleShots circle = shots(scene);
        double speed = circle.arcM() / circle.intervalS();
        List<Run> runs = new ArrayList<>();
        double begin = 0;
        for (double up : levels(scene, shape, d, r)) {
            double pitch = Math.atan2(aimM(shape, up) - up, r);
            List<Shot> shots = new ArrayList<>();
            for (int i = 0; i < circle.photos(); i++) {
                double bearing = begin + 2 * Math.PI * i / circle.photos();
                shots.add(new Shot(
                        shape.axis().moved(bearing, r),
                        up,
                        bearing + Math.PI,
                        pitch,
                        i == 0 ? Optional.empty() : Optional.of(shape.axis())));
            }
            runs.add(new Run(shots, speed));
            begin += 2 * Math.PI * (circle.photos() - 1) / circle.photos();
        }
        return runs;
    }

    private double aimM(Shape shape, double up) {
        return aim.map(m -> shape.footM() + m.si()).orElse(Math.min(up, shape.topM()));
    }

    private double[] levels(Scene scene, Shape shape, double d, double r) {
        double lowest = low.map(m -> shape.footM() + m.si()).orElseGet(() -> lowest(scene, shape, r));
        double highest = Math.max(
                lowest,
                high.map(m -> shape.footM() + m.si())
                        .orElse(Math.min(
                                shape.topM(),
                                habit.ceiling().map(m -> shape.footM() + m.si()).orElse(Double.POSITIVE_INFINITY))));
        if (rings.isPresent()) {
            double[] levels = new double[rings.getAsInt()];
            for (int i = 0; i < levels.length; i++) {
                levels[i] = levels.length == 1
                        ? (lowest + highest) / 2
                        : lowest + (highest - lowest) * i / (levels.length - 1);
            }
            return levels;
        }
        double[] levels = Habit.spread(
                lowest, highest, scene.alongM(d) * (1 - habit.side().si()));
        if (levels.length > MOST_RINGS) {
            throw new InputFault(
                    "rings",
                    levels.length,
                    "The overlap asks for %d rings; %d are the most. Stand off farther or overlap less."
                            .formatted(levels.length, MOST_RINGS));
        }
        return levels;
    }

    /** Clear of the ground all round, no lower than the foot and the floor. */
    private double lowest(Scene scene, Shape shape, double r) {
        double lowest = Math.max(
                shape.footM(), habit.floor().map(m -> shape.footM() + m.si()).orElse(Double.NEGATIVE_INFINITY));
        for (int i = 0; i < 72; i++) {
            PlanePoint at = shape.axis().moved(Math.PI * i / 36, r);
            lowest =
                    Math.max(lowest, scene.groundM(at.xM(), at.yM()).orElse(Double.NEGATIVE_INFINITY) + scene.clearM());
        }
        return lowest;
    }
}
