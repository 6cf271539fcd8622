package yalos.core.proof;

import java.util.Arrays;
import java.util.Optional;
import yalos.core.surface.Occluder;

/** Looks at one cell after the other of a tile, for a {@link ProofRun}. */
final class CellLook {
    /** Up to so many rays all pairs are quicker. */
    private static final int MANY_RAYS = 24;
    /** What an angle may lose as a float. */
    private static final double ROUNDED_RAD = 1e-5;

    private final ProofRun work;
    private final SurfaceProof proof;
    private final int[] near;
    private final Occluder.Sight[] sights;
    private final boolean oneSided;
    private final boolean normals;
    private final double[] rays;
    private final double[] place = new double[3];
    private final double[] front = new double[3];
    private final double[] normal = new double[6];
    /** Cell in which a line was last seen to show it. */
    private final int[] stamps;

    private int stamp;

    CellLook(ProofRun work, int[] near, Occluder.Sight[] sights) {
        this.work = work;
        this.proof = work.proof;
        this.near = near;
        this.sights = sights;
        this.oneSided = work.surface.oneSided();
        this.normals = oneSided || proof.incidence.length > 0;
        this.rays = new double[proof.angles.length > 0 ? 3 * near.length : 0];
        this.stamps = new int[work.lines];
    }

    void look(int column, int row) {
        int at = row * work.surface.columns() + column;
        work.surface.place(column, row, place);
        double x = place[0];
        double y = place[1];
        double z = place[2];
        int seen = 0;
        int without = 0;
        double best = Double.POSITIVE_INFINITY;
        double sum = 0;
        double mainSum = 0;
        int mainSeen = 0;
        double steepest = -1;
        int lines = 0;
        stamp++;
        boolean accuracy = proof.sigmaVertical.length > 0;
        if (accuracy) {
            Arrays.fill(normal, 0);
        }
        if (normals) {
            work.surface.normal(column, row, front);
        }
        if ((work.asked.length == 0 || work.asked[at]) && !Double.isNaN(z)) {
            for (int i = 0; i < near.length; i++) {
                CameraFrame frame = work.frames[near[i]];
                double de = x - frame.east;
                double dn = y - frame.north;
                double du = z - frame.up;
                double depth = frame.axisE * de + frame.axisN * dn + frame.axisU * du;
                if (depth <= 0) {
                    continue;
                }
                double right = frame.rightE * de + frame.rightN * dn + frame.rightU * du;
                double u = frame.fx * right / depth + frame.cx;
                if (u < 0 || u >= frame.width) {
                    continue;
                }
                double down = frame.downE * de + frame.downN * dn + frame.downU * du;
                double v = frame.fy * down / depth + frame.cy;
                if (v < 0 || v >= frame.height) {
                    continue;
                }
                double facing = normals ? -(front[0] * de + front[1] * dn + front[2] * du) : 1;
                if (oneSided && facing <= 0) {
                    continue;
                }
                without++;
                if (sights[i] != Occluder.Sight.FREE && !sights[i].clear(x, y, z)) {
                    continue;
                }
                if (rays.length > 0) {
                    double length = Math.sqrt(de * de + dn * dn + du * du);
                    rays[3 * seen] = de / length;
                    rays[3 * seen + 1] = dn / length;
                    rays[3 * seen + 2] = du / length;
                }
                if (normals) {
                    steepest = Math.max(steepest, facing / Math.sqrt(de * de + dn * dn + du * du));
                }
                seen++;
                double gsd = depth * frame.gsdPerDepth;
                best = Math.min(best, gsd);
                sum += gsd;
                if (work.main[near[i]]) {
                    mainSum += gsd;
                    mainSeen++;
                }
                int line = work.lineOf[near[i]];
                if (stamps[line] != stamp) {
                    stamps[line] = stamp;
                    lines++;
                }
                if (accuracy) {
                    Intersection.add(normal, frame, right, down, depth, work.noise);
                }
            }
        }
        // What the main pass shows is not made coarser by passes flown besides it.
        double mean = mainSeen > 0 ? mainSum / mainSeen : sum / seen;
        keep(at, seen, without, best, mean, lines);
        if (proof.incidence.length > 0) {
            proof.incidence[at] = seen == 0 ? Float.NaN : (float) Math.acos(Math.min(1, steepest));
        }
    }

