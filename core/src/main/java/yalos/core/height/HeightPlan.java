package yalos.core.height;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.DoubleStream;
import yalos.core.block.PlaneBlock;
import yalos.core.flight.Climb;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Heights;
import yalos.core.flight.Line;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.site.Detour;
import yalos.core.site.SiteMap;
import yalos.core.terrain.HeightGrid;

/**
 * A flight laid over real ground: how high it is, and how far from what lies and stands below it.
 *
 * <p>Where the ground is followed, the path keeps the planned height above the evened-out upper envelope of the ground in a
 * corridor beneath it, obstacles on the highest of it, never below the clearance, and never steeper than the aircraft climbs or sinks at its
 * speed; where it cannot climb quickly enough it starts earlier, so it is only ever raised. Ways between lines clear the ground
 * the same way.
 */
public final class HeightPlan implements Heights {
    /** Ground to both sides of the path that counts as beneath it, in metres. */
    public static final double CORRIDOR_M = 10;

    private static final double CENTIMETRE_M = 0.01;

    private final HeightGrid grid;
    private final SiteMap site;
    private final HeightChoice choice;
    private final double heightM;
    private final Aircraft aircraft;
    private final Relief relief;
    private final double takeOffM;
    private final Flight level;
    private final Flight flight;
    private final List<LegSection> sections = new ArrayList<>();
    private final Beneath[] beneathLines;
    private final Deque<Beneath> beneathWays = new ArrayDeque<>();
    private Optional<RaisedWays> raisedWays = Optional.empty();

    /**
     * Ways between lines that rise over the straight line between their ends to clear what lies below.
     *
     * @param mostM that one of them rises over it
     * @param highestM that one of them rises to, above the geoid
     * @param place where it rises most
     */
    public record RaisedWays(double mostM, double highestM, PlanePoint place) {}

    /** The ground within the block: least, mean and greatest height above the geoid. */
    public record Relief(double leastM, double meanM, double mostM) {
        /** From the lowest to the highest, in metres. */
        public double rangeM() {
            return mostM - leastM;
        }

        /** Of the ground within a block as far as it is known; empty where none of it is. */
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
                        continue;
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
     * @param takeOffM ground at the take-off point, above the geoid; not a number where nobody knows it
     * @param level the flight as it would be over level ground, its photos over known ground
     * @param heightM planned height above the ground it is measured from
     */
    public HeightPlan(
            HeightGrid grid,
            SiteMap site,
            HeightChoice choice,
            Relief relief,
            double takeOffM,
            Flight level,
            double heightM,
            Aircraft aircraft) {
        this.grid = grid;
        this.site = site;
        this.choice = choice;
        this.relief = relief;
        this.heightM = heightM;
        this.aircraft = aircraft;
        this.level = level;
        this.takeOffM = takeOffM;
        this.beneathLines = new Beneath[level.lines().size()];
        this.flight = level.over(this);
        for (Way way : flight.ways()) {
            boolean line = way instanceof Line;
            int number = line ? ((Line) way).number() : 0;
            Beneath beneath = line ? beneathLines[number - 1] : beneathWays.removeFirst();
            sections.add(new LegSection(number, way, beneath.groundM(), beneath.topM()));
        }
    }

    @Override
    public double takeOffUpM() {
        return takeOffM;
    }

    @Override
    public double[] along(Line line) {
        Beneath beneath = beneath(line);
        beneathLines[line.number() - 1] = beneath;
        return switch (choice.reference()) {
            case FOLLOW -> followed(beneath, line.speedMps(), above(line));
            case STEPPED -> level(beneath, steppedM(beneath, above(line)));
            case GEOID -> level(beneath, levelM() + above(line));
            case TAKE_OFF -> level(beneath, takeOffM + above(line));
        };
    }

    /** Planned height of a line: each pass may have its own. The level flight is laid over ground at height 0. */
    private static double above(Line line) {
        return line.upM()[0];
    }

    /** They keep to the straight line between their ends and are raised where that would not clear the ground. */
    @Override
    public List<double[]> between(List<Way> ways, double fromUpM, double toUpM) {
        double whole = ways.stream().mapToDouble(Way::lengthM).sum();
        List<Beneath> beneath = ways.stream().map(this::beneath).toList();
        beneathWays.addAll(beneath);
        int steps = beneath.stream().mapToInt(one -> one.groundM().length).sum();
        double[] path = new double[steps];
        double[] climb = new double[steps];
        double[] sink = new double[steps];
        double ahead = 0;
        int at = 0;
        for (int w = 0; w < ways.size(); w++) {
            Way way = ways.get(w);
            Beneath under = beneath.get(w);
            for (int i = 0; i < under.groundM().length; i++, at++) {
                double along = under.stepM() * i;
                double straight = fromUpM + (toUpM - fromUpM) * (whole == 0 ? 0 : (ahead + along) / whole);
                double clear = under.topM()[i] + choice.keptM();
                // Over unknown ground there is nothing to rise for; a finding says that it is unknown.
                path[at] = clear > straight ? clear : straight;
                if (path[at] > straight) {
                    raised(way.pointAt(along), path[at] - straight, path[at]);
                }
                double stepS = i == 0 ? 0 : under.stepM() / way.speedMps();
                climb[at] = aircraft.climbMps() * stepS;
                sink[at] = aircraft.descentMps() * stepS;
            }
            ahead += way.lengthM();
        }
        Slopes.limit(path, climb, sink);
        return parted(path, beneath);
    }

