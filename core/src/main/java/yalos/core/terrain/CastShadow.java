package yalos.core.terrain;

import java.util.Arrays;
import java.util.stream.IntStream;
import yalos.core.fault.Patience;

/**
 * Which ground lies in the shadow of other ground, for a sun that is a point, over a plane. Beyond the grid nothing casts a shadow.
 *
 * <p>Exact on the bilinear surface where it has to be: {@link SightLine} from a cell towards the sun, up to the height of the highest ground. Most cells are decided before: the grid is swept away from the sun, line by line, and the
 * height that a cell must have to be lit is carried along, at the least and at the most, between two neighbours in proportion and as much off it as they bend. Only cells between the two are looked at along their rays.
 */
public final class CastShadow {
    /** A surface no higher than this over the ray does not shade. */
    private static final double GRAZING_M = 0.005;

    private final HeightGrid ground;
    private final boolean byColumns;
    private final int lines;
    private final int across;
    private final int towards;
    /** By how many cells across a line the ray goes aside from one line to the next towards the sun. */
    private final double aside;

    private final double dropM;
    /** Heights line after line, as they are swept. */
    private final float[] heights;

    private final boolean[] shaded;
    private final boolean[] doubtful;

    private CastShadow(HeightGrid ground, double azimuthRad, double elevationRad) {
        this.ground = ground;
        double east = Math.sin(azimuthRad) / ground.cellX();
        double south = -Math.cos(azimuthRad) / ground.cellY();
        this.byColumns = Math.abs(east) >= Math.abs(south);
        this.lines = byColumns ? ground.columns() : ground.rows();
        this.across = byColumns ? ground.rows() : ground.columns();
        double along = byColumns ? east : south;
        this.towards = along >= 0 ? 1 : -1;
        this.aside = (byColumns ? south : east) / Math.abs(along);
        this.dropM = Math.tan(elevationRad) / Math.abs(along);
        this.heights = byColumns ? turned(ground) : ground.heights();
        this.shaded = new boolean[ground.columns() * ground.rows()];
        this.doubtful = new boolean[shaded.length];
    }

    /**
     * @param ground heights; not numbers where unknown, which casts none and has none
     * @param azimuthRad of the sun, clockwise from the grid's north
     * @param elevationRad of the sun above the horizon
     * @return for each cell whether it is shaded; all of them when the sun is down
     */
    public static boolean[] of(HeightGrid ground, double azimuthRad, double elevationRad) {
        if (elevationRad <= 0) {
            boolean[] night = new boolean[ground.columns() * ground.rows()];
            Arrays.fill(night, true);
            return night;
        }
        CastShadow cast = new CastShadow(ground, azimuthRad, elevationRad);
        if (Double.isNaN(ground.range().most())) {
            return new boolean[ground.columns() * ground.rows()];
        }
        cast.sweep();
        return cast.looked(azimuthRad, elevationRad);
    }

    /** Columns for rows. */
    private static float[] turned(HeightGrid ground) {
        float[] turned = new float[ground.heights().length];
        for (int row = 0; row < ground.rows(); row++) {
            for (int column = 0; column < ground.columns(); column++) {
                turned[column * ground.rows() + row] = ground.heights()[row * ground.columns() + column];
            }
        }
        return turned;
    }

    /** Index of a cell among those that are swept. */
    private int cell(int line, int at) {
        return line * across + at;
    }

    /** Line by line away from the sun: the least and the greatest height that a cell must have to be lit. */
    private void sweep() {
        double[] least = new double[across];
        double[] most = new double[across];
        double[] leastBefore = new double[across];
        double[] mostBefore = new double[across];
        for (int n = 0; n < lines; n++) {
            Patience.check();
            int line = towards > 0 ? lines - 1 - n : n;
            for (int at = 0; at < across; at++) {
                if (n == 0) {
                    least[at] = Double.NEGATIVE_INFINITY;
                    most[at] = Double.NEGATIVE_INFINITY;
                } else {
                    carry(line + towards, at, leastBefore, mostBefore, least, most);
                }
                decide(cell(line, at), least[at], most[at]);
            }
            double[] spare = leastBefore;
            leastBefore = least;
            least = spare;
            double[] other = mostBefore;
            mostBefore = most;
            most = other;
        }
    }

