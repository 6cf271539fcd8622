package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.Predicate;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.site.Detour;

/**
 * Writes down a flight over level ground, leg after leg: numbers lines and photos, joins lines by turns, adds the way out and home
 * where the launch point is known.
 */
public final class FlightBuilder {
    private final Detour detour;
    private final Pace pace;
    private final Aircraft aircraft;
    private final Optional<PlanePoint> launch;
    private final List<Leg> legs = new ArrayList<>();
    private final List<Exposure> exposures = new ArrayList<>();
    private int lines;
    private int strips;
    private Optional<Line> last = Optional.empty();
    private Optional<PlanePoint> begin = Optional.empty();

    public FlightBuilder(Pace pace, Optional<PlanePoint> launch) {
        this(pace, launch, Detour.NONE);
    }

    /**
     * @param detour round what links must not cross
     */
    public FlightBuilder(Pace pace, Optional<PlanePoint> launch, Detour detour) {
        this.detour = detour;
        this.pace = pace;
        this.aircraft = pace.aircraft();
        this.launch = launch;
    }

    /** In still air. */
    public FlightBuilder(Aircraft aircraft, Optional<PlanePoint> launch) {
        this(new Pace(aircraft, Optional.empty()), launch);
    }

    /**
     * A flight again with only some of its photos: each line only as far as neighbouring photos are kept, in pieces where some
     * between are not, joined anew. The same flight where all are kept.
     */
    public static Flight keeping(Flight level, Aircraft aircraft, Detour detour, Predicate<Exposure> kept) {
        if (level.exposures().stream().allMatch(kept)) {
            return level;
        }
        // Turned as it was: only a multirotor that may bend has arcs between its lines.
        boolean bends = level.legs().stream().anyMatch(Arc.class::isInstance);
        Pace pace = new Pace(aircraft, Optional.empty(), bends);
        return again(level, pace, detour, line -> runs(level, line, kept), List.of());
    }

    /**
     * A flight again with lines changed or left out, joined anew, and others flown at its end.
     *
     * @param amend answers how a line is to be flown, given how it was; empty to leave it out
     */
    public static Flight amended(
            Flight level,
            Pace pace,
            Detour detour,
            BiFunction<Line, Photographed, Optional<Photographed>> amend,
            List<Photographed> more) {
        Function<Line, List<Photographed>> once = line ->
                amend.apply(line, piece(line, level.exposuresOf(line))).stream().toList();
        return again(level, pace, detour, once, more);
    }

    private static Flight again(
            Flight level,
            Pace pace,
            Detour detour,
            Function<Line, List<Photographed>> piecesOf,
            List<Photographed> more) {
        FlightBuilder again = new FlightBuilder(pace, level.launch(), detour);
        boolean ahead = false;
        Leg before = null;
        int strip = 0;
        for (Leg leg : level.legs()) {
            if (leg instanceof Line line) {
                boolean runsOn = before instanceof Link link && link.kind() == Link.Kind.GAP;
                List<Photographed> pieces = piecesOf.apply(line);
                ahead = again.pieces(pieces, ahead && runsOn, line.strip() == strip);
                strip = pieces.isEmpty() ? strip : line.strip();
            }
            before = leg;
        }
        more.forEach(again::line);
        Flight landed = again.landed();
        return level.alignment()
                .map(alignment -> alignment.round(landed, pace, detour))
                .orElse(landed);
    }

    /** The runs of a line's photos that are kept. */
    private static List<Photographed> runs(Flight level, Line line, Predicate<Exposure> kept) {
        List<Exposure> photos = level.exposuresOf(line);
        List<Photographed> runs = new ArrayList<>();
        for (int from = 0, to; from < photos.size(); from = to) {
            to = from + 1;
            if (!kept.test(photos.get(from))) {
                continue;
            }
            while (to < photos.size() && kept.test(photos.get(to))) {
                to++;
            }
            runs.add(piece(line, photos.subList(from, to)));
        }
        return runs;
    }

