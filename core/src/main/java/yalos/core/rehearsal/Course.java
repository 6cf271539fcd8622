package yalos.core.rehearsal;

import java.util.List;
import java.util.Optional;
import yalos.core.flight.Climb;
import yalos.core.flight.Flight;
import yalos.core.flight.Hover;
import yalos.core.flight.Joint;
import yalos.core.flight.Leg;
import yalos.core.flight.Link;
import yalos.core.flight.Pace;
import yalos.core.flight.Place;
import yalos.core.flight.Timeline;
import yalos.core.flight.Way;

/**
 * An aircraft on its way along legs, a small step at a time: it speeds up and brakes with what it can, slows to its turning speed at corners, and never flies faster than the air lets it.
 *
 * <p>What is left of a step when a leg ends is flown on the next, so that times do not depend on where a step begins.
 */
final class Course {
    private static final double MOST_BEND = Math.cos(Math.toRadians(30));
    private static final double NEARLY_M = 1e-9;

    private final List<Leg> legs;
    private final Pace pace;
    /** The most speed at which each leg may end, so that all that follow can be braked for. */
    private final double[] exits;

    /** On the clock; made when somebody asks. */
    private Timeline whole;

    private int at;
    private double along;
    private double waited;
    private double speed;
    private double track;

    /** Told about what is passed. */
    interface Passing {
        /**
         * A piece of a leg was flown.
         *
         * @param leg it is on
         * @param from metres along it
         * @param to metres along it
         * @param before seconds of the step that had gone before
         * @param seconds the piece took
         */
        void flown(Leg leg, double from, double to, double before, double seconds);
    }

    Course(List<Leg> legs, Pace pace, double speed, double track) {
        this.legs = List.copyOf(legs);
        this.pace = pace;
        this.speed = speed;
        this.track = track;
        this.exits = exits();
    }

    private double[] exits() {
        double[] most = new double[legs.size()];
        double a = 2 * pace.aircraft().accelerationMps2();
        for (int i = legs.size() - 1; i >= 0; i--) {
            double corner = i + 1 == legs.size() ? 0 : corner(i);
            Leg next = i + 1 < legs.size() ? legs.get(i + 1) : null;
            if (next instanceof Way way && !pace.aircraft().kind().wing()) {
                corner = Math.min(corner, Math.sqrt(most[i + 1] * most[i + 1] + a * way.lengthM()));
            }
            most[i] = corner;
        }
        return most;
    }

    /** Speed at which the corner behind a leg can be taken. */
    private double corner(int i) {
        Leg leg = legs.get(i);
        Leg next = legs.get(i + 1);
        boolean wing = pace.aircraft().kind().wing();
        if (!(next instanceof Way after)) {
            return next instanceof Climb && wing ? Double.POSITIVE_INFINITY : 0;
        }
        if (!(leg instanceof Way before)) {
            return wing ? Double.POSITIVE_INFINITY : 0;
        }
        if (wing) {
            return Double.POSITIVE_INFINITY;
        }
        if (Joint.smooth(legs, i)) {
            return Math.min(before.speedMps(), after.speedMps());
        }
        boolean gap = before instanceof Link link && link.kind() == Link.Kind.GAP
                || after instanceof Link other && other.kind() == Link.Kind.GAP;
        boolean straight = Math.cos(before.trackRadAt(before.lengthM()) - after.trackRadAt(0)) > MOST_BEND;
        return gap && straight ? Double.POSITIVE_INFINITY : pace.aircraft().turnSpeedMps();
    }

    boolean done() {
        return at >= legs.size();
    }

    /** The leg it is on; the last one when all are done. */
    Leg leg() {
        return legs.get(Math.min(at, legs.size() - 1));
    }

    /** Seconds for what is left, as the clock of a plan has it; about, for it forgets how fast it is now. */
    double leftS() {
        if (done()) {
            return 0;
        }
        if (whole == null) {
            whole = Timeline.of(new Flight(legs, List.of(), Optional.empty(), 0), pace);
        }
        Timeline.Span span = whole.spans().get(at);
        double share;
        if (leg() instanceof Way way) {
            share = way.lengthM() == 0 ? 1 : along / way.lengthM();
        } else if (leg() instanceof Climb climb) {
            share = climb.byM() == 0 ? 1 : along / Math.abs(climb.byM());
        } else {
            share = waited / Math.max(NEARLY_M, ((Hover) leg()).seconds());
        }
        return whole.totalS() - span.fromS() - Math.min(1, share) * span.seconds();
    }

    int index() {
        return at;
    }

    double alongM() {
        return along;
    }

    double speedMps() {
        return speed;
    }

    double trackRad() {
        return track;
    }

    /** Metres a second up or down. */
    double climbMps() {
        if (done()) {
            return 0;
        }
        if (leg() instanceof Climb climb) {
            return climb.byM() >= 0
                    ? pace.aircraft().climbMps()
                    : -pace.aircraft().descentMps();
        }
        if (leg() instanceof Way way && way.lengthM() > 0) {
            double ahead = Math.min(way.lengthM(), along + 1);
            double behind = Math.max(0, ahead - 2);
            return (way.upAt(ahead) - way.upAt(behind)) / Math.max(NEARLY_M, ahead - behind) * speed;
        }
        return 0;
    }

