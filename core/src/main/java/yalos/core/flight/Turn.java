package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;

/**
 * The way round from the end of a line into one flown the other way.
 *
 * <p>A multirotor turns on the spot and flies straight across. A wing flies arcs of its turning radius r: lines at least 2r apart are
 * joined by two quarter circles and a straight piece; closer ones by a bulb: out by an angle α, round by π + 2α, back by α, with
 * cos α = (2r + S) / 4r. At S = 2r both give a half circle. Where the ends of the lines are not abreast, the longer one is flown on.
 * Plane geometry.
 *
 * <p>KNOWN LIMITS: the arcs are those of still air; a wing that holds its bank in a wind drifts off them.
 *
 * @param from end of a line
 * @param trackRad direction flown there, clockwise from grid north
 * @param acrossM to the next line, square to the direction, positive to the right
 * @param alongM by which the start of the next line lies further on in the direction
 */
public record Turn(PlanePoint from, double trackRad, double acrossM, double alongM) {

    /** From the end of a line that was flown in a direction to a place. */
    public static Turn to(PlanePoint from, double trackRad, PlanePoint to) {
        double dx = to.xM() - from.xM();
        double dy = to.yM() - from.yM();
        double sin = Math.sin(trackRad);
        double cos = Math.cos(trackRad);
        return new Turn(from, trackRad, dx * cos - dy * sin, dx * sin + dy * cos);
    }

    /** Straight distance. */
    double straightM() {
        return Math.sqrt(acrossM * acrossM + alongM * alongM);
    }

    /** Direction of the straight way, clockwise from grid north. */
    double straightRad() {
        return trackRad + Math.atan2(acrossM, alongM);
    }

    /** Level length as this aircraft flies it. */
    public double lengthM(Aircraft aircraft, double speedMps) {
        if (!aircraft.kind().wing()) {
            return straightM();
        }
        return roundM(Math.abs(acrossM), aircraft.turnRadiusM(speedMps)) + Math.abs(alongM);
    }

    /** Length of a turn between lines that end abreast. */
    static double roundM(double spacingM, double radiusM) {
        if (spacingM >= 2 * radiusM) {
            return Math.PI * radiusM + spacingM - 2 * radiusM;
        }
        return radiusM * (Math.PI + 4 * outRad(spacingM, radiusM));
    }

    private static double outRad(double spacingM, double radiusM) {
        return Math.acos((2 * radiusM + spacingM) / (4 * radiusM));
    }

    /** The ways it is flown on, level at height 0. */
    public List<Way> ways(Aircraft aircraft, double speedMps) {
        Laid laid = new Laid(from, trackRad, speedMps);
        if (!aircraft.kind().wing()) {
            laid.straight(straightRad(), straightM());
            return laid.ways;
        }
        double radius = aircraft.turnRadiusM(speedMps);
        double side = acrossM < 0 ? -1 : 1;
        double spacing = Math.abs(acrossM);
        laid.straight(trackRad, Math.max(0, alongM));
        if (spacing >= 2 * radius) {
            laid.arc(side * Math.PI / 2, radius);
            laid.straight(laid.trackRad, spacing - 2 * radius);
            laid.arc(side * Math.PI / 2, radius);
        } else {
            double out = outRad(spacing, radius);
            laid.arc(-side * out, radius);
            laid.arc(side * (Math.PI + 2 * out), radius);
            laid.arc(-side * out, radius);
        }
        laid.straight(laid.trackRad, Math.max(0, -alongM));
        return laid.ways;
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