    /**
     * Answers whether the next line of the same run can be flown on to.
     *
     * @param same whether the line belongs to the strip of the one before
     */
    private boolean pieces(List<Photographed> pieces, boolean ahead, boolean same) {
        boolean on = ahead;
        boolean first = true;
        for (Photographed piece : pieces) {
            if (same && first) {
                bent(piece, on);
            } else if (on) {
                lineAhead(piece);
            } else {
                line(piece);
            }
            on = true;
            first = false;
        }
        return on;
    }

    private void bent(Photographed piece, boolean on) {
        if (on) {
            lineOn(piece);
        } else if (last.isPresent()) {
            lineRound(piece);
        } else {
            line(piece);
        }
    }

    private static Photographed piece(Line line, List<Exposure> photos) {
        Exposure first = photos.get(0);
        return new Photographed(
                line.pass(),
                first.point(),
                photos.get(photos.size() - 1).point(),
                line.trackRad(),
                first.upM(),
                line.speedMps(),
                first.lens(),
                new Look(
                        first.pose().yawRad(),
                        first.pose().pitchRad(),
                        first.pose().rollRad()),
                photos.size());
    }

    /** How fast and in what wind it is flown. */
    public Pace pace() {
        return pace;
    }

    /** Where it takes off and lands; empty while nobody knows. */
    public Optional<PlanePoint> launch() {
        return launch;
    }

    /** Where the aircraft is: at the end of the last line, or at the launch point; empty before the first line without one. */
    public Optional<PlanePoint> here() {
        return last.map(Line::to).or(() -> launch);
    }

    /** Lets the first line begin near a place instead of near the launch point. */
    public void beginNear(PlanePoint place) {
        begin = Optional.of(place);
    }

    /** Whether the first line, which is not flown yet, is to begin near a place. */
    public boolean beginsNear() {
        return last.isEmpty() && begin.isPresent();
    }

    /** The place that patterns choose the end of their first line by. */
    public Optional<PlanePoint> approach() {
        return beginsNear() ? begin : here();
    }

    /**
     * A line and how it is photographed.
     *
     * @param pass number of its pass, from 1
     * @param from first exposure
     * @param to last exposure
     * @param trackRad direction flown, clockwise from grid north
     * @param upM height, level
     * @param look which way each image looks
     * @param count of photos, evenly spread from end to end
     */
    public record Photographed(
            int pass,
            PlanePoint from,
            PlanePoint to,
            double trackRad,
            double upM,
            double speedMps,
            Lens lens,
            Look look,
            int count) {}

    /** Which way an image looks: the angles of its {@link Pose}, the camera's mount applied. */
    public record Look(double yawRad, double pitchRad, double rollRad) {}

    /** The first line of a strip, reached by a turn or from the launch point. */
    public void line(Photographed wanted) {
        strips++;
        reach(wanted);
        add(wanted);
    }

    /** The next line of a strip that bends sharply: turned into, or flown past and come round to. */
    public void lineRound(Photographed wanted) {
        reach(wanted);
        add(wanted);
    }

    /** The next line of a strip that bends gently, flown on to without braking. */
    public void lineOn(Photographed wanted) {
        Line before = last.orElseThrow();
        if (aircraft.kind().wing() || detour.clear(before.to(), wanted.from())) {
            legs.add(new Link(Link.Kind.GAP, before.to(), wanted.from(), Way.level(wanted.upM()), wanted.speedMps()));
        } else {
            reach(wanted);
        }
        add(wanted);
    }

    private void reach(Photographed wanted) {
        if (last.isPresent()) {
            legs.addAll(rising(turn(last.get(), wanted), last.get().upM()[0], wanted.upM()));
        } else {
            launch.ifPresent(at -> {
                legs.add(new Climb(at, 0, wanted.upM()));
                legs.addAll(transit(Link.Kind.OUT, at, wanted.from(), wanted.upM()));
            });
        }
    }

