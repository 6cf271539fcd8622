package yalos.core.wind;

import java.util.OptionalDouble;

/**
 * A steady wind, and what it does to an aircraft that holds a track.
 *
 * <p>Triangle of velocities: crosswind {@code w sin(from − track)}, headwind {@code w cos(from − track)}. Any good book on air
 * navigation (from memory). Gusts and wind that turns with height are left out.
 *
 * @param fromRad where it blows <em>from</em>, clockwise from north
 * @param speedMps its speed at flying height
 */
public record Wind(double fromRad, double speedMps) {
    /** Below this, practice ignores the wind and flies what is shortest (common practice: about 5 mph). */
    public static final double NEGLIGIBLE_MPS = 2;

    /**
     * A wind measured at one height as it is at another, by the power law with an exponent of 1/7: over open ground by day (common practice). At night, and
     * over woods and houses, it grows more.
     *
     * @param measuredMps at {@code atM} above ground
     * @param heightM above ground
     */
    public static double aloftMps(double measuredMps, double atM, double heightM) {
        return measuredMps * Math.pow(heightM / atM, 1.0 / 7);
    }

    /** Wind square to the track, positive when it comes from the right. */
    public double crosswindMps(double trackRad) {
        return speedMps * Math.sin(fromRad - trackRad);
    }

    /** Wind along the track, positive when it blows against the flight. */
    public double headwindMps(double trackRad) {
        return speedMps * Math.cos(fromRad - trackRad);
    }

    /** Heading minus track that an airspeed needs to hold the track; empty when the crosswind is too strong for it. */
    public OptionalDouble crabRad(double trackRad, double airspeedMps) {
        double cross = crosswindMps(trackRad);
        return Math.abs(cross) >= airspeedMps
                ? OptionalDouble.empty()
                : OptionalDouble.of(Math.asin(cross / airspeedMps));
    }

    /** Ground speed of an aircraft that holds its airspeed; empty when the track cannot be held or it would not move forward. */
    public OptionalDouble groundSpeedMps(double trackRad, double airspeedMps) {
        OptionalDouble crab = crabRad(trackRad, airspeedMps);
        if (crab.isEmpty()) {
            return OptionalDouble.empty();
        }
        double ground = airspeedMps * Math.cos(crab.getAsDouble()) - headwindMps(trackRad);
        return ground > 0 ? OptionalDouble.of(ground) : OptionalDouble.empty();
    }

    /** Airspeed that an aircraft needs to hold a ground speed along a track: {@code |v_ground − v_wind|}. */
    public double airspeedMps(double trackRad, double groundSpeedMps) {
        return Math.hypot(groundSpeedMps + headwindMps(trackRad), crosswindMps(trackRad));
    }
}