    private static List<double[]> parted(double[] path, List<Beneath> beneath) {
        List<double[]> parts = new ArrayList<>();
        int at = 0;
        for (Beneath under : beneath) {
            parts.add(Arrays.copyOfRange(path, at, at + under.groundM().length));
            at += under.groundM().length;
        }
        return parts;
    }

    private void raised(PlanePoint place, double byM, double toM) {
        boolean most = raisedWays.map(known -> byM > known.mostM()).orElse(true);
        double highest = Math.max(toM, raisedWays.map(RaisedWays::highestM).orElse(toM));
        raisedWays = Optional.of(new RaisedWays(
                most ? byM : raisedWays.get().mostM(),
                highest,
                most ? place : raisedWays.get().place()));
    }

    /**
     * How near to a step of the path an obstacle counts as beneath it: within the corridor, and within the clearance to the side as
     * well as above. Both steps round it see it.
     */
    public double reachM(double stepM) {
        return Math.hypot(Math.max(CORRIDOR_M, choice.clearanceM()), stepM);
    }

    private Beneath beneath(Way way) {
        return Beneath.of(way, grid, site, this::reachM);
    }

    /** The ground is followed; what stands on it is cleared, not followed. Each run of known ground by itself. */
    private double[] followed(Beneath beneath, double speedMps, double aboveM) {
        double[] path = new double[beneath.highM().length];
        for (int from = 0, to; from < path.length; from = to) {
            boolean known = !Double.isNaN(beneath.highM()[from]);
            to = from + 1;
            while (to < path.length && Double.isNaN(beneath.highM()[to]) != known) {
                to++;
            }
            if (known) {
                double[] run = followed(beneath, from, to, beneath.stepM() / speedMps, aboveM);
                System.arraycopy(run, 0, path, from, run.length);
            } else {
                Arrays.fill(path, from, to, Double.NaN);
            }
        }
        return path;
    }

    private double[] followed(Beneath beneath, int from, int to, double stepS, double aboveM) {
        double[] path =
                Slopes.evened(Arrays.copyOfRange(beneath.highM(), from, to), choice.smoothingM() / beneath.stepM());
        for (int i = 0; i < path.length; i++) {
            path[i] = Math.max(path[i] + aboveM, beneath.topM()[from + i] + choice.keptM());
        }
        double[] climb = new double[path.length];
        double[] sink = new double[path.length];
        Arrays.fill(climb, aircraft.climbMps() * stepS);
        Arrays.fill(sink, aircraft.descentMps() * stepS);
        Slopes.limit(path, climb, sink);
        return path;
    }

    /** A level path, unknown where the ground is: how far it would be above it nobody could say. */
    private static double[] level(Beneath beneath, double upM) {
        return Arrays.stream(beneath.groundM())
                .map(ground -> Double.isNaN(ground) ? Double.NaN : upM)
                .toArray();
    }

    private double steppedM(Beneath beneath, double aboveM) {
        double least = known(beneath.groundM()).min().orElse(0);
        double mean = known(beneath.groundM()).average().orElse(0);
        double high = known(beneath.highM()).max().orElse(0);
        double top = known(beneath.topM()).max().orElse(0);
        return Math.max(choice.plane().level(least, mean, high) + aboveM, top + choice.keptM());
    }

    private static DoubleStream known(double[] heights) {
        return Arrays.stream(heights).filter(height -> !Double.isNaN(height));
    }

    private double levelM() {
        return choice.plane().level(relief.leastM(), relief.meanM(), relief.mostM());
    }

    /** Another flight laid over the same ground in the same way. */
    public Flight alike(Flight level) {
        return new HeightPlan(
                        grid,
                        site,
                        choice,
                        relief,
                        takeOffM,
                        overKnown(grid, level, aircraft, Detour.NONE),
                        heightM,
                        aircraft)
                .flight();
    }

