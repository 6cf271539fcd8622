package yalos.core.kit;

import static yalos.core.fault.InputFault.within;

import java.util.Optional;
import yalos.core.fault.InputFault;

/**
 * How an aircraft moves, as far as a plan needs it.
 *
 * @param name what the operator calls it, by its class
 * @param kind which decides how it turns
 * @param maxSpeedMps fastest ground speed while mapping, in still air
 * @param transitMps ground speed out to the block
 * @param returnMps ground speed home
 * @param slowestMps slowest airspeed it can fly at; 0 where it can stand still
 * @param accelerationMps2 with which it speeds up and brakes on a straight leg
 * @param turnSpeedMps speed a multirotor has left when it goes round a corner of its path
 * @param bankRad bank angle a wing turns with
 * @param climbMps climbing
 * @param descentMps descending
 * @param windLimitMps strongest wind at the ground it may fly in, by its maker or its operator
 * @param weatherClass against dust and water, such as IP43; empty when it has none
 * @param positioning the best way in which it can know where its photos were taken
 * @param battery what carries it
 */
public record Aircraft(
        String name,
        AircraftKind kind,
        double maxSpeedMps,
        double transitMps,
        double returnMps,
        double slowestMps,
        double accelerationMps2,
        double turnSpeedMps,
        double bankRad,
        double climbMps,
        double descentMps,
        double windLimitMps,
        String weatherClass,
        Positioning positioning,
        Battery battery) {
    /** Standard acceleration of free fall (ISO 80000-3), in m/s². */
    private static final double GRAVITY = 9.80665;

    public Aircraft {
        within("maxSpeedMps", maxSpeedMps, 0.5, 60, "m/s");
        within("transitMps", transitMps, 0.5, 60, "m/s");
        within("returnMps", returnMps, 0.5, 60, "m/s");
        within("slowestMps", slowestMps, 0, 60, "m/s");
        if (slowestMps > maxSpeedMps) {
            throw new InputFault(
                    "slowestMps",
                    slowestMps,
                    "The slowest speed, %.1f m/s, is above the fastest while mapping, %.1f m/s."
                            .formatted(slowestMps, maxSpeedMps));
        }
        within("accelerationMps2", accelerationMps2, 0.1, 20, "m/s²");
        within("turnSpeedMps", turnSpeedMps, 0.1, 60, "m/s");
        within("bankDeg", Math.toDegrees(bankRad), 5, 60, "°");
        within("climbMps", climbMps, 0.1, 30, "m/s");
        within("descentMps", descentMps, 0.1, 30, "m/s");
        within("windLimitMps", windLimitMps, 1, 40, "m/s");
    }

    /** A small multirotor, figures typical of its class (common practice). */
    public static Aircraft smallMultirotor() {
        return new Aircraft(
                "small multirotor",
                AircraftKind.MULTIROTOR,
                15,
                15,
                15,
                0,
                2.5,
                1.5,
                Math.toRadians(30),
                4,
                3,
                10,
                "",
                Positioning.RTK_BASE,
                new Battery(30, Optional.of(28.0), 4, 0.25, 1, Optional.empty()));
    }

    /** A small fixed wing, figures typical of its class (common practice). */
    public static Aircraft smallWing() {
        return new Aircraft(
                "small fixed wing",
                AircraftKind.FIXED_WING,
                18,
                18,
                18,
                13,
                2,
                12,
                Math.toRadians(30),
                4,
                3,
                12,
                "",
                Positioning.PPK,
                new Battery(60, Optional.empty(), 2, 0.25, 1, Optional.empty()));
    }

    /** The same aircraft with another fastest mapping speed, in metres a second. */
    public Aircraft withMaxSpeed(double mps) {
        return new Aircraft(
                name,
                kind,
                mps,
                transitMps,
                returnMps,
                Math.min(slowestMps, mps),
                accelerationMps2,
                turnSpeedMps,
                bankRad,
                climbMps,
                descentMps,
                windLimitMps,
                weatherClass,
                positioning,
                battery);
    }

    /** The same aircraft carried by another battery. */
    public Aircraft with(Battery other) {
        return new Aircraft(
                name,
                kind,
                maxSpeedMps,
                transitMps,
                returnMps,
                slowestMps,
                accelerationMps2,
                turnSpeedMps,
                bankRad,
                climbMps,
                descentMps,
                windLimitMps,
                weatherClass,
                positioning,
                other);
    }

    /** Least radius of a level turn in still air, {@code v² / (g tan(bank))}, in metres. */
    public double turnRadiusM(double speedMps) {
        return speedMps * speedMps / (GRAVITY * Math.tan(bankRad));
    }
}
