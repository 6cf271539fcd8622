package yalos.core.kit;

import static yalos.core.fault.InputFault.within;

/**
 * A lidar scanner over level ground.
 *
 * <p>Swath and density after the geometry of a scan across the track with evenly spread pulses; real scanners thin out
 * towards the edges, so the share usable is the operator's to set.
 *
 * @param name what the operator calls it, by its class
 * @param fieldOfViewRad full angle across the track that is used
 * @param pulsesPerSecond pulses sent
 * @param usableShare share of the pulses that fall within the field of view and come back, 0..1
 * @param maxRangeM greatest slant range at which dark ground still answers
 */
public record Scanner(
        String name, double fieldOfViewRad, double pulsesPerSecond, double usableShare, double maxRangeM) {
    public Scanner {
        within("fieldOfViewDeg", Math.toDegrees(fieldOfViewRad), 5, 150, "°");
        within("pulsesPerSecond", pulsesPerSecond, 1000, 5e6, "pulses/s");
        within("usableShare", usableShare * 100, 1, 100, "%");
        within("maxRangeM", maxRangeM, 5, 5000, "m");
    }

    /** Width of ground that one strip scans: {@code 2 H tan(fov / 2)}, in metres. */
    public double swathM(double heightM) {
        return 2 * heightM * Math.tan(fieldOfViewRad / 2);
    }

    /** Points on each square metre from one strip: {@code pulse rate · usable share / (v · swath)}. */
    public double pointsPerM2(double heightM, double speedMps) {
        return pulsesPerSecond * usableShare / (speedMps * swathM(heightM));
    }

    /** Speed at which one strip lays so many points on each square metre, in metres a second. */
    public double speedForPoints(double heightM, double pointsPerM2) {
        return pulsesPerSecond * usableShare / (pointsPerM2 * swathM(heightM));
    }

    /** Slant range to the edge of the swath, in metres. */
    public double edgeRangeM(double heightM) {
        return heightM / Math.cos(fieldOfViewRad / 2);
    }
}