    /** A flight without the photos below which no ground is known: heights are not guessed there. */
    public static Flight overKnown(HeightGrid grid, Flight level, Aircraft aircraft, Detour detour) {
        return FlightBuilder.keeping(
                level,
                aircraft,
                detour,
                photo ->
                        !Double.isNaN(grid.at(photo.pose().eastM(), photo.pose().northM())));
    }

    /** The same flight with something else kept constant. */
    public HeightPlan otherwise(HeightReference reference) {
        return new HeightPlan(grid, site, choice.with(reference), relief, takeOffM, level, heightM, aircraft);
    }

    /** Height above take-off that it climbs to before it leaves the launch point; empty while there is none, or its level is unknown. */
    public OptionalDouble climbOutM() {
        return flight.legs().stream()
                .findFirst()
                .filter(leg -> leg instanceof Climb && !Double.isNaN(takeOffM))
                .map(leg -> OptionalDouble.of(leg.end().upM() - takeOffM))
                .orElse(OptionalDouble.empty());
    }

    /** The flight at its heights. */
    public Flight flight() {
        return flight;
    }

    /** The ground it is laid over, above the geoid. */
    public HeightGrid grid() {
        return grid;
    }

    /** What stands and hangs there. */
    public SiteMap site() {
        return site;
    }

    /** How high is flown over it. */
    public HeightChoice choice() {
        return choice;
    }

    /** The ground within the block. */
    public Relief relief() {
        return relief;
    }

    /** Ground at the take-off point, above the geoid; not a number where nobody knows it. */
    public double takeOffM() {
        return takeOffM;
    }

    /** Long sections of all ways in the order flown, lines and what joins them. */
    public List<LegSection> sections() {
        return List.copyOf(sections);
    }

    /**
     * @param line its number, from 1
     * @throws IllegalArgumentException when there is none
     */
    public LegSection section(int line) {
        return sections.stream()
                .filter(section -> section.line() == line)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no line " + line));
    }

    /** Height of a photo above the ground straight below it, in metres; not a number where that is not known. */
    public double aboveGroundM(Exposure exposure) {
        return exposure.upM() - grid.at(exposure.pose().eastM(), exposure.pose().northM());
    }

    /** Least, mean and greatest height of the photos above the ground straight below. */
    public double[] aboveGroundM() {
        double[] all =
                flight.exposures().stream().mapToDouble(this::aboveGroundM).toArray();
        return new double[] {
            Arrays.stream(all).min().orElse(0),
            Arrays.stream(all).average().orElse(0),
            Arrays.stream(all).max().orElse(0)
        };
    }

    /** The section that comes nearest to what lies below it. */
    public LegSection nearestSection() {
        return sections.stream()
                .min(Comparator.comparingDouble(LegSection::clearanceM))
                .orElseThrow();
    }

    /** Ways between lines that must rise; empty where the straight line clears everything. */
    public Optional<RaisedWays> raisedWays() {
        return raisedWays;
    }

    /** Highest point of the path above the geoid. */
    public double highestM() {
        return sections.stream()
                .flatMapToDouble(section -> known(section.pathM()))
                .max()
                .orElse(0);
    }

    /**
     * The greatest height of the path above the ground straight below, ways between lines, out and home included.
     *
     * @param m the height
     * @param leg where it is
     * @param step of that leg
     */
    public record Greatest(double m, LegSection leg, int step) {}

    /** Where the path is highest above known ground; empty where none is known below it. */
    public Optional<Greatest> greatestAboveGround() {
        Greatest greatest = null;
        for (LegSection section : sections) {
            for (int i = 0; i < section.pathM().length; i++) {
                double above = section.pathM()[i] - section.groundM()[i];
                if (!Double.isNaN(above) && (greatest == null || above > greatest.m())) {
                    greatest = new Greatest(above, section, i);
                }
            }
        }
        return Optional.ofNullable(greatest);
    }

    /** Level length of the path over ground that nobody knows, ways out and home included, in metres. */
    public double unknownM() {
        return sections.stream()
                .mapToDouble(section -> section.stepM()
                        * Arrays.stream(section.groundM()).filter(Double::isNaN).count())
                .sum();
    }

    /**
     * Height above take-off that clears all known ground and obstacles within reach of the path, with the clearance: whole metres, rounded up;
     * not a number where the take-off level is unknown.
     */
    public double returnAboveTakeOffM() {
        double highest = sections.stream()
                .flatMapToDouble(section -> known(section.topM()))
                .max()
                .orElse(relief.mostM());
        double clear = Math.max(highest, relief.mostM() + site.tallestM()) + choice.keptM() - takeOffM;
        return Math.ceil(clear - CENTIMETRE_M);
    }

    /** Planned height above the ground it is measured from. */
    public double heightM() {
        return heightM;
    }
}
