package yalos.web.sheet;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Range;
import yalos.core.terrain.Contours;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.Relief;

/** The ground as the sheet draws it: tinted light and shade, contours, spot heights. Positions in grid units. */
public final class GroundSheet {
    private static final int MOST_PICTURE_CELLS = 500_000;
    private static final int MOST_CONTOUR_CELLS = 90_000;
    private static final int SPOTS = 5;
    private static final int TENTHS = 10;
    private static final double SUN_AZIMUTH = Math.toRadians(315);
    private static final double SUN_ALTITUDE = Math.toRadians(45);
    /** Low ground to high ground, earth colours that stay quiet under ink. */
    private static final int[][] TINTS = {{217, 210, 192}, {228, 221, 203}, {236, 229, 214}, {243, 238, 227}};

    private GroundSheet() {}

    /**
     * A line of equal height; every fifth is an index line and carries its figure.
     *
     * @param steps east and north of its first place, then from each place to the next, in tenths of a grid unit: a third of what the places
     *     themselves would take
     */
    record ContourLine(double level, boolean index, int[] steps) {}

    /** A height written beside its place. */
    record SpotHeight(double east, double north, double height) {}

    /** Everything drawn as lines and figures. */
    record Ground(double step, List<ContourLine> contours, List<SpotHeight> spots) {}

    private static HeightGrid atMost(HeightGrid grid, int cells) {
        double factor = Math.sqrt((double) grid.columns() * grid.rows() / cells);
        return factor <= 1 ? grid : grid.resampled(grid.cellX() * factor);
    }

    /** One pixel a cell, north up; transparent where nothing is known. */
    public static byte[] picture(HeightGrid whole) {
        HeightGrid grid = atMost(whole, MOST_PICTURE_CELLS);
        Relief relief = new Relief(grid);
        Range range = grid.range();
        BufferedImage image = new BufferedImage(grid.columns(), grid.rows(), BufferedImage.TYPE_INT_ARGB);
        for (int row = 0; row < grid.rows(); row++) {
            for (int column = 0; column < grid.columns(); column++) {
                float height = grid.cell(column, row);
                if (!Float.isNaN(height)) {
                    image.setRGB(
                            column,
                            row,
                            colour(height, range, relief.hillshade(column, row, SUN_AZIMUTH, SUN_ALTITUDE, 1.6)));
                }
            }
        }
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static int colour(double height, Range range, double light) {
        double share =
                range.most() > range.least() ? (height - range.least()) / range.length() * (TINTS.length - 1) : 0;
        int low = (int) Math.min(TINTS.length - 2, Math.max(0, share));
        double mix = share - low;
        double shade = Double.isNaN(light) ? 1 : 0.72 + 0.34 * light / 255;
        int argb = 0xff;
        for (int band = 0; band < 3; band++) {
            double tint = TINTS[low][band] + (TINTS[low + 1][band] - TINTS[low][band]) * mix;
            argb = argb << 8 | (int) Math.max(0, Math.min(255, Math.round(tint * shade)));
        }
        return argb;
    }

    /**
     * @param inUnit metres in the unit heights are shown in
     */
    public static Ground lines(HeightGrid whole, LocalPlane plane, double inUnit) {
        HeightGrid metric = atMost(whole, MOST_CONTOUR_CELLS);
        HeightGrid grid = scaled(metric, inUnit);
        double step = Contours.stepM(grid);
        List<ContourLine> lines = new ArrayList<>();
        for (Contours.Line line : Contours.of(grid, step)) {
            double[] points = line.points();
            if (points.length >= 8) {
                lines.add(
                        new ContourLine(line.levelM(), Math.rint(line.levelM() / step) % 5 == 0, steps(points, plane)));
            }
        }
        return new Ground(step, lines, spots(grid, plane));
    }

    private static HeightGrid scaled(HeightGrid grid, double inUnit) {
        float[] heights = grid.heights().clone();
        for (int i = 0; i < heights.length; i++) {
            heights[i] /= (float) inUnit;
        }
        return new HeightGrid(
                grid.west(), grid.north(), grid.cellX(), grid.cellY(), grid.columns(), grid.rows(), heights);
    }

    private static int[] steps(double[] points, LocalPlane plane) {
        int[] steps = new int[points.length];
        int east = 0;
        int north = 0;
        for (int i = 0; i < points.length; i += 2) {
            EastNorth at = plane.toGrid(points[i], points[i + 1]);
            int eastNow = Math.toIntExact(Math.round(at.east() * TENTHS));
            int northNow = Math.toIntExact(Math.round(at.north() * TENTHS));
            steps[i] = eastNow - east;
            steps[i + 1] = northNow - north;
            east = eastNow;
            north = northNow;
        }
        return steps;
    }

    /** The highest places that are not near each other, and the lowest. */
    private static List<SpotHeight> spots(HeightGrid grid, LocalPlane plane) {
        List<int[]> chosen = new ArrayList<>();
        double apart = Math.max(grid.columns(), grid.rows()) / 4.0;
        for (int i = 0; i < SPOTS; i++) {
            int best = -1;
            for (int at = 0; at < grid.heights().length; at++) {
                float height = grid.heights()[at];
                boolean better = !Float.isNaN(height)
                        && (best < 0
                                || (i == SPOTS - 1 ? height < grid.heights()[best] : height > grid.heights()[best]));
                if (better && farFrom(chosen, at % grid.columns(), at / grid.columns(), apart)) {
                    best = at;
                }
            }
            if (best >= 0) {
                chosen.add(new int[] {best % grid.columns(), best / grid.columns()});
            }
        }
        return chosen.stream()
                .map(cell -> {
                    EastNorth at = plane.toGrid(grid.x(cell[0]), grid.y(cell[1]));
                    return new SpotHeight(at.east(), at.north(), Math.round(grid.cell(cell[0], cell[1])));
                })
                .toList();
    }

    private static boolean farFrom(List<int[]> chosen, int column, int row, double apart) {
        return chosen.stream().allMatch(cell -> Math.hypot(cell[0] - column, cell[1] - row) > apart);
    }
}
