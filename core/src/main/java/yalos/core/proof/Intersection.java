package yalos.core.proof;

import java.util.List;
import java.util.Optional;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;

/**
 * How accurately is a ground point fixed by the rays of several photos?
 *
 * <p>Each photo gives two rows {@code J = d(u,v)/d(X,Y,Z)}; camera-position errors are carried into the image, so
 * {@code N = Σ Jᵀ (σp² I + J Σc Jᵀ)⁻¹ J} and the covariance is {@code N⁻¹}. Orientation is taken as known. A normal stereo pair gives
 * {@code σ_Z = (H / B)(H / f) σ_parallax} (Kraus, <i>Photogrammetry</i>, from memory).
 */
public final class Intersection {
    /** Below this share of its diagonal a normal matrix fixes no point. */
    private static final double SINGULAR = 1e-12;

    private Intersection() {}

    /**
     * Covariance of a ground point in square metres.
     *
     * @param ee east with east, and so on: n north, u up
     */
    public record Covariance(double ee, double en, double eu, double nn, double nu, double uu) {
        /** Standard deviation east, in metres. */
        public double sigmaEastM() {
            return Math.sqrt(ee);
        }

        /** Standard deviation north, in metres. */
        public double sigmaNorthM() {
            return Math.sqrt(nn);
        }

        /** Standard deviation of the height, in metres. */
        public double sigmaUpM() {
            return Math.sqrt(uu);
        }

        /** Of the position in plan. */
        public double sigmaHorizontalM() {
            return Math.sqrt(ee + nn);
        }
    }

    /** The covariance of a point seen from some poses; empty when the rays do not fix it. */
    public static Optional<Covariance> of(
            double east, double north, double up, List<Pose> poses, Lens lens, Noise noise) {
        double[] normal = new double[6];
        for (Pose pose : poses) {
            CameraFrame frame = new CameraFrame(pose, lens);
            double[] seen = frame.camera(east, north, up);
            if (seen[2] > 0) {
                add(normal, frame, seen[0] / seen[2], seen[1] / seen[2], 1 / seen[2], noise);
            }
        }
        return inverted(normal);
    }

    /**
     * Adds one photo's rows to a normal matrix, kept as ee, en, eu, nn, nu, uu.
     *
     * @param xz place to the right of the optical axis, of its depth
     * @param yz below the axis, of its depth
     * @param perDepth 1 / depth
     */
    static void add(double[] normal, CameraFrame frame, double xz, double yz, double perDepth, Noise noise) {
        double fu = frame.fx * perDepth;
        double fv = frame.fy * perDepth;
        double ue = fu * (frame.rightE - xz * frame.axisE);
        double un = fu * (frame.rightN - xz * frame.axisN);
        double uu = fu * (frame.rightU - xz * frame.axisU);
        double ve = fv * (frame.downE - yz * frame.axisE);
        double vn = fv * (frame.downN - yz * frame.axisN);
        double vu = fv * (frame.downU - yz * frame.axisU);
        double sp = noise.imagePx() * noise.imagePx();
        double se = noise.eastM() * noise.eastM();
        double sn = noise.northM() * noise.northM();
        double sv = noise.verticalM() * noise.verticalM();
        double a = sp + se * ue * ue + sn * un * un + sv * uu * uu;
        double b = se * ue * ve + sn * un * vn + sv * uu * vu;
        double d = sp + se * ve * ve + sn * vn * vn + sv * vu * vu;
        double weight = 1 / (a * d - b * b);
        double wa = d * weight;
        double wb = -b * weight;
        double wd = a * weight;
        double ae = wa * ue + wb * ve;
        double an = wa * un + wb * vn;
        double au = wa * uu + wb * vu;
        double be = wb * ue + wd * ve;
        double bn = wb * un + wd * vn;
        double bu = wb * uu + wd * vu;
        normal[0] += ue * ae + ve * be;
        normal[1] += ue * an + ve * bn;
        normal[2] += ue * au + ve * bu;
        normal[3] += un * an + vn * bn;
        normal[4] += un * au + vn * bu;
        normal[5] += uu * au + vu * bu;
    }

    static Optional<Covariance> inverted(double[] n) {
        double ee = n[3] * n[5] - n[4] * n[4];
        double en = n[2] * n[4] - n[1] * n[5];
        double eu = n[1] * n[4] - n[2] * n[3];
        double determinant = n[0] * ee + n[1] * en + n[2] * eu;
        if (!(determinant > SINGULAR * n[0] * n[3] * n[5]) || !Double.isFinite(determinant)) {
            return Optional.empty();
        }
        return Optional.of(new Covariance(
                ee / determinant,
                en / determinant,
                eu / determinant,
                (n[0] * n[5] - n[2] * n[2]) / determinant,
                (n[1] * n[2] - n[0] * n[4]) / determinant,
                (n[0] * n[3] - n[1] * n[1]) / determinant));
    }
}
