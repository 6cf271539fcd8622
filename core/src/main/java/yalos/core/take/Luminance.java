package yalos.core.take;

import java.awt.image.BufferedImage;
import java.awt.image.Raster;

/**
 * How bright each pixel of a picture is, 0..255: {@code (19595 R + 38470 G + 7471 B + 32768) >> 16}, the weights of Rec. ITU-R BT.601 in whole numbers.
 *
 * @param level row by row
 */
record Luminance(int width, int height, byte[] level) {

    static Luminance of(BufferedImage image) {
        int width = image.getWidth();
        int height = image.getHeight();
        byte[] level = new byte[width * height];
        Raster raster = image.getRaster();
        if (raster.getNumBands() == 1 && raster.getSampleModel().getSampleSize(0) == 8) {
            raster.getDataElements(0, 0, width, height, level);
            return new Luminance(width, height, level);
        }
        int[] row = new int[width];
        for (int y = 0; y < height; y++) {
            image.getRGB(0, y, width, 1, row, 0, width);
            for (int x = 0; x < width; x++) {
                int rgb = row[x];
                level[y * width + x] = (byte)
                        (19595 * (rgb >> 16 & 0xff) + 38470 * (rgb >> 8 & 0xff) + 7471 * (rgb & 0xff) + 32768 >> 16);
            }
        }
        return new Luminance(width, height, level);
    }

    int at(int x, int y) {
        return level[y * width + x] & 0xff;
    }

    double mean() {
        long sum = 0;
        for (byte one : level) {
            sum += one & 0xff;
        }
        return (double) sum / level.length;
    }

    /** Population variance. */
    double variance() {
        double mean = mean();
        double sum = 0;
        for (byte one : level) {
            double off = (one & 0xff) - mean;
            sum += off * off;
        }
        return sum / level.length;
    }

    /** Share of pixels of a level. */
    double share(int wanted) {
        long count = 0;
        for (byte one : level) {
            count += (one & 0xff) == wanted ? 1 : 0;
        }
        return (double) count / level.length;
    }

    /** Variance of what the kernel 0 1 0 / 1 -4 1 / 0 1 0 answers within the border: how much of the finest detail there is. */
    double laplacianVariance() {
        double sum = 0;
        double squares = 0;
        long count = (long) (width - 2) * (height - 2);
        for (int y = 1; y < height - 1; y++) {
            for (int x = 1; x < width - 1; x++) {
                int answer = at(x, y - 1) + at(x - 1, y) + at(x + 1, y) + at(x, y + 1) - 4 * at(x, y);
                sum += answer;
                squares += (double) answer * answer;
            }
        }
        double mean = sum / count;
        return squares / count - mean * mean;
    }

    /**
     * How alike pixels are that lie some pixels apart in a direction, 1 for all alike: correlation of neighbours over the picture.
     *
     * @param stepX columns to the neighbour
     * @param stepY rows to it
     */
    double likeness(int stepX, int stepY) {
        int fromX = Math.max(0, -stepX);
        int toX = Math.min(width, width - stepX);
        int fromY = Math.max(0, -stepY);
        int toY = Math.min(height, height - stepY);
        double sum = 0;
        double other = 0;
        double squares = 0;
        double others = 0;
        double both = 0;
        // Every other row will do: neighbours say the same.
        int rows = height > 600 ? 2 : 1;
        long count = 0;
        for (int y = fromY; y < toY; y += rows) {
            for (int x = fromX; x < toX; x++) {
                int a = at(x, y);
                int b = at(x + stepX, y + stepY);
                sum += a;
                other += b;
                squares += (double) a * a;
                others += (double) b * b;
                both += (double) a * b;
                count++;
            }
        }
        double covariance = both / count - sum / count * other / count;
        double variance = Math.sqrt(Math.max(0, squares / count - sum / count * sum / count)
                * Math.max(0, others / count - other / count * other / count));
        return variance == 0 ? 1 : covariance / variance;
    }

    /** A part of it. */
    Luminance part(int left, int top, int columns, int rows) {
        byte[] cut = new byte[columns * rows];
        for (int y = 0; y < rows; y++) {
            System.arraycopy(level, (top + y) * width + left, cut, y * columns, columns);
        }
        return new Luminance(columns, rows, cut);
    }
}
