package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;

/**
 * Writes down a flight over level ground, leg after leg: numbers lines and photos, joins lines by turns, adds the way out and home
 * where the launch point is known.
 */
public final class FlightBuilder {
    private final Aircraft aircraft;
    private final Optional<PlanePoint> launch;
    private final List<Leg> legs = new ArrayList<>();
    private final List<Exposure> exposures = new ArrayList<>();
    private int lines;
    private Optional<Line> last = Optional.empty();

    public FlightBuilder(Aircraft aircraft, Optional<PlanePoint> launch) {
        this.aircraft = aircraft;
        this.launch = launch;
    }

    /**
     * A flight again with only some of its photos: each line only as far as neighbouring photos are kept, in pieces where some
     * between are not, joined anew. The same flight where all are kept.
     */
    public static Flight keeping(Flight level, Aircraft aircraft, Predicate<Exposure> kept) {
        if (level.exposures().stream().allMatch(kept)) {
            return level;
        }
        FlightBuilder again = new FlightBuilder(aircraft, level.launch());
        boolean ahead = false;
        Leg before = null;
        for (Leg leg : level.legs()) {
            if (leg instanceof Line line) {
                boolean runsOn = before instanceof Link link && link.kind() == Link.Kind.GAP;
                ahead = again.pieces(line, level.exposuresOf(line), kept, ahead && runsOn);
            }
            before = leg;
        }
        return again.landed();
    }

    /** Answers whether the next line of the same run can be flown on to, straight ahead. */
    private boolean pieces(Line line, List<Exposure> photos, Predicate<Exposure> kept, boolean ahead) {
        boolean on = ahead;
        for (int from = 0, to; from < photos.size(); from = to) {
            to = from + 1;
            if (!kept.test(photos.get(from))) {
                continue;
            }
            while (to < photos.size() && kept.test(photos.get(to))) {
                to++;
            }
            Photographed piece = piece(line, photos.subList(from, to));
            if (on) {
                lineAhead(piece);
            } else {
                line(piece);
            }
            on = true;
        }
        return on;
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
                first.pose().yawRad(),
                first.pose().pitchRad(),
                photos.size());
    }

    /** Where the aircraft is: at the end of the last line, or at the launch point; empty before the first line without one. */
    public Optional<PlanePoint> here() {
        return last.map(Line::to).or(() -> launch);
    }

    /**
     * A line and how it is photographed.
     *
     * @param pass number of its pass, from 1
     * @param from first exposure
     * @param to last exposure
     * @param trackRad direction flown, clockwise from grid north
     * @param upM height, level
     * @param imageYawRad of each photo's top, clockwise from grid north
     * @param pitchRad of each photo; straight down is -π/2
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
            double imageYawRad,
            double pitchRad,
            int count) {}

    /** The first line of a run, reached by a turn or from the launch point. */
    public void line(Photographed wanted) {
        if (last.isPresent()) {
            Turn turn = Turn.to(last.get().to(), last.get().trackRad(), wanted.from());
            for (Way way : turn.ways(aircraft, wanted.speedMps())) {
                legs.add(way.withHeights(Way.level(wanted.upM())));
            }
        } else {
            launch.ifPresent(at -> {
                legs.add(new Climb(at, 0, wanted.upM()));
                legs.add(transit(Link.Kind.OUT, at, wanted.from(), wanted.upM()));
            });
        }
        add(wanted);
    }

    /** A line straight ahead of the last one, over a gap. */
    public void lineAhead(Photographed wanted) {
        Line before = last.orElseThrow();
        legs.add(new Link(Link.Kind.GAP, before.to(), wanted.from(), Way.level(wanted.upM()), wanted.speedMps()));
        add(wanted);
    }

    private void add(Photographed wanted) {
        Line line = new Line(
                wanted.pass(),
                ++lines,
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
                            wanted.imageYawRad(),
                            wanted.pitchRad(),
                            0),
                    wanted.lens(),
                    wanted.trackRad()));
        }
        last = Optional.of(line);
    }

    private Link transit(Link.Kind kind, PlanePoint from, PlanePoint to, double upM) {
        double speed = kind == Link.Kind.HOME ? aircraft.returnMps() : aircraft.transitMps();
        return new Link(kind, from, to, Way.level(upM), speed);
    }

    /** The flight, brought home where the launch point is known. */
    public Flight landed() {
        List<Leg> whole = new ArrayList<>(legs);
        if (launch.isPresent() && last.isPresent()) {
            double up = last.get().upM()[0];
            whole.add(transit(Link.Kind.HOME, last.get().to(), launch.get(), up));
            whole.add(new Climb(launch.get(), up, 0));
        }
        return new Flight(whole, exposures, launch, 0);
    }
}
