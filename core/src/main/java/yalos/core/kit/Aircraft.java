package yalos.core.kit;

import static yalos.core.fault.InputFault.within;

import java.util.Optional;

/**
 * How an aircraft moves, as far as a plan needs it.
 *
 * @param name what the operator calls it
 * @param maxSpeedMps fastest ground speed while mapping, in still air
 * @param accelerationMps2 with which it speeds up and brakes on a straight leg
 * @param turnSpeedMps speed left when it goes round a corner of its path
 * @param climbMps climbing
 * @param descentMps descending
 * @param battery what carries it
 */
public record Aircraft(
        String name,
        double maxSpeedMps,
        double accelerationMps2,
        double turnSpeedMps,
        double climbMps,
        double descentMps,
        Battery battery) {
    public Aircraft {
        within("maxSpeedMps", maxSpeedMps, 0.5, 60, "m/s");
        within("accelerationMps2", accelerationMps2, 0.1, 20, "m/s²");
        within("turnSpeedMps", turnSpeedMps, 0.1, 60, "m/s");
        within("climbMps", climbMps, 0.1, 30, "m/s");
        within("descentMps", descentMps, 0.1, 30, "m/s");
    }

    /** A small multirotor, figures typical of its class (common practice). */
    public static Aircraft smallMultirotor() {
        return new Aircraft("small multirotor", 15, 2.5, 1.5, 4, 3, new Battery(30, 4, 0.25, 1, Optional.empty()));
    }

    public Aircraft withMaxSpeed(double mps) {
        return new Aircraft(name, mps, accelerationMps2, turnSpeedMps, climbMps, descentMps, battery);
    }
}
