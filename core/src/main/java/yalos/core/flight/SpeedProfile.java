package yalos.core.flight;

/**
 * How long does a straight leg take when the aircraft speeds up from its turning speed, holds its speed, and brakes to
 * the turning speed again? A trapezium of speed over time; a triangle when the leg is too short.
 *
 * @param accelerationMps2 up and down alike
 * @param turnSpeedMps at both ends
 */
public record SpeedProfile(double accelerationMps2, double turnSpeedMps) {

    /** Seconds for a leg of {@code lengthM} flown at {@code speedMps} at most. */
    public double seconds(double lengthM, double speedMps) {
        if (lengthM <= 0) {
            return 0;
        }
        double end = Math.min(turnSpeedMps, speedMps);
        double rampM = (speedMps * speedMps - end * end) / accelerationMps2;
        if (lengthM >= rampM) {
            return 2 * (speedMps - end) / accelerationMps2 + (lengthM - rampM) / speedMps;
        }
        double peak = Math.sqrt(end * end + accelerationMps2 * lengthM);
        return 2 * (peak - end) / accelerationMps2;
    }
}