    private void keep(int at, int seen, int without, double best, double mean, int lines) {
        proof.counts[at] = (short) Math.min(Short.MAX_VALUE, seen);
        if (proof.countsWithout.length > 0) {
            proof.countsWithout[at] = (short) Math.min(Short.MAX_VALUE, without);
        }
        if (proof.gsdBest.length > 0) {
            proof.gsdBest[at] = seen == 0 ? Float.NaN : (float) best;
            proof.gsdMean[at] = seen == 0 ? Float.NaN : (float) mean;
        }
        if (proof.lines.length > 0) {
            proof.lines[at] = (short) lines;
        }
        if (proof.angles.length > 0) {
            proof.angles[at] = seen < 2 ? Float.NaN : (float) largestAngle(seen);
        }
        if (proof.sigmaVertical.length > 0) {
            accuracy(at, seen);
        }
    }

    private void accuracy(int at, int seen) {
        var covariance = seen < 2 ? Optional.<Intersection.Covariance>empty() : Intersection.inverted(normal);
        Noise noise = work.noise;
        proof.sigmaHorizontal[at] = covariance
                .map(c -> (float) Math.hypot(c.sigmaHorizontalM(), noise.sharedHorizontalM() * Math.sqrt(2)))
                .orElse(Float.NaN);
        proof.sigmaVertical[at] = covariance
                .map(c -> (float) Math.hypot(c.sigmaUpM(), noise.sharedVerticalM()))
                .orElse(Float.NaN);
    }

    /** By the least cosine over all pairs; of many rays only those that lie far enough from their mean can be the outermost. */
    private double largestAngle(int seen) {
        if (seen > MANY_RAYS) {
            return largestOfMany(seen);
        }
        double least = 1;
        for (int i = 0; i < seen; i++) {
            double x = rays[3 * i];
            double y = rays[3 * i + 1];
            double z = rays[3 * i + 2];
            for (int j = i + 1; j < seen; j++) {
                double cosine = x * rays[3 * j] + y * rays[3 * j + 1] + z * rays[3 * j + 2];
                if (cosine < least) {
                    least = cosine;
                }
            }
        }
        return Math.acos(Math.max(-1, least));
    }

    /** Two rays stand no farther apart than both together from the mean ray, so pairs are tried from the outermost inward. */
    private double largestOfMany(int seen) {
        double meanX = 0;
        double meanY = 0;
        double meanZ = 0;
        for (int i = 0; i < seen; i++) {
            meanX += rays[3 * i];
            meanY += rays[3 * i + 1];
            meanZ += rays[3 * i + 2];
        }
        double length = Math.sqrt(meanX * meanX + meanY * meanY + meanZ * meanZ);
        long[] outward = new long[seen];
        for (int i = 0; i < seen; i++) {
            double cosine = length == 0
                    ? -1
                    : (rays[3 * i] * meanX + rays[3 * i + 1] * meanY + rays[3 * i + 2] * meanZ) / length;
            float off = (float) Math.acos(Math.max(-1, Math.min(1, cosine)));
            outward[i] = (long) Float.floatToIntBits(off) << 32 | i;
        }
        Arrays.sort(outward);
        double least = 1;
        double best = 0;
        for (int a = seen - 1; a > 0 && 2 * off(outward[a]) + ROUNDED_RAD > best; a--) {
            int i = 3 * (int) outward[a];
            for (int b = a - 1; b >= 0 && off(outward[a]) + off(outward[b]) + ROUNDED_RAD > best; b--) {
                int j = 3 * (int) outward[b];
                double cosine = rays[i] * rays[j] + rays[i + 1] * rays[j + 1] + rays[i + 2] * rays[j + 2];
                if (cosine < least) {
                    least = cosine;
                    best = Math.acos(Math.max(-1, least));
                }
            }
        }
        return Math.acos(Math.max(-1, least));
    }

    /** Angle from the mean ray, in radians. */
    private static double off(long outward) {
        return Float.intBitsToFloat((int) (outward >>> 32));
    }
}
