package yalos.core.height;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Predicate;
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

/** A flight laid over real ground: how high it is, and how far from what lies and stands below it. */
public final class HeightPlan {
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
    private final List<LegSection> sections;
    private final Optional<RaisedWays> raisedWays;
    private final double[][] heldUpM;

    /**
     * Ways between lines that rise over the straight line between their ends to clear what lies below.
     *
     * @param mostM that one of them rises over it
     * @param highestM that one of them rises to, above the geoid
     * @param place where it rises most
     */
    public record RaisedWays(double mostM, double highestM, PlanePoint place) {}

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
        PathOverGround path = new PathOverGround(
                grid, site, choice, relief, takeOffM, aircraft, level.lines().size());
        this.flight = level.over(path);
        this.sections = List.copyOf(path.sections(flight));
        this.raisedWays = path.raisedWays();
        this.heldUpM = path.heldUpM();
    }

    /**
     * Some of the photos once more, each from where it was taken: the same lines in pieces, joined anew over the same ground.
     *
     * @param detour round what links must not cross
     */
    public Flight again(Detour detour, Predicate<Exposure> kept) {
        Flight pieces = FlightBuilder.keeping(level, aircraft, detour, kept);
        List<Exposure> photos = flight.exposures().stream().filter(kept).toList();
        Heights path = new PathOverGround(
                grid, site, choice, relief, takeOffM, aircraft, pieces.lines().size());
        return pieces == level ? flight : pieces.over(new AsFlown(path, flight, photos));
    }

    /**
     * Pieces of lines at the heights that the whole lines have.
     *
     * @param path of the ways between
     * @param photos of the pieces, as they were taken on the whole lines
     */
    private record AsFlown(Heights path, Flight whole, List<Exposure> photos) implements Heights {
        @Override
        public double takeOffUpM() {
            return path.takeOffUpM();
        }

        @Override
        public double[] along(Line piece) {
            Exposure first = photos.get(piece.firstExposure());
            Line line = whole.line(first.line());
            double begin = line.from().distanceM(first.point());
            return line.part(begin, begin + piece.lengthM(), piece.exposures()).upM();
        }

        @Override
        public List<double[]> between(List<Way> ways, double fromUpM, double toUpM) {
            return path.between(ways, fromUpM, toUpM);
        }
    }

    /** Another flight laid over the same ground in the same way; its heights are counted from level ground, never those of one already laid. */
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
        return sections;
    }

    /** Long sections of ways that have heights of their own, over the same ground. */
    public List<LegSection> sectionsOf(List<Way> ways) {
        return ways.stream().map(this::sectionOf).toList();
    }

    private LegSection sectionOf(Way way) {
        Beneath beneath = Beneath.of(way, grid, site, choice::reachM);
        double[] up = new double[beneath.groundM().length];
        for (int i = 0; i < up.length; i++) {
            up[i] = way.upAt(up.length == 1 ? 0 : way.lengthM() * i / (up.length - 1));
        }
        int number = way instanceof Line line ? line.number() : 0;
        return new LegSection(number, way.withHeights(up), beneath.groundM(), beneath.topM());
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

    /**
     * How much higher a photo is taken than the ground asks for, because the aircraft climbs and sinks no more steeply at its speed, in metres; 0 where
     * no ground is followed.
     */
    public double heldUpM(Exposure photo) {
        double[] held = photo.line() > 0 ? heldUpM[photo.line() - 1] : null;
        if (held == null) {
            return 0;
        }
        Line line = flight.line(photo.line());
        double along = line.lengthM() == 0 ? 0 : line.from().distanceM(photo.point()) / line.lengthM();
        return held[(int) Math.round(Math.min(1, along) * (held.length - 1))];
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
        return flight.highestM();
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
                .flatMapToDouble(section -> LegSection.known(section.topM()))
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
