package yalos.core.pattern;

/**
 * Photos on one circle round an object, all aimed at its middle.
 *
 * @param photos on the whole circle, evenly spread
 * @param arcM flown between two photos
 * @param intervalS between two photos
 * @param bankRad a wing would need: {@code atan(v² / (g R))}
 */
public record CircleShots(int photos, double arcM, double intervalS, double bankRad) {
    private static final double GRAVITY = 9.80665;

    /**
     * @param radiusM of the circle flown
     * @param footprintAlongM length of ground or wall that a photo shows along the flight, at the object
     * @param overlap wanted between neighbouring photos, 0..1
     * @param speedMps along the circle
     */
    public static CircleShots of(double radiusM, double footprintAlongM, double overlap, double speedMps) {
        double round = 2 * Math.PI * radiusM;
        int photos = (int) Math.max(3, Math.ceil(round / (footprintAlongM * (1 - overlap)) - 1e-9));
        return with(radiusM, photos, speedMps);
    }

    /** So many photos on a circle. */
    public static CircleShots with(double radiusM, int photos, double speedMps) {
        double arc = 2 * Math.PI * radiusM / photos;
        return new CircleShots(photos, arc, arc / speedMps, Math.atan(speedMps * speedMps / (GRAVITY * radiusM)));
    }
}
