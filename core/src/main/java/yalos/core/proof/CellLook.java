package yalos.core.proof;

import java.util.Arrays;
import java.util.Optional;
import yalos.core.surface.Occluder;

/** Looks at one cell after the other of a tile, for a {@link ProofRun}. */
final class CellLook {
    private final ProofRun work;
    private final SurfaceProof proof;
    private final int[] near;
    private final Occluder.Sight[] sights;
    private final boolean oneSided;
    private final boolean normals;
    private final double[] rays;
    private final WidestPair widest;
    private final TypicalGsd typical;
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
        this.widest = new WidestPair(near.length);
        this.typical = new TypicalGsd(near.length);
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
        double steepest = -1;
        int lines = 0;
        stamp++;
        typical.clear();
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
                double perDepth = 1 / depth;
                double xz = right * perDepth;
                double u = frame.fx * xz + frame.cx;
                if (u < 0 || u >= frame.width) {
                    continue;
                }
                double down = frame.downE * de + frame.downN * dn + frame.downU * du;
                double yz = down * perDepth;
                double v = frame.fy * yz + frame.cy;
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
                if (normals || rays.length > 0) {
                    double perLength = 1 / Math.sqrt(de * de + dn * dn + du * du);
                    if (rays.length > 0) {
                        rays[3 * seen] = de * perLength;
                        rays[3 * seen + 1] = dn * perLength;
                        rays[3 * seen + 2] = du * perLength;
                    }
                    steepest = Math.max(steepest, facing * perLength);
                }
                seen++;
                double gsd = depth * frame.gsdPerDepth;
                best = Math.min(best, gsd);
                typical.add(gsd, work.main[near[i]]);
                int line = work.lineOf[near[i]];
                if (stamps[line] != stamp) {
                    stamps[line] = stamp;
                    lines++;
                }
                if (accuracy) {
                    Intersection.add(normal, frame, xz, yz, perDepth, work.noise);
                }
            }
        }
        keep(at, seen, without, best, lines);
        if (proof.incidence.length > 0) {
            proof.incidence[at] = seen == 0 ? Float.NaN : (float) Math.acos(Math.min(1, steepest));
        }
    }

    private void keep(int at, int seen, int without, double best, int lines) {
        proof.counts[at] = (short) Math.min(Short.MAX_VALUE, seen);
        if (proof.countsWithout.length > 0) {
            proof.countsWithout[at] = (short) Math.min(Short.MAX_VALUE, without);
        }
        if (proof.gsdBest.length > 0) {
            proof.gsdBest[at] = seen == 0 ? Float.NaN : (float) best;
            proof.gsdMean[at] = (float) typical.m(work.enough);
        }
        if (proof.lines.length > 0) {
            proof.lines[at] = (short) lines;
        }
        if (proof.angles.length > 0) {
            proof.angles[at] = seen < 2 ? Float.NaN : (float) widest.angleRad(rays, seen);
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
}
