package yalos.core.block;

/** What is asked of a ring of corners given as x, y in turn; the last joins the first. */
public final class Ring {
    private Ring() {}

    /** Area in the units of the corners squared: positive where the ring runs counterclockwise, seen with x to the right and y up. */
    public static double signedArea(double[] ring) {
        double twice = 0;
        for (int i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
            twice += ring[j] * ring[i + 1] - ring[i] * ring[j + 1];
        }
        return twice / 2;
    }

    /** Whether a point lies inside, by counting crossings; on the boundary either answer may come. */
    public static boolean contains(double[] ring, double x, double y) {
        boolean inside = false;
        for (int i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
            if ((ring[i + 1] > y) != (ring[j + 1] > y)
                    && x < (ring[j] - ring[i]) * (y - ring[i + 1]) / (ring[j + 1] - ring[i + 1]) + ring[i]) {
                inside = !inside;
            }
        }
        return inside;
    }
}