    /** The heights to be lit at a place of a line, from the line before it towards the sun. */
    private void carry(int sunward, int at, double[] leastBefore, double[] mostBefore, double[] least, double[] most) {
        double from = at + aside;
        int low = (int) Math.floor(from);
        double share = from - low;
        if (low < 0 || low >= across || low + 1 >= across && share > 0) {
            // The ray leaves the grid.
            least[at] = Double.NEGATIVE_INFINITY;
            most[at] = Double.NEGATIVE_INFINITY;
            return;
        }
        int high = share == 0 ? low : low + 1;
        double first = heights[cell(sunward, low)];
        double second = heights[cell(sunward, high)];
        double surface = first + (second - first) * share;
        double carriedLeast = Double.isInfinite(leastBefore[low] + leastBefore[high])
                ? Double.NEGATIVE_INFINITY
                : between(leastBefore, low, high, share) - bend(leastBefore, low, high, share);
        double carriedMost = Double.isInfinite(mostBefore[low] + mostBefore[high])
                ? Math.max(mostBefore[low], mostBefore[high])
                : between(mostBefore, low, high, share) + bend(mostBefore, low, high, share);
        if (Double.isNaN(surface)) {
            least[at] = carriedLeast - dropM;
            most[at] = Math.max(carriedMost, highest(first, second)) - dropM;
            return;
        }
        double bump = bump(sunward, at, low, high);
        least[at] = (carriedLeast > surface ? carriedLeast : surface) - dropM;
        most[at] = Math.max(carriedMost, surface + bump) - dropM;
    }

    private static double highest(double first, double second) {
        return Double.isNaN(first)
                ? Double.isNaN(second) ? Double.NEGATIVE_INFINITY : second
                : Double.isNaN(second) ? first : Math.max(first, second);
    }

    private static double between(double[] heights, int low, int high, double share) {
        double first = heights[low];
        double second = heights[high];
        return first == second ? first : first + (second - first) * share;
    }

    /** By how much heights may stand off the straight line between two neighbours: what they bend at both of them, shared. */
    private static double bend(double[] heights, int low, int high, double share) {
        if (low == high) {
            return 0;
        }
        return share * (1 - share) * (bendAt(heights, low) + bendAt(heights, high));
    }

    private static double bendAt(double[] heights, int at) {
        boolean rim = at == 0
                || at + 1 == heights.length
                || Double.isInfinite(heights[at - 1])
                || Double.isInfinite(heights[at + 1]);
        return rim ? 0 : Math.abs(heights[at - 1] - 2 * heights[at] + heights[at + 1]);
    }

    /** By how much the surface between two lines may stand over the straight line between its ends: a quarter of its twist. */
    private double bump(int sunward, int at, int low, int high) {
        int line = sunward - towards;
        double twist = heights[cell(sunward, high)]
                - heights[cell(sunward, low)]
                - heights[cell(line, high)]
                + heights[cell(line, low)];
        return Double.isNaN(twist) ? Double.POSITIVE_INFINITY : Math.abs(twist) * Math.abs(aside) / 4;
    }

    private void decide(int cell, double least, double most) {
        double z = heights[cell];
        if (Double.isNaN(z)) {
            return;
        }
        shaded[cell] = z + GRAZING_M < least;
        doubtful[cell] = !shaded[cell] && !(z + GRAZING_M >= most) || Double.isNaN(least) || Double.isNaN(most);
    }

    /** The shaded cells, row by row: those in doubt looked at along their rays. */
    private boolean[] looked(double azimuthRad, double elevationRad) {
        double most = ground.range().most();
        SightLine rays = SightLine.forManyRays(ground);
        double rise = Math.tan(elevationRad);
        double east = Math.sin(azimuthRad);
        double north = Math.cos(azimuthRad);
        boolean[] found = new boolean[shaded.length];
        IntStream.range(0, ground.rows()).parallel().forEach(row -> {
            for (int column = 0; column < ground.columns(); column++) {
                int swept = byColumns ? cell(column, row) : cell(row, column);
                int cell = row * ground.columns() + column;
                found[cell] = shaded[swept];
                if (!doubtful[swept]) {
                    continue;
                }
                double z = heights[swept];
                double far = (most - z) / rise;
                double x = ground.x(column);
                double y = ground.y(row);
                // Above the highest ground nothing stands in the way any more.
                found[cell] = far > 0 && !rays.clear(x, y, z, x + far * east, y + far * north, z + far * rise);
            }
        });
        return found;
    }

    /** Share of the cells asked for that are shaded, 0..1; 0 where none is asked for. */
    public static double share(boolean[] shaded, boolean[] asked) {
        int all = 0;
        int dark = 0;
        for (int i = 0; i < shaded.length; i++) {
            all += asked[i] ? 1 : 0;
            dark += asked[i] && shaded[i] ? 1 : 0;
        }
        return all == 0 ? 0 : (double) dark / all;
    }
}
