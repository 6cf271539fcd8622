package yalos.core.height;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import yalos.core.fault.Patience;
import yalos.core.flight.Flight;
import yalos.core.flight.Heights;
import yalos.core.flight.Line;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.site.SiteMap;
import yalos.core.terrain.HeightGrid;

/**
 * Lays one flight over real ground, way by way, and remembers what lies beneath.
 *
 * <p>Where the ground is followed, the path keeps the planned height above the evened-out upper envelope of the ground in a
 * corridor beneath it, obstacles on the highest of it, never below the clearance, and never steeper than the aircraft climbs or sinks at its
 * speed; where it cannot climb quickly enough it starts earlier, so it is only ever raised. Ways between lines clear the ground
 * the same way.
 */
final class PathOverGround implements Heights {
    private final HeightGrid grid;
    private final SiteMap site;
    private final HeightChoice choice;
    private final Relief relief;
    private final double takeOffM;
    private final Aircraft aircraft;
    private final Beneath[] beneathLines;
    private final double[][] heldUpM;
    private final Deque<Beneath> beneathWays = new ArrayDeque<>();
    private Optional<HeightPlan.RaisedWays> raisedWays = Optional.empty();

    /**
     * @param lines how many the flight has
     */
    PathOverGround(
            HeightGrid grid,
            SiteMap site,
            HeightChoice choice,
            Relief relief,
            double takeOffM,
            Aircraft aircraft,
            int lines) {
        this.grid = grid;
        this.site = site;
        this.choice = choice;
        this.relief = relief;
        this.takeOffM = takeOffM;
        this.aircraft = aircraft;
        this.beneathLines = new Beneath[lines];
        this.heldUpM = new double[lines][];
    }

    /** Long sections of all ways in the order flown, once the flight is laid. */
    List<LegSection> sections(Flight laid) {
        List<LegSection> sections = new ArrayList<>();
        for (Way way : laid.ways()) {
            int number = way instanceof Line line ? line.number() : 0;
            Beneath beneath = number > 0 ? beneathLines[number - 1] : beneathWays.removeFirst();
            sections.add(new LegSection(number, way, beneath.groundM(), beneath.topM()));
        }
        return sections;
    }

    /** Ways between lines that must rise, once the flight is laid. */
    Optional<HeightPlan.RaisedWays> raisedWays() {
        return raisedWays;
    }

    /**
     * How much higher the lines lie, at even steps, because the aircraft climbs and sinks no more steeply at its speed, in the order of their numbers;
     * nothing for lines that follow no ground.
     */
    double[][] heldUpM() {
        return heldUpM;
    }

    @Override
    public double takeOffUpM() {
        return takeOffM;
    }

    @Override
    public double[] along(Line line) {
        Patience.check();
        Beneath beneath = beneath(line);
        beneathLines[line.number() - 1] = beneath;
        return switch (choice.reference()) {
            case FOLLOW -> followed(beneath, line);
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
        double highest =
                Math.max(toM, raisedWays.map(HeightPlan.RaisedWays::highestM).orElse(toM));
        raisedWays = Optional.of(new HeightPlan.RaisedWays(
                most ? byM : raisedWays.get().mostM(),
                highest,
                most ? place : raisedWays.get().place()));
    }

    private Beneath beneath(Way way) {
        return Beneath.of(way, grid, site, choice::reachM);
    }

    /** The ground is followed; what stands on it is cleared, not followed. Each run of known ground by itself. */
    private double[] followed(Beneath beneath, Line line) {
        double[] path = new double[beneath.highM().length];
        double[] held = new double[path.length];
        for (int from = 0, to; from < path.length; from = to) {
            boolean known = !Double.isNaN(beneath.highM()[from]);
            to = from + 1;
            while (to < path.length && Double.isNaN(beneath.highM()[to]) != known) {
                to++;
            }
            if (known) {
                double[] wanted = wanted(beneath, from, to, above(line));
                double[] able = able(wanted, beneath.stepM() / line.speedMps());
                for (int i = from; i < to; i++) {
                    path[i] = able[i - from];
                    held[i] = able[i - from] - wanted[i - from];
                }
            } else {
                Arrays.fill(path, from, to, Double.NaN);
            }
        }
        heldUpM[line.number() - 1] = held;
        return path;
    }

    /** The height above the evened ground, and the clearance. */
    private double[] wanted(Beneath beneath, int from, int to, double aboveM) {
        double[] path =
                Slopes.evened(Arrays.copyOfRange(beneath.highM(), from, to), choice.smoothingM() / beneath.stepM());
        for (int i = 0; i < path.length; i++) {
            path[i] = Math.max(path[i] + aboveM, beneath.topM()[from + i] + choice.keptM());
        }
        return path;
    }

    /** The path that the aircraft can fly: nowhere below the one wanted. */
    private double[] able(double[] wanted, double stepS) {
        double[] path = wanted.clone();
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
        double least = LegSection.known(beneath.groundM()).min().orElse(0);
        double mean = LegSection.known(beneath.groundM()).average().orElse(0);
        double high = LegSection.known(beneath.highM()).max().orElse(0);
        double top = LegSection.known(beneath.topM()).max().orElse(0);
        return Math.max(choice.plane().level(least, mean, high) + aboveM, top + choice.keptM());
    }

    private double levelM() {
        return choice.plane().level(relief.leastM(), relief.meanM(), relief.mostM());
    }
}