    private List<Way> turn(Line before, Photographed wanted) {
        if (!aircraft.kind().wing() && !detour.clear(before.to(), wanted.from())) {
            return straights(Link.Kind.TURN, before.to(), wanted.from(), wanted.speedMps());
        }
        Turn turn = new Turn(before.to(), before.trackRad(), wanted.from(), wanted.trackRad());
        if (aircraft.kind().wing()) {
            return turn.clearWays(aircraft, wanted.speedMps(), detour);
        }
        return pace.bend(turn, wanted.speedMps())
                .map(RoundTurn::ways)
                .filter(ways -> Turn.clear(ways, detour))
                .orElseGet(() -> turn.ways(aircraft, wanted.speedMps()));
    }

    /** Straight pieces round what must not be crossed. */
    private List<Way> straights(Link.Kind kind, PlanePoint from, PlanePoint to, double speedMps) {
        List<Way> ways = new ArrayList<>();
        PlanePoint here = from;
        List<PlanePoint> stops = new ArrayList<>(detour.between(from, to));
        stops.add(to);
        for (PlanePoint stop : stops) {
            ways.add(new Link(kind, here, stop, Way.level(0), speedMps));
            here = stop;
        }
        return ways;
    }

    /** Ways that change height evenly: passes may be flown at different ones. */
    private static List<Way> rising(List<Way> ways, double fromUpM, double toUpM) {
        double whole = ways.stream().mapToDouble(Way::lengthM).sum();
        List<Way> risen = new ArrayList<>();
        double ahead = 0;
        for (Way way : ways) {
            double start = fromUpM + (toUpM - fromUpM) * (whole == 0 ? 0 : ahead / whole);
            ahead += way.lengthM();
            double end = fromUpM + (toUpM - fromUpM) * (whole == 0 ? 1 : ahead / whole);
            risen.add(way.withHeights(new double[] {start, end}));
        }
        return risen;
    }

    /** A strip straight ahead of the last one, over a gap. */
    public void lineAhead(Photographed wanted) {
        strips++;
        lineOn(wanted);
    }

    private void add(Photographed wanted) {
        Line line = new Line(
                wanted.pass(),
                ++lines,
                strips,
                wanted.from(),
                wanted.to(),
                wanted.trackRad(),
                Way.level(wanted.upM()),
                wanted.speedMps(),
                exposures.size(),
                wanted.count());
        legs.add(line);
        for (int i = 0; i < wanted.count(); i++) {
            double share = wanted.count() == 1 ? 0 : (double) i / (wanted.count() - 1);
            exposures.add(new Exposure(
                    exposures.size() + 1,
                    wanted.pass(),
                    line.number(),
                    new Pose(
                            wanted.from().xM()
                                    + (wanted.to().xM() - wanted.from().xM()) * share,
                            wanted.from().yM()
                                    + (wanted.to().yM() - wanted.from().yM()) * share,
                            wanted.upM(),
                            wanted.look().yawRad(),
                            wanted.look().pitchRad(),
                            wanted.look().rollRad()),
                    wanted.lens(),
                    wanted.trackRad()));
        }
        last = Optional.of(line);
    }

    /** Level ways out or home at a height, round what must not be crossed. */
    public List<Way> transit(Link.Kind kind, PlanePoint from, PlanePoint to, double upM) {
        double speed = kind == Link.Kind.HOME ? aircraft.returnMps() : aircraft.transitMps();
        return rising(straights(kind, from, to, speed), upM, upM);
    }

    /** The flight, brought home where the launch point is known. */
    public Flight landed() {
        List<Leg> whole = new ArrayList<>(legs);
        if (launch.isPresent() && last.isPresent()) {
            double up = last.get().upM()[0];
            whole.addAll(transit(Link.Kind.HOME, last.get().to(), launch.get(), up));
            whole.add(new Climb(launch.get(), up, 0));
        }
        return new Flight(whole, exposures, launch, 0);
    }
}
