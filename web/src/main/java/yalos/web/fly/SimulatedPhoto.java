package yalos.web.fly;

import java.awt.image.BufferedImage;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.geodesy.PlanePoint;
import yalos.core.rehearsal.Shot;
import yalos.core.terrain.HeightGrid;

/**
 * A picture of the ground as a simulated camera saw it: relief in the light of the afternoon, the site's own picture where there is one, a texture that lies still on the ground, targets where points are, and the
 * flaws of its shot. So neighbouring photos show the same ground.
 *
 * <p>Pixels are found on the ground by a mesh of rays, between which they lie in proportion: within a third of a pixel on even ground.
 */
final class SimulatedPhoto {
    private static final int WIDE = 640;
    private static final int MESH = 16;
    private static final int LOOKS = 4;
    private static final double TARGET_LEAST_PX = 3;
    private static final double SUN_X = -0.55;
    private static final double SUN_Y = 0.35;

    private static final double FINE_SHARE = 0.35;

    private final HeightGrid ground;
    private final Optional<Site> site;
    private final List<PlanePoint> targets;
    private final double targetM;
    private final int wide;

    /**
     * The site's own picture over the block's plane.
     *
     * @param west of its first pixel's edge, in the plane
     * @param north of it
     * @param cellM side of a pixel
     */
    record Site(BufferedImage image, double west, double north, double cellM) {
        /** The colour at a place; -1 where the picture knows nothing. */
        int at(double east, double northing) {
            int column = (int) Math.floor((east - west) / cellM);
            int row = (int) Math.floor((north - northing) / cellM);
            if (column < 0 || row < 0 || column >= image.getWidth() || row >= image.getHeight()) {
                return -1;
            }
            int argb = image.getRGB(column, row);
            return argb >>> 24 == 0 ? -1 : argb & 0xffffff;
        }
    }

    /**
     * @param targets crosses that lie on the ground
     * @param targetM their side
     */
    SimulatedPhoto(HeightGrid ground, Optional<Site> site, List<PlanePoint> targets, double targetM) {
        this(ground, site, targets, targetM, WIDE);
    }

    private SimulatedPhoto(HeightGrid ground, Optional<Site> site, List<PlanePoint> targets, double targetM, int wide) {
        this.wide = wide;
        this.ground = ground;
        this.site = site;
        this.targets = List.copyOf(targets);
        this.targetM = targetM;
    }

    /** The same with pictures of half the size, painted in a quarter of the time. */
    SimulatedPhoto small() {
        return new SimulatedPhoto(ground, site, targets, targetM, wide / 2);
    }

    BufferedImage of(Shot shot, Lens lens) {
        double scale = (double) wide / lens.width();
        int high = (int) Math.round(lens.height() * scale);
        int columns = wide / MESH + 2;
        int rows = high / MESH + 2;
        double[] xs = new double[columns * rows];
        double[] ys = new double[columns * rows];
        double[] ups = new double[columns * rows];
        View view = new View(lens, shot.truly());
        double below = height(shot.truly().eastM(), shot.truly().northM(), 0);
        for (int row = 0; row < rows; row++) {
            for (int column = 0; column < columns; column++) {
                int at = row * columns + column;
                double[] hit = hit(view, shot.truly(), column * MESH / scale, row * MESH / scale, below);
                xs[at] = hit[0];
                ys[at] = hit[1];
                ups[at] = hit[2];
            }
        }
        BufferedImage image = new BufferedImage(wide, high, BufferedImage.TYPE_INT_RGB);
        double light = Math.pow(2, shot.stops());
        double gsd = below < shot.truly().upM() ? (shot.truly().upM() - below) / lens.fx() / scale : 0.1;
        int[] pixels = new int[wide * high];
        Random grain = new Random(shot.number() * 7919L);
        for (int y = 0; y < high; y++) {
            for (int x = 0; x < wide; x++) {
                int column = x / MESH;
                int row = y / MESH;
                double u = (x - column * MESH) / (double) MESH;
                double v = (y - row * MESH) / (double) MESH;
                int at = row * columns + column;
                double east = between(xs, at, columns, u, v);
                double north = between(ys, at, columns, u, v);
                pixels[y * wide + x] = colour(east, north, gsd, light, grain.nextInt(9) - 4);
            }
        }
        if (shot.flaws().contains(Shot.Flaw.BLURRED)) {
            pixels = smeared(pixels, wide, high, Math.max(5, (int) Math.round(3 * shot.blurPx())));
        }
        image.setRGB(0, 0, wide, high, pixels, 0, wide);
        return image;
    }

    private static double between(double[] of, int at, int columns, double u, double v) {
        return (of[at] * (1 - u) + of[at + 1] * u) * (1 - v)
                + (of[at + columns] * (1 - u) + of[at + columns + 1] * u) * v;
    }

