package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.PlanePoint;
import yalos.core.units.Measure;

/**
 * Circles over the block that overlap each other, the camera aimed at the ground in the middle of each: every place is seen from all round.
 * Middles lie {@code 2 R (1 - overlap)} apart, east and north.
 *
 * @param radius of each
 * @param overlap of neighbouring circles, as a share of their width; half is common practice
 * @param height above the ground
 * @param follows whether it holds its height above the ground all round; level on each circle otherwise
 * @param photos of each; by the forward overlap where empty
 * @param tilt of the camera from straight down; aimed at the ground in the middle where empty
 */
public record Circles(
        Measure radius,
        Measure overlap,
        Measure height,
        boolean follows,
        OptionalInt photos,
        Optional<Measure> tilt,
        Habit habit)
        implements StructurePass {
    private static final int MOST_CIRCLES = 400;

    public Circles {
        InputFault.within("radius", radius.si(), 3, 1000, "m");
        InputFault.within("overlap", overlap.si(), 0, 0.9, "");
        InputFault.within("height", height.si(), 2, 1000, "m");
        photos.ifPresent(n -> InputFault.within("photos", n, 3, 720, ""));
        tilt.ifPresent(t -> InputFault.within("tilt", Math.toDegrees(t.si()), 0, 89, "°"));
    }

    @Override
    public Circles with(Habit other) {
        return new Circles(radius, overlap, height, follows, photos, tilt, other);
    }

    @Override
    public String key() {
        return "circles";
    }

    @Override
    public Optional<String> object() {
        return Optional.empty();
    }

    @Override
    public String words() {
        return "circles of radius %s, overlapping by %s, %s above ground%s"
                .formatted(radius.asTyped(), overlap.asTyped(), height.asTyped(), follows ? ", followed" : "");
    }

    @Override
    public double standOffM(Scene scene) {
        return Math.hypot(radius.si(), height.si());
    }

    /** The same with another radius. */
    public Circles of(Measure otherRadius) {
        return new Circles(otherRadius, overlap, height, follows, photos, tilt, habit);
    }

    /** How each circle is photographed. */
    public CircleShots shots(Scene scene) {
        double r = radius.si();
        double slant = standOffM(scene);
        int count = photos.orElseGet(() ->
                CircleShots.of(r, scene.acrossM(slant), habit.forward().si(), 1).photos());
        double arc = 2 * Math.PI * r / count;
        return CircleShots.with(r, count, scene.speedMps(habit, gsdM(scene), arc, false));
    }

    @Override
    public List<Run> runs(Scene scene) {
        CircleShots circle = shots(scene);
        double speed = circle.arcM() / circle.intervalS();
        List<Run> runs = new ArrayList<>();
        Optional<PlanePoint> before = Optional.empty();
        for (PlanePoint middle : middles(scene)) {
            double begin = before.map(middle::bearingRad).orElse(0.0);
            List<Shot> shots = round(scene, middle, begin, circle.photos());
            before = Optional.of(shots.get(shots.size() - 1).at());
            runs.add(new Run(shots, speed));
        }
        return runs;
    }

    /** Middles of the circles in the order flown, row by row, there and back. */
    List<PlanePoint> middles(Scene scene) {
        Bounds bounds = scene.block().bounds();
        double apart = 2 * radius.si() * (1 - overlap.si());
        double[] xs = spread(bounds.middle().xM(), bounds.width(), apart);
        double[] ys = spread(bounds.middle().yM(), bounds.height(), apart);
        if ((long) xs.length * ys.length > 100L * MOST_CIRCLES) {
            refuse((long) xs.length * ys.length);
        }
        List<PlanePoint> middles = new ArrayList<>();
        for (int row = 0; row < ys.length; row++) {
            for (int i = 0; i < xs.length; i++) {
                double x = xs[row % 2 == 0 ? i : xs.length - 1 - i];
                PlanePoint at = new PlanePoint(x, ys[row]);
                if (xs.length * ys.length == 1 || scene.block().distanceM(at) <= radius.si() / 2) {
                    middles.add(at);
                }
            }
        }
        if (middles.size() > MOST_CIRCLES) {
            refuse(middles.size());
        }
        return middles;
    }

    private void refuse(long count) {
        throw new InputFault(
                "radius",
                radius.asTyped(),
                "%,d circles of radius %s would be needed; %d are the most. Choose a larger radius or less overlap."
                        .formatted(count, radius.asTyped(), MOST_CIRCLES));
    }

    /** The outermost circles reach half their radius beyond the edge. */
    private double[] spread(double middle, double width, double apart) {
        int count = (int) Math.ceil(Math.max(0, width - radius.si()) / apart - 0.05) + 1;
        double[] at = new double[count];
        for (int i = 0; i < count; i++) {
            at[i] = middle + (i - (count - 1) / 2.0) * apart;
        }
        return at;
    }

    private List<Shot> round(Scene scene, PlanePoint middle, double begin, int count) {
        double foot = scene.groundM(middle.xM(), middle.yM()).orElse(Double.NaN);
        List<Shot> shots = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            double bearing = begin + 2 * Math.PI * i / count;
            PlanePoint at = middle.moved(bearing, radius.si());
            double below = follows ? scene.groundM(at.xM(), at.yM()).orElse(Double.NaN) : foot;
            double up = below + height.si();
            double pitch = tilt.map(t -> t.si() - Math.PI / 2).orElseGet(() -> Math.atan2(foot - up, radius.si()));
            shots.add(new Shot(at, up, bearing + Math.PI, pitch, i == 0 ? Optional.empty() : Optional.of(middle)));
        }
        return shots;
    }
}
