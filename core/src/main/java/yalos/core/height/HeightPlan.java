package yalos.core.height;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import yalos.core.block.PlaneBlock;
import yalos.core.flight.Link;
import yalos.core.flight.Station;
import yalos.core.flight.Strip;
import yalos.core.kit.Aircraft;
import yalos.core.pattern.StripLayout;
import yalos.core.site.SiteMap;
import yalos.core.terrain.HeightGrid;

/**
 * A strip layout with its heights over real ground.
 *
 * <p>Where the ground is followed, the path keeps the planned height above the evened-out upper envelope of the ground in a
 * corridor beneath it, obstacles on the highest of it, never below the clearance, and never steeper than the aircraft climbs or sinks at its
 * speed; where it cannot climb quickly enough it starts earlier, so it is only ever raised. Legs between strips clear the ground
 * the same way.
 */
public final class HeightPlan {
    /** Ground to both sides of the path that counts as beneath it, in metres. */
    public static final double CORRIDOR_M = 10;

    private static final double LONGEST_STEP_M = 2.5;
    private static final int MOST_STEPS = 4000;

    private final HeightGrid grid;
    private final SiteMap site;
    private final HeightChoice choice;
    private final double heightM;
    private final Aircraft aircraft;
    private final double speedMps;
    private final Relief relief;
    private final double takeOffM;
    private final List<LegSection> legs = new ArrayList<>();
    private final double[] stationM;
    private final double[] stationGroundM;
    private Optional<RaisedWays> raisedWays = Optional.empty();

    /**
     * Ways between strips that rise over the straight line between their ends to clear what lies below.
     *
     * @param mostM that one of them rises over it
     * @param highestM that one of them rises to, above the geoid
     * @param x where it rises most, in the block's plane
     * @param y where it rises most
     */
    public record RaisedWays(double mostM, double highestM, double x, double y) {}

    /** The ground within the block: least, mean and greatest height above the geoid. */
    public record Relief(double leastM, double meanM, double mostM) {
        public double rangeM() {
            return mostM - leastM;
        }

        /** Of the ground within a block; empty where some of it is not known. */
        public static Optional<Relief> of(HeightGrid grid, PlaneBlock block) {
            double least = Double.MAX_VALUE;
            double most = -Double.MAX_VALUE;
            double sum = 0;
            long count = 0;
            boolean[] inside =
                    block.inside(grid.west(), grid.north(), grid.cellX(), grid.cellY(), grid.columns(), grid.rows());
            for (int i = 0; i < inside.length; i++) {
                if (inside[i]) {
                    float height = grid.heights()[i];
                    if (Float.isNaN(height)) {
                        return Optional.empty();
                    }
                    least = Math.min(least, height);
                    most = Math.max(most, height);
                    sum += height;
                    count++;
                }
            }
            return count == 0 ? Optional.empty() : Optional.of(new Relief(least, sum / count, most));
        }
    }

    /**
     * @param heightM planned height above the ground it is measured from
     * @param launch of the take-off in the block's plane; the first station stands for it where it is not known
     */
    public HeightPlan(
            HeightGrid grid,
            SiteMap site,
            HeightChoice choice,
            Relief relief,
            StripLayout layout,
            double heightM,
            double speedMps,
            Aircraft aircraft,
            Optional<double[]> launch) {
        this.grid = grid;
        this.site = site;
        this.choice = choice;
        this.relief = relief;
        this.heightM = heightM;
        this.speedMps = speedMps;
        this.aircraft = aircraft;
        Station first = layout.stations().get(0);
        double[] takeOff = launch.orElse(new double[] {first.xM(), first.yM()});
        double known = grid.at(takeOff[0], takeOff[1]);
        this.takeOffM = Double.isNaN(known) ? grid.at(first.xM(), first.yM()) : known;
        this.stationM = new double[layout.stations().size()];
        this.stationGroundM = new double[layout.stations().size()];
        LegSection[] strips = layout.strips().stream().map(this::strip).toArray(LegSection[]::new);
        for (int i = 0; i < strips.length; i++) {
            stations(layout, layout.strips().get(i), strips[i]);
        }
        join(layout, strips);
    }

    private void stations(StripLayout layout, Strip strip, LegSection profile) {
        for (int i = strip.firstStation(); i < strip.firstStation() + strip.stations(); i++) {
            Station station = layout.stations().get(i);
            double along = Math.hypot(station.xM() - strip.fromX(), station.yM() - strip.fromY());
            stationM[i] = profile.pathAtM(along);
            stationGroundM[i] = grid.at(station.xM(), station.yM());
        }
    }