    private double height(double east, double north, double otherwise) {
        double up = ground.at(east, north);
        return Double.isNaN(up) ? otherwise : up;
    }

    /** Where a ray meets the ground, looked at a few times over. */
    private double[] hit(View view, Pose pose, double u, double v, double below) {
        double up = below;
        double[] hit = {pose.eastM(), pose.northM(), below};
        for (int i = 0; i < LOOKS; i++) {
            View.GroundHit found = view.ground(u, v, up).orElse(null);
            if (found == null) {
                return hit;
            }
            hit = new double[] {found.eastM(), found.northM(), up};
            up = height(found.eastM(), found.northM(), up);
        }
        return hit;
    }

    private int colour(double east, double north, double gsd, double light, int grain) {
        for (PlanePoint target : targets) {
            double dx = east - target.xM();
            double dy = north - target.yM();
            double half = Math.max(targetM, TARGET_LEAST_PX * gsd) / 2;
            if (Math.abs(dx) < half && Math.abs(dy) < half) {
                return lit(dx * dy > 0 ? 235 : 20, dx * dy > 0 ? 235 : 20, dx * dy > 0 ? 235 : 20, light, grain);
            }
        }
        double step = Math.max(1, gsd);
        double slopeX = (height(east + step, north, 0) - height(east - step, north, 0)) / (2 * step);
        double slopeY = (height(east, north + step, 0) - height(east, north - step, 0)) / (2 * step);
        double shade =
                0.86 + 0.6 * (slopeX * -SUN_X + slopeY * -SUN_Y) / Math.sqrt(1 + slopeX * slopeX + slopeY * slopeY);
        double texture = 0;
        double strength = 0.5;
        double cell = 23;
        for (int octave = 0; octave < 7 && cell > gsd; octave++) {
            texture += strength * noise(east / cell, north / cell, octave);
            cell /= 2.3;
            strength *= 0.78;
        }
        int known = site.map(picture -> picture.at(east, north)).orElse(-1);
        if (known >= 0) {
            // What the picture is too coarse for, the texture adds.
            double fine = Math.max(0.2, 1 + FINE_SHARE * texture);
            return lit((known >> 16 & 0xff) * fine, (known >> 8 & 0xff) * fine, (known & 0xff) * fine, light, grain);
        }
        double lightness = Math.max(0.15, shade + 0.42 * texture);
        double green = 0.5 + 0.5 * noise(east / 31, north / 31, 11);
        return lit(
                lightness * (126 + 34 * (1 - green)),
                lightness * (130 + 16 * green),
                lightness * (86 - 14 * green),
                light,
                grain);
    }

    private static int lit(double red, double green, double blue, double light, int grain) {
        return byteOf(red * light + grain) << 16 | byteOf(green * light + grain) << 8 | byteOf(blue * light + grain);
    }

    private static int byteOf(double value) {
        return (int) Math.max(0, Math.min(255, Math.round(value)));
    }

    /** Smooth noise between -1 and 1 that is the same at a place for ever. */
    private static double noise(double x, double y, int octave) {
        double floorX = Math.floor(x);
        double floorY = Math.floor(y);
        double u = smooth(x - floorX);
        double v = smooth(y - floorY);
        long i = (long) floorX;
        long j = (long) floorY;
        double low = hash(i, j, octave) * (1 - u) + hash(i + 1, j, octave) * u;
        double up = hash(i, j + 1, octave) * (1 - u) + hash(i + 1, j + 1, octave) * u;
        return low * (1 - v) + up * v;
    }

    private static double smooth(double t) {
        return t * t * (3 - 2 * t);
    }

    private static double hash(long i, long j, int octave) {
        long mixed = i * 0x9E3779B97F4A7C15L ^ j * 0xC2B2AE3D27D4EB4FL ^ octave * 0x165667B19E3779F9L;
        mixed ^= mixed >>> 31;
        mixed *= 0xBF58476D1CE4E5B9L;
        mixed ^= mixed >>> 29;
        return (mixed >>> 11) / (double) (1L << 52) - 1;
    }

    /** Moved while it was exposed: the mean over so many pixels along the side that flies ahead. */
    private static int[] smeared(int[] pixels, int wide, int high, int over) {
        int[] out = new int[pixels.length];
        for (int x = 0; x < wide; x++) {
            for (int y = 0; y < high; y++) {
                int red = 0;
                int green = 0;
                int blue = 0;
                int count = 0;
                for (int k = Math.max(0, y - over / 2); k <= Math.min(high - 1, y + over / 2); k++) {
                    int pixel = pixels[k * wide + x];
                    red += pixel >> 16 & 0xff;
                    green += pixel >> 8 & 0xff;
                    blue += pixel & 0xff;
                    count++;
                }
                out[y * wide + x] = red / count << 16 | green / count << 8 | blue / count;
            }
        }
        return out;
    }
}
