package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;

/**
 * A multirotor's turn back into a line beside the last one in a bend, instead of stopping nearly, shifting and speeding up again: an arc, a straight and an arc
 * to the same side, half a turn together. Arcs are as fast as the bank allows ({@code v² = r g tan(bank)}) and no faster than the lines. It reaches a radius
 * beyond the end of the longer line.
 *
 * @param turn that is made
 * @param radiusM of both arcs
 * @param speedMps on the arcs
 * @param wantedMps on the straight, as on the lines
 * @param firstRad turned by the first arc, 0 to π; the second turns the rest
 * @param straightM between them
 * @param right whether it bends to the right
 */
record RoundTurn(
        Turn turn,
        double radiusM,
        double speedMps,
        double wantedMps,
        double firstRad,
        double straightM,
        boolean right) {
    /** Lines are parallel but for this, as sine. */
    private static final double PARALLEL = 1e-6;

    private static final double HAIR_RAD = 1e-6;
    private static final double HAIR_M = 1e-6;

    /**
     * The bend whose arcs are as wide as lines and speed leave use for, or narrower.
     *
     * @param share of that radius, up to 1
     * @return nothing where the next line does not lead back beside this one, or lies so near that the bend were slower than a corner
     */
    static Optional<RoundTurn> of(Turn turn, Aircraft aircraft, double wantedMps, double share) {
        double back = turn.toTrackRad() - turn.trackRad();
        if (Math.cos(back) > 0 || Math.abs(Math.sin(back)) > PARALLEL) {
            return Optional.empty();
        }
        double sin = Math.sin(turn.trackRad());
        double cos = Math.cos(turn.trackRad());
        double east = turn.to().xM() - turn.from().xM();
        double north = turn.to().yM() - turn.from().yM();
        double ahead = east * sin + north * cos;
        double aside = east * cos - north * sin;
        double tightest = aircraft.turnRadiusM(wantedMps);
        double radius = share * Math.min(tightest, Math.abs(aside) / 2);
        double speed = wantedMps * Math.sqrt(radius / tightest);
        if (!(speed > aircraft.turnSpeedMps())) {
            return Optional.empty();
        }
        // From the middle of the first circle to that of the second; the straight lies beside it.
        double across = Math.max(0, Math.abs(aside) - 2 * radius);
        double first = Math.atan2(across, ahead);
        return Optional.of(new RoundTurn(turn, radius, speed, wantedMps, first, Math.hypot(across, ahead), aside > 0));
    }

    /** The ways it is flown on, level at height 0. */
    List<Way> ways() {
        List<Way> ways = new ArrayList<>();
        double side = right ? 1 : -1;
        PlanePoint here = bend(ways, turn.from(), turn.trackRad(), side * firstRad);
        double track = turn.trackRad() + side * firstRad;
        if (straightM > HAIR_M) {
            PlanePoint to = here.moved(track, straightM);
            ways.add(new Link(Link.Kind.TURN, here, to, Way.level(0), wantedMps));
            here = to;
        }
        bend(ways, here, track, side * (Math.PI - firstRad));
        return ways;
    }

    private PlanePoint bend(List<Way> ways, PlanePoint from, double trackRad, double sweepRad) {
        if (Math.abs(sweepRad) < HAIR_RAD) {
            return from;
        }
        Arc arc = Arc.turning(from, trackRad, sweepRad, radiusM, speedMps);
        ways.add(arc);
        return arc.pointAt(arc.lengthM());
    }

    /** Speed out of the line before, which is that into the straight: as on the line where no arc lies between. */
    double intoMps() {
        return firstRad < HAIR_RAD && straightM > HAIR_M ? wantedMps : speedMps;
    }

    /** Speed out of the straight, which is that into the next line. */
    double outOfMps() {
        return firstRad > Math.PI - HAIR_RAD && straightM > HAIR_M ? wantedMps : speedMps;
    }
}