    /** Links and strips in the order flown: out, strip, turn, strip, …, home. */
    private void join(StripLayout layout, LegSection[] strips) {
        int next = 0;
        boolean out = !layout.links().isEmpty() && layout.links().get(0).kind() == Link.Kind.OUT;
        for (int i = 0; i < strips.length; i++) {
            if (i > 0 || out) {
                double from = i == 0 ? strips[0].pathM()[0] : last(strips[i - 1]);
                legs.add(link(layout.links().get(next++), from, strips[i].pathM()[0]));
            }
            legs.add(strips[i]);
        }
        if (next < layout.links().size()) {
            double end = last(strips[strips.length - 1]);
            legs.add(link(layout.links().get(next), end, end));
        }
    }

    private static double last(LegSection profile) {
        return profile.pathM()[profile.pathM().length - 1];
    }

    private LegSection strip(Strip strip) {
        Ground ground = ground(strip.fromX(), strip.fromY(), strip.toX(), strip.toY());
        double[] path = switch (choice.reference()) {
            case FOLLOW -> followed(ground);
            case STEPPED -> level(ground, steppedM(ground));
            case GEOID -> level(ground, levelM());
            case TAKE_OFF -> level(ground, takeOffM + heightM);
        };
        return new LegSection(
                strip.number(),
                strip.fromX(),
                strip.fromY(),
                strip.toX(),
                strip.toY(),
                ground.lengthM,
                ground.groundM,
                ground.topM,
                path);
    }

    /** A link keeps to the straight line between its ends and is raised where that would not clear the ground. */
    private LegSection link(Link link, double fromM, double toM) {
        Ground ground = ground(link.fromX(), link.fromY(), link.toX(), link.toY());
        int steps = ground.groundM.length;
        double[] path = new double[steps];
        for (int i = 0; i < steps; i++) {
            double straight = fromM + (toM - fromM) * i / (steps - 1);
            path[i] = Math.max(straight, ground.topM[i] + choice.clearanceM());
            if (path[i] > straight) {
                raised(link, (double) i / (steps - 1), path[i] - straight, path[i]);
            }
        }
        limitSlopes(path, ground.stepM());
        return new LegSection(
                0,
                link.fromX(),
                link.fromY(),
                link.toX(),
                link.toY(),
                ground.lengthM,
                ground.groundM,
                ground.topM,
                path);
    }

    private void raised(Link link, double share, double byM, double toM) {
        boolean most = raisedWays.map(known -> byM > known.mostM()).orElse(true);
        double highest = Math.max(toM, raisedWays.map(RaisedWays::highestM).orElse(toM));
        raisedWays = Optional.of(new RaisedWays(
                most ? byM : raisedWays.get().mostM(),
                highest,
                most
                        ? link.fromX() + (link.toX() - link.fromX()) * share
                        : raisedWays.get().x(),
                most
                        ? link.fromY() + (link.toY() - link.fromY()) * share
                        : raisedWays.get().y()));
    }

    /** Ground and what stands on it along a leg, at two steps or more. */
    private record Ground(double lengthM, double[] groundM, double[] topM) {
        double stepM() {
            return lengthM / (groundM.length - 1);
        }
    }

    /**
     * How near to a step of the path an obstacle counts as beneath it: within the corridor, and within the clearance to the side as
     * well as above. Both steps round it see it.
     */
    public double reachM(double stepM) {
        return Math.hypot(Math.max(CORRIDOR_M, choice.clearanceM()), stepM);
    }

    private Ground ground(double fromX, double fromY, double toX, double toY) {
        double length = Math.hypot(toX - fromX, toY - fromY);
        double step = Math.max(Math.max(1, Math.min(grid.cellX(), LONGEST_STEP_M)), length / MOST_STEPS);
        int steps = (int) Math.max(2, Math.ceil(length / step) + 1);
        double[] ground = new double[steps];
        double[] top = new double[steps];
        double ux = length == 0 ? 0 : (toX - fromX) / length;
        double uy = length == 0 ? 0 : (toY - fromY) / length;
        double reach = reachM(length / (steps - 1));
        int sides = (int) Math.max(1, Math.min(8, Math.ceil(CORRIDOR_M / grid.cellX())));
        for (int i = 0; i < steps; i++) {
            double share = (double) i / (steps - 1);
            double x = fromX + (toX - fromX) * share;
            double y = fromY + (toY - fromY) * share;
            ground[i] = grid.at(x, y);
            double highest = ground[i];
            for (int side = -sides; side <= sides; side++) {
                double aside = CORRIDOR_M * side / sides;
                double beside = grid.at(x - uy * aside, y + ux * aside);
                highest = Double.isNaN(beside) ? highest : Math.max(highest, beside);
            }
            top[i] = highest + site.obstacleM(x, y, reach);
        }
        return new Ground(length, ground, top);
    }

    private double[] followed(Ground ground) {
        double[] path = evened(ground.topM, choice.smoothingM() / ground.stepM());
        for (int i = 0; i < path.length; i++) {
            path[i] = Math.max(path[i] + heightM, ground.topM[i] + choice.clearanceM());
        }
        limitSlopes(path, ground.stepM());
        return path;
    }

