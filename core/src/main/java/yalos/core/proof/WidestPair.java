package yalos.core.proof;

/**
 * The largest angle between two of many rays, exactly: rays are points on a sphere, and the widest pair is the one farthest apart. From any
 * place no pair lies farther apart than its two distances together, so only points far enough from the middle are tried with each other.
 */
final class WidestPair {
    /** Relative to 1, far above what roots and sums lose. */
    private static final double SPARE = 1e-9;

    private final double[] off;
    private final int[] outer;

    WidestPair(int most) {
        off = new double[most];
        outer = new int[most];
    }

    /**
     * @param rays x, y, z of each, of length 1
     * @param count of them, two at least
     */
    double angleRad(double[] rays, int count) {
        double x = 0;
        double y = 0;
        double z = 0;
        for (int i = 0; i < 3 * count; i += 3) {
            x += rays[i];
            y += rays[i + 1];
            z += rays[i + 2];
        }
        x /= count;
        y /= count;
        z /= count;
        int outermost = 0;
        for (int i = 0; i < count; i++) {
            off[i] = Math.sqrt(square(rays, 3 * i, x, y, z));
            outermost = off[i] > off[outermost] ? i : outermost;
        }
        int other = farthest(rays, count, outermost);
        int third = farthest(rays, count, other);
        double widest = Math.max(between(rays, outermost, other), between(rays, other, third));
        double least = Math.sqrt(widest) - off[outermost] - SPARE;
        int tried = 0;
        for (int i = 0; i < count; i++) {
            if (off[i] >= least) {
                outer[tried++] = i;
            }
        }
        for (int a = 0; a < tried; a++) {
            for (int b = a + 1; b < tried; b++) {
                widest = Math.max(widest, between(rays, outer[a], outer[b]));
            }
        }
        return 2 * Math.asin(Math.min(1, Math.sqrt(widest) / 2));
    }

    private static int farthest(double[] rays, int count, int from) {
        int farthest = from;
        double most = -1;
        for (int i = 0; i < count; i++) {
            double square = between(rays, from, i);
            if (square > most) {
                most = square;
                farthest = i;
            }
        }
        return farthest;
    }

    private static double between(double[] rays, int one, int other) {
        return square(rays, 3 * one, rays[3 * other], rays[3 * other + 1], rays[3 * other + 2]);
    }

    private static double square(double[] rays, int at, double x, double y, double z) {
        double dx = rays[at] - x;
        double dy = rays[at + 1] - y;
        double dz = rays[at + 2] - z;
        return dx * dx + dy * dy + dz * dz;
    }
}