    /** Where the path is now. */
    Place place() {
        Leg leg = leg();
        if (done()) {
            return leg.end();
        }
        if (leg instanceof Way way) {
            return way.placeAt(Math.min(along, way.lengthM()));
        }
        if (leg instanceof Climb climb) {
            double share = climb.byM() == 0 ? 1 : Math.min(1, along / Math.abs(climb.byM()));
            return Place.over(climb.at(), climb.fromUpM() + climb.byM() * share);
        }
        return leg.start();
    }

    /**
     * Flies on for so long.
     *
     * @param most ground speed that the air allows along a direction, given what is wanted
     * @param held whether it is to brake to a stand and stay
     */
    void step(double seconds, Allowed most, boolean held, Passing told) {
        double left = seconds;
        int guard = 0;
        while (left > NEARLY_M && !done() && guard++ < 10_000) {
            Leg leg = legs.get(at);
            double used;
            if (leg instanceof Hover hover) {
                used = hover(hover, left, held);
            } else if (leg instanceof Climb climb) {
                used = climb(climb, left, held);
            } else {
                used = way((Way) leg, left, most, held, told, seconds - left);
            }
            left -= used;
            if (held && speed == 0 && used == 0) {
                return;
            }
        }
    }

    /** What the air allows. */
    interface Allowed {
        double mps(double trackRad, double wantedMps);
    }

    private double hover(Hover hover, double left, boolean held) {
        speed = 0;
        if (held) {
            return left;
        }
        double used = Math.min(left, hover.seconds() - waited);
        waited += used;
        if (waited >= hover.seconds() - NEARLY_M) {
            next();
        }
        return used;
    }

    private double climb(Climb climb, double left, boolean held) {
        speed = 0;
        if (held) {
            return left;
        }
        double rate =
                climb.byM() >= 0 ? pace.aircraft().climbMps() : pace.aircraft().descentMps();
        double rest = Math.abs(climb.byM()) - along;
        double used = Math.min(left, Math.max(0, rest) / rate);
        along += used * rate;
        if (along >= Math.abs(climb.byM()) - NEARLY_M) {
            next();
        }
        return used;
    }

    private double way(Way way, double left, Allowed most, boolean held, Passing told, double before) {
        track = way.trackRadAt(Math.min(along, way.lengthM()));
        double length = way.lengthM();
        double rest = length - along;
        if (rest <= NEARLY_M) {
            told.flown(way, along, length, before, 0);
            next();
            return 0;
        }
        double a = pace.aircraft().accelerationMps2();
        boolean wing = pace.aircraft().kind().wing();
        double wanted = most.mps(track, way.speedMps());
        double exit = Math.min(exits[at], wanted);
        // A wing holds its airspeed; what the wind makes of it, it has at once.
        if (wing) {
            speed = wanted;
        }
        double used;
        double done;
        if (held && !wing) {
            used = Math.min(left, speed / a);
            done = speed * used - a * used * used / 2;
            speed = Math.max(0, speed - a * used);
            speed = speed < 1e-9 ? 0 : speed;
        } else if (wing) {
            used = speed > 0 ? Math.min(left, rest / speed) : left;
            done = speed * used;
        } else {
            // Braking must begin where what is left is just enough to come down to the speed of the corner.
            double braking = speed > exit ? (speed * speed - exit * exit) / (2 * a) : 0;
            if (braking >= rest - NEARLY_M) {
                double needed = Math.max(0, (speed * speed - exit * exit) / (2 * rest));
                double end = Math.max(exit, speed - needed * left);
                double whole = 2 * rest / (speed + exit);
                used = Math.min(left, whole);
                end = used >= whole - NEARLY_M ? exit : end;
                done = used >= whole - NEARLY_M ? rest : (speed + end) / 2 * used;
                speed = end;
            } else if (speed < wanted - NEARLY_M) {
                // Speeding up, until the speed wanted, or until braking begins.
                double toWanted = (wanted - speed) / a;
                double peak = Math.sqrt(Math.max(0, (speed * speed + exit * exit) / 2 + a * rest));
                double toPeak = Math.max(0, (peak - speed) / a);
                used = Math.min(left, Math.min(toWanted, toPeak));
                if (used <= NEARLY_M) {
                    used = Math.min(left, 1e-6);
                }
                done = speed * used + a * used * used / 2;
                speed += a * used;
            } else if (speed > wanted + NEARLY_M) {
                used = Math.min(left, (speed - wanted) / a);
                done = speed * used - a * used * used / 2;
                speed -= a * used;
            } else {
                double untilBraking = (rest - braking) / Math.max(NEARLY_M, speed);
                used = speed > 0 ? Math.min(left, untilBraking) : left;
                done = speed * used;
            }
        }
        double from = along;
        along = Math.min(length, along + done);
        told.flown(way, from, along, before, used);
        if (along >= length - NEARLY_M && !(held && speed == 0)) {
            next();
        }
        return used;
    }

    private void next() {
        at++;
        along = 0;
        waited = 0;
    }
}