    /** Moving mean over a window of so many steps. */
    private static double[] evened(double[] values, double window) {
        int half = (int) Math.round(window / 2);
        double[] sums = new double[values.length + 1];
        for (int i = 0; i < values.length; i++) {
            sums[i + 1] = sums[i] + values[i];
        }
        double[] evened = new double[values.length];
        for (int i = 0; i < values.length; i++) {
            int reach = Math.min(half, Math.min(i, values.length - 1 - i));
            evened[i] = (sums[i + reach + 1] - sums[i - reach]) / (2 * reach + 1);
        }
        return evened;
    }

    /** Raises a path until it nowhere climbs or sinks more steeply than the aircraft can at its speed. */
    private void limitSlopes(double[] path, double stepM) {
        double climb = aircraft.climbMps() / speedMps * stepM;
        double descent = aircraft.descentMps() / speedMps * stepM;
        for (int i = 1; i < path.length; i++) {
            path[i] = Math.max(path[i], path[i - 1] - descent);
        }
        for (int i = path.length - 2; i >= 0; i--) {
            path[i] = Math.max(path[i], path[i + 1] - climb);
        }
    }

    private static double[] level(Ground ground, double upM) {
        double[] path = new double[ground.groundM.length];
        Arrays.fill(path, upM);
        return path;
    }

    private double steppedM(Ground ground) {
        double least = Arrays.stream(ground.groundM).min().orElse(0);
        double mean = Arrays.stream(ground.groundM).average().orElse(0);
        double most = Arrays.stream(ground.topM).max().orElse(0);
        return Math.max(choice.plane().level(least, mean, most) + heightM, most + choice.clearanceM());
    }

    private double levelM() {
        return choice.plane().level(relief.leastM(), relief.meanM(), relief.mostM()) + heightM;
    }

    public HeightGrid grid() {
        return grid;
    }

    public SiteMap site() {
        return site;
    }

    public HeightChoice choice() {
        return choice;
    }

    public Relief relief() {
        return relief;
    }

    /** Ground at the take-off point, above the geoid. */
    public double takeOffM() {
        return takeOffM;
    }

    /** Legs in the order flown, strips and the ways between them. */
    public List<LegSection> legs() {
        return List.copyOf(legs);
    }

    public LegSection strip(int number) {
        return legs.stream()
                .filter(leg -> leg.strip() == number)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no strip " + number));
    }

    /** Height of a station above the geoid, in metres. */
    public double stationM(int index) {
        return stationM[index];
    }

    /** Height of a station above the ground straight below it, in metres. */
    public double stationAboveGroundM(int index) {
        return stationM[index] - stationGroundM[index];
    }

    /** Height of a station above the take-off point, in metres. */
    public double stationAboveTakeOffM(int index) {
        return stationM[index] - takeOffM;
    }

    /** Least, mean and greatest height of the stations above the ground straight below. */
    public double[] aboveGroundM() {
        double[] all = new double[stationM.length];
        Arrays.setAll(all, this::stationAboveGroundM);
        return new double[] {
            Arrays.stream(all).min().orElse(0),
            Arrays.stream(all).average().orElse(0),
            Arrays.stream(all).max().orElse(0)
        };
    }

    /** The leg that comes nearest to what lies below it. */
    public LegSection nearestLeg() {
        return legs.stream()
                .min(Comparator.comparingDouble(LegSection::clearanceM))
                .orElseThrow();
    }

    /** Ways between strips that must rise; empty where the straight line clears everything. */
    public Optional<RaisedWays> raisedWays() {
        return raisedWays;
    }

    /** Highest point of the path above the geoid. */
    public double highestM() {
        return legs.stream()
                .mapToDouble(leg -> Arrays.stream(leg.pathM()).max().orElse(0))
                .max()
                .orElse(0);
    }

    /** Height above take-off that clears all ground and obstacles of the model within reach of the path, with the clearance. */
    public double returnAboveTakeOffM() {
        double highest = legs.stream()
                .mapToDouble(leg -> Arrays.stream(leg.topM()).max().orElse(0))
                .max()
                .orElse(0);
        return Math.max(highest, relief.mostM() + site.tallestM()) + choice.clearanceM() - takeOffM;
    }

    /** Whether every height of the path is known; strips may reach beyond what the model covers. */
    public boolean known() {
        return legs.stream()
                        .filter(LegSection::isStrip)
                        .allMatch(leg -> Arrays.stream(leg.pathM()).noneMatch(Double::isNaN))
                && !Double.isNaN(takeOffM);
    }

    /** Planned height above the ground it is measured from. */
    public double heightM() {
        return heightM;
    }
}
