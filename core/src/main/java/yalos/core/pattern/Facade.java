package yalos.core.pattern;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.stream.DoubleStream;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Prism;
import yalos.core.site.Structure;
import yalos.core.site.Structure.Built;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * Runs along the walls of an object, so far off, the camera square to each wall; round corners that bend outward with photos through the turn.
 *
 * <p>GSD from the stand-off {@code d}: {@code d · pitch / f}. Runs lie between the lowest height that can be flown and the top of the wall, the first and last on
 * these, neighbours no farther apart than the overlap allows; so do the photos of a run between the ends of a wall.
 *
 * @param name of the object
 * @param off how far off, or the GSD it follows from
 * @param upright whether runs go up and down instead of along
 * @param footTilt by which a run more at the lowest height looks down, from level; up to what hangs over where negative, none at 0
 * @param roofTilt by which a run more looks down over the edge of the roof, from level; none at 0
 * @param rounded whether photos are taken through the turn at corners
 * @param overRoof whether runs straight down over the roof follow, as far off
 */
public record Facade(
        String name,
        StandOff off,
        boolean upright,
        Measure footTilt,
        Measure roofTilt,
        boolean rounded,
        boolean overRoof,
        Habit habit)
        implements StructurePass {
    /** Between photos through a turn, at most: neighbours must show enough of the same (common practice). */
    private static final double MOST_TURN_RAD = Math.toRadians(15);

    /** As it is usual: along the walls, tilted at the foot and over the roof edge, rounded, straight down over the roof too. */
    public static Facade usual(String object, StandOff off) {
        return new Facade(
                object, off, false, Measure.of(20, Unit.DEGREE), Measure.of(45, Unit.DEGREE), true, true, Habit.USUAL);
    }

    public Facade {
        InputFault.within("footTilt", Math.toDegrees(footTilt.si()), -60, 60, "°");
        InputFault.within("roofTilt", Math.toDegrees(roofTilt.si()), 0, 80, "°");
    }

    /** The same from another stand-off. */
    public Facade from(StandOff other) {
        return new Facade(name, other, upright, footTilt, roofTilt, rounded, overRoof, habit);
    }

    /** The same with its tilted runs otherwise; none at 0. */
    public Facade tilted(Measure foot, Measure roof) {
        return new Facade(name, off, upright, foot, roof, rounded, overRoof, habit);
    }

    /** The same with or without runs straight down over the roof. */
    public Facade overRoof(boolean flown) {
        return new Facade(name, off, upright, footTilt, roofTilt, rounded, flown, habit);
    }

    @Override
    public Facade with(Habit other) {
        return new Facade(name, off, upright, footTilt, roofTilt, rounded, overRoof, other);
    }

    @Override
    public String key() {
        return "facade";
    }

    @Override
    public Optional<String> object() {
        return Optional.of(name);
    }

    @Override
    public String words() {
        return "facade of “%s”, %s%s".formatted(name, off.words(), upright ? ", up and down" : "");
    }

    @Override
    public double standOffM(Scene scene) {
        return off.metres(scene.camera());
    }

    /** A place on a way round the walls, and which way the camera looks from there. */
    private record Spot(PlanePoint at, double yawRad, Optional<PlanePoint> round) {}

    @Override
    public List<Run> runs(Scene scene) {
        double d = standOffM(scene);
        if (d < scene.clearM() - 1e-9) {
            throw new InputFault(
                    "standOff",
                    "%.2f m".formatted(d),
                    "%.2f m off is less than the %.1f m to be kept from everything. Stand off farther, or keep less clear."
                            .formatted(d, scene.clearM()));
        }
        List<Run> runs = new ArrayList<>();
        for (Built one : scene.required(name)) {
            if (one.pier() == 0) {
                runs.addAll(new Part(scene, one, d).runs());
            }
        }
        if (runs.isEmpty()) {
            throw new InputFault("object", name, "No wall of “%s” needs photos; switch one on.".formatted(name));
        }
        return runs;
    }

    /** Runs round one part of the object. */
    private final class Part {
        /** Nearer than this share of a step to the next level, the lowest place of a wall is left to that. */
        private static final double WORTH = 0.1;

        private final Scene scene;
        private final Built one;
        private final Prism solid;
        private final double d;
        private final double alongM;
        private final double upM;
        private final double speed;
        private final double foot;
        private final List<Run> runs = new ArrayList<>();
        private boolean back;

        Part(Scene scene, Built one, double d) {
            this.scene = scene;
            this.one = one;
            this.solid = one.solid();
            this.d = d;
            this.alongM = scene.acrossM(d) * (1 - (upright ? habit.side() : habit.forward()).si());
            this.upM = scene.alongM(d) * (1 - (upright ? habit.forward() : habit.side()).si());
            this.speed = scene.speedMps(habit, gsdM(scene), upright ? upM : alongM, true);
            this.foot = Math.max(footM(), limit(habit.floor(), Double.NEGATIVE_INFINITY));
        }

        List<Run> runs() {
            List<List<Spot>> ways = ways(one, d, alongM);
            if (!ways.isEmpty()) {
                double low = ways.stream()
                        .flatMap(List::stream)
                        .mapToDouble(this::lowest)
                        .min()
                        .orElse(foot);
                double high = Math.max(low, Math.min(solid.topM(), limit(habit.ceiling(), Double.POSITIVE_INFINITY)));
                walls(ways, Habit.spread(low, high, upM));
                edges(ways);
            }
            if (overRoof && one.kind() != Structure.Kind.DECK && one.wants(one.roofKey())) {
                roof();
            }
            return runs;
        }

        private void walls(List<List<Spot>> ways, double[] levels) {
            if (upright) {
                ways.forEach(way -> runs.add(new Run(columns(way, levels), speed)));
                return;
            }
            for (int i = 0; i < levels.length; i++) {
                double level = levels[i];
                double next = i + 1 < levels.length ? levels[i + 1] - WORTH * upM : Double.POSITIVE_INFINITY;
                add(ways, spot -> {
                    double up = Math.max(level, lowest(spot));
                    return up < next ? OptionalDouble.of(up) : OptionalDouble.empty();
                });
            }
        }

        /** The tilted runs along the foot and over the edge of the roof. */
        private void edges(List<List<Spot>> ways) {
            if (footTilt.si() != 0) {
                add(ways, spot -> OptionalDouble.of(lowest(spot)), -footTilt.si());
            }
            if (roofTilt.si() > 0 && one.kind() != Structure.Kind.DECK) {
                double edge = solid.topM() + d * Math.sin(roofTilt.si());
                add(ways(one, d * Math.cos(roofTilt.si()), alongM), spot -> OptionalDouble.of(edge), -roofTilt.si());
            }
        }

        /** The foot of the part; of a deck that of its piers, which are seen from the same runs. */
        private double footM() {
            return scene.of(name).stream()
                    .filter(other -> other == one || other.pier() > 0 && other.part() == one.part())
                    .mapToDouble(other -> other.solid().bottomM())
                    .min()
                    .orElseThrow();
        }

        private double limit(Optional<Measure> limit, double otherwise) {
            double zero = scene.footM(object()).orElse(0);
            return limit.map(m -> zero + m.si()).orElse(otherwise);
        }

        /** How low it can be flown at a place: clear of the ground, and no lower than foot and floor. */
        private double lowest(Spot spot) {
            double ground = scene.groundM(spot.at().xM(), spot.at().yM()).orElse(Double.NEGATIVE_INFINITY);
            return Math.max(foot, ground + scene.clearM());
        }

        /** A wall lower than it can be flown is looked down at. */
        private double pitch(double up) {
            return up > solid.topM() ? Math.atan2((solid.topM() + solid.bottomM()) / 2 - up, d) : 0;
        }

        private void add(List<List<Spot>> ways, Function<Spot, OptionalDouble> height) {
            add(ways, height, Double.NaN);
        }

        /**
         * All ways once; turned back where the last ended at their end.
         *
         * @param height at a place; none where another run passes there
         * @param pitchRad of the camera; square to the wall where not a number
         */
        private void add(List<List<Spot>> ways, Function<Spot, OptionalDouble> height, double pitchRad) {
            boolean loop = ways.size() == 1 && closed(ways.get(0));
            List<List<Spot>> order = new ArrayList<>(ways);
            if (back) {
                Collections.reverse(order);
            }
            for (List<Spot> way : order) {
                List<Shot> shots = new ArrayList<>();
                for (Spot spot : back ? reversed(way) : way) {
                    OptionalDouble up = height.apply(spot);
                    if (up.isEmpty()) {
                        end(shots);
                        continue;
                    }
                    double pitch = Double.isNaN(pitchRad) ? pitch(up.getAsDouble()) : pitchRad;
                    Shot shot = new Shot(spot.at(), up.getAsDouble(), spot.yawRad(), pitch, spot.round());
                    shots.add(shots.isEmpty() ? shot.straight() : shot);
                }
                end(shots);
            }
            back = !loop && !back;
        }

        private void end(List<Shot> shots) {
            if (!shots.isEmpty()) {
                runs.add(new Run(shots, speed));
                shots.clear();
            }
        }

        private List<Shot> columns(List<Spot> way, double[] levels) {
            List<Shot> shots = new ArrayList<>();
            boolean down = false;
            for (Spot spot : way) {
                double low = lowest(spot);
                double[] ups = DoubleStream.concat(
                                DoubleStream.of(low), Arrays.stream(levels).filter(up -> up > low + WORTH * upM))
                        .toArray();
                for (int i = 0; i < ups.length; i++) {
                    double up = ups[down ? ups.length - 1 - i : i];
                    shots.add(Shot.straight(spot.at(), up, spot.yawRad(), pitch(up)));
                }
                down = !down;
            }
            return shots;
        }

        /** Runs along the longest wall, straight down, from edge to edge of what a roof reaches across. */
        private void roof() {
            double track = solid.longestRad();
            double[] reach = solid.reachesM(track);
            double base = scene.alongM(d) * (1 - habit.forward().si());
            double spacing = scene.acrossM(d) * (1 - habit.side().si());
            double roofSpeed = scene.speedMps(habit, gsdM(scene), base, true);
            boolean returning = false;
            for (double aside : Habit.spread(reach[2], reach[3], spacing)) {
                List<Shot> shots = new ArrayList<>();
                double[] along = Habit.spread(reach[0], reach[1], base);
                double yaw = returning ? track + Math.PI : track;
                for (int i = 0; i < along.length; i++) {
                    double ahead = along[returning ? along.length - 1 - i : i];
                    PlanePoint at = solid.middle().moved(track, ahead).moved(track + Math.PI / 2, aside);
                    shots.add(Shot.straight(at, solid.topM() + d, yaw, -Math.PI / 2));
                }
                runs.add(new Run(shots, roofSpeed));
                returning = !returning;
            }
        }
    }

    private static boolean closed(List<Spot> way) {
        return way.size() > 2
                && way.get(0).at().distanceM(way.get(way.size() - 1).at()) < 1e-6;
    }

    private static List<Spot> reversed(List<Spot> way) {
        List<Spot> back = new ArrayList<>();
        for (int i = way.size() - 1; i >= 0; i--) {
            Optional<PlanePoint> round = i + 1 < way.size() ? way.get(i + 1).round() : Optional.empty();
            back.add(new Spot(way.get(i).at(), way.get(i).yawRad(), round));
        }
        return back;
    }

    /** Ways past the walls that need photos, each as far as neighbouring walls do; one that comes round ends where it began. */
    private List<List<Spot>> ways(Built one, double offM, double stepM) {
        Prism solid = one.solid();
        int walls = solid.walls();
        boolean all = true;
        for (int wall = 0; wall < walls; wall++) {
            all &= one.wants(one.key(wall + 1));
        }
        int first = 0;
        while (!all && first < walls && (!wants(one, first) || wants(one, first - 1))) {
            first++;
        }
        List<List<Spot>> ways = new ArrayList<>();
        List<Spot> way = new ArrayList<>();
        for (int i = 0; i < walls && first < walls; i++) {
            int wall = first + i;
            if (!wants(one, wall)) {
                continue;
            }
            if (way.isEmpty() || !turn(way, solid, wall, offM, stepM)) {
                way = new ArrayList<>();
                ways.add(way);
            }
            along(way, solid, wall, offM, stepM);
            if (!wants(one, wall + 1)) {
                way = new ArrayList<>();
            }
        }
        if (all && ways.size() == 1 && solid.outward(0)) {
            turn(way, solid, 0, offM, stepM);
            Spot start = way.get(0);
            way.add(new Spot(start.at(), start.yawRad(), rounded ? Optional.of(solid.corner(0)) : Optional.empty()));
        }
        return ways.stream()
                .filter(found -> !found.isEmpty())
                .map(found -> thinned(found, stepM))
                .toList();
    }

    /** A round wall has a corner every step: what neither distance nor turn asks for is left out. */
    private static List<Spot> thinned(List<Spot> way, double stepM) {
        List<Spot> kept = new ArrayList<>(way.subList(0, 1));
        Spot last = way.get(0);
        int since = 0;
        for (int i = 1; i < way.size(); i++) {
            Spot spot = way.get(i);
            boolean needed = i + 1 == way.size() || !near(last, way.get(i + 1), stepM);
            if (needed) {
                last = since == 0 ? spot : new Spot(spot.at(), spot.yawRad(), Optional.empty());
                kept.add(last);
                since = 0;
            } else {
                since++;
            }
        }
        return kept;
    }

    private static boolean near(Spot from, Spot to, double stepM) {
        return from.at().distanceM(to.at()) <= stepM * (1 + 1e-9)
                && Math.abs(Math.IEEEremainder(to.yawRad() - from.yawRad(), 2 * Math.PI)) <= MOST_TURN_RAD + 1e-9;
    }

    private static boolean wants(Built one, int wall) {
        int walls = one.solid().walls();
        return one.wants(one.key(Math.floorMod(wall, walls) + 1));
    }

    /** Photos through the turn before a wall; not where it bends inward: there the way leaves the corner aside. */
    private boolean turn(List<Spot> way, Prism solid, int wall, double offM, double stepM) {
        if (!solid.outward(wall)) {
            return false;
        }
        if (rounded) {
            double from = solid.facingRad(wall - 1);
            double turn = Math.IEEEremainder(solid.facingRad(wall) - from, 2 * Math.PI);
            int parts = (int) Math.ceil(Math.max(Math.abs(turn) * offM / stepM, Math.abs(turn) / MOST_TURN_RAD) - 1e-9);
            for (int i = 1; i < parts; i++) {
                double facing = from + turn * i / parts;
                PlanePoint corner = solid.corner(wall);
                way.add(new Spot(corner.moved(facing, offM), facing + Math.PI, Optional.of(corner)));
            }
        }
        return true;
    }

    private void along(List<Spot> way, Prism solid, int wall, double offM, double stepM) {
        double facing = solid.facingRad(wall);
        double track = facing - Math.PI / 2;
        boolean turned = rounded && !way.isEmpty();
        for (double ahead : Habit.spread(0, solid.wallM(wall), stepM)) {
            PlanePoint at = solid.corner(wall).moved(track, ahead).moved(facing, offM);
            way.add(new Spot(at, facing + Math.PI, turned ? Optional.of(solid.corner(wall)) : Optional.empty()));
            turned = false;
        }
    }
}
