package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.site.Detour;

/**
 * The way round from the end of a line to the start of the next.
 *
 * <p>A multirotor turns on the spot and flies straight across, or in a bend ({@link RoundTurn}). A wing flies straight on for {@value #RUN_S} s, takes the shortest way that its turning
 * radius allows ({@link Dubins}), and flies straight for as long before the next line, so that it is level and at speed at the first and the last photo
 * (common practice).
 *
 * <p>KNOWN LIMITS: the arcs are those of still air; a wing that holds its bank in a wind drifts off them.
 *
 * @param from end of a line
 * @param trackRad direction flown there, clockwise from grid north
 * @param to start of the next
 * @param toTrackRad direction flown there
 */
public record Turn(PlanePoint from, double trackRad, PlanePoint to, double toTrackRad) {

    /** A wing's run-out behind a line and its run-in before the next. */
    static final double RUN_S = 2;

    private static final int LONGEST_LEAD = 8;

    /** How far a wing's turn back reaches beyond the ends of its lines: the run-out and, at the most, the bulb of two radii. */
    public static double beyondM(Aircraft aircraft, double speedMps) {
        double radius = aircraft.turnRadiusM(speedMps);
        return RUN_S * speedMps + (1 + Math.sqrt(3)) * radius;
    }

    /** Straight distance. */
    double straightM() {
        return from.distanceM(to);
    }

    /** Direction of the straight way, clockwise from grid north. */
    double straightRad() {
        return from.bearingRad(to);
    }

    private Dubins round(double radiusM, double runM) {
        PlanePoint out = from.moved(trackRad, runM);
        PlanePoint in = to.moved(toTrackRad, -runM);
        return Dubins.shortest(in.xM() - out.xM(), in.yM() - out.yM(), trackRad, toTrackRad, radiusM);
    }

    /** Level length as this aircraft flies it. */
    public double lengthM(Aircraft aircraft, double speedMps) {
        double runM = RUN_S * speedMps;
        return aircraft.kind().wing()
                ? 2 * runM + round(aircraft.turnRadiusM(speedMps), runM).lengthM()
                : straightM();
    }

    /** The ways it is flown on, level at height 0. */
    public List<Way> ways(Aircraft aircraft, double speedMps) {
        Laid laid = new Laid(from, trackRad, speedMps);
        if (!aircraft.kind().wing()) {
            laid.straight(straightRad(), straightM());
            return laid.ways;
        }
        double radius = aircraft.turnRadiusM(speedMps);
        double runM = RUN_S * speedMps;
        return laid.along(round(radius, runM), radius, runM, runM);
    }

    /**
     * A wing's ways clear of what must not be flown over: the shortest of all its words, the straights before and behind drawn out by up to
     * {@value #LONGEST_LEAD} radii where it takes that; the shortest of all where none is clear, which a finding then tells.
     */
    List<Way> clearWays(Aircraft aircraft, double speedMps, Detour detour) {
        List<Way> usual = ways(aircraft, speedMps);
        if (clear(usual, detour)) {
            return usual;
        }
        double radius = aircraft.turnRadiusM(speedMps);
        double runM = RUN_S * speedMps;
        List<Way> best = usual;
        double leastM = Double.POSITIVE_INFINITY;
        for (double lead = 0; lead <= LONGEST_LEAD; lead++) {
            for (double after = 0; after <= LONGEST_LEAD; after++) {
                double outM = runM + lead * radius;
                double inM = runM + after * radius;
                PlanePoint out = from.moved(trackRad, outM);
                PlanePoint in = to.moved(toTrackRad, -inM);
                for (Dubins word : Dubins.all(in.xM() - out.xM(), in.yM() - out.yM(), trackRad, toTrackRad, radius)) {
                    double lengthM = outM + word.lengthM() + inM;
                    if (lengthM < leastM) {
                        List<Way> ways = new Laid(from, trackRad, speedMps).along(word, radius, outM, inM);
                        if (clear(ways, detour)) {
                            leastM = lengthM;
                            best = ways;
                        }
                    }
                }
            }
        }
        return best;
    }

    static boolean clear(List<Way> ways, Detour detour) {
        return ways.stream().allMatch(way -> {
            List<PlanePoint> shape = way.shape();
            return IntStream.range(1, shape.size()).allMatch(i -> detour.clear(shape.get(i - 1), shape.get(i)));
        });
    }

    /** Ways put one after the other. */
    private static final class Laid {
        private final List<Way> ways = new ArrayList<>();
        private final double speedMps;
        private PlanePoint here;
        private double trackRad;

        Laid(PlanePoint from, double trackRad, double speedMps) {
            this.here = from;
            this.trackRad = trackRad;
            this.speedMps = speedMps;
        }

        /** Straight out, along a word, straight in. */
        List<Way> along(Dubins word, double radiusM, double outM, double inM) {
            straight(trackRad, outM);
            for (Dubins.Piece piece : List.of(word.first(), word.second(), word.third())) {
                switch (piece.kind()) {
                    case STRAIGHT -> straight(trackRad, piece.lengthM());
                    case LEFT -> arc(-piece.lengthM() / radiusM, radiusM);
                    case RIGHT -> arc(piece.lengthM() / radiusM, radiusM);
                }
            }
            straight(trackRad, inM);
            return ways;
        }

        void straight(double directionRad, double lengthM) {
            if (lengthM > 0) {
                PlanePoint to = here.moved(directionRad, lengthM);
                ways.add(new Link(Link.Kind.TURN, here, to, Way.level(0), speedMps));
                here = to;
            }
        }

        void arc(double sweepRad, double radiusM) {
            if (sweepRad != 0) {
                Arc arc = Arc.turning(here, trackRad, sweepRad, radiusM, speedMps);
                ways.add(arc);
                here = arc.pointAt(arc.lengthM());
                trackRad = arc.trackRadAt(arc.lengthM());
            }
        }
    }
}
