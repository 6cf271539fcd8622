package yalos.core.surface;

import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Location;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Prism;

/**
 * One face of a prism, cut into cells of about a size. Walls: column 0 on the left as seen from outside, row 0 on top. Roof and
 * underside are cut along the longest wall, as seen in plan from above with that wall at the foot: column 0 on the left, row 0 farthest from the wall. What of
 * their rows and columns lies beyond the plan is not known.
 */
public final class PrismFace implements Surface {
    /** What a face is. */
    public enum Kind {
        WALL("wall"),
        ROOF("roof"),
        UNDERSIDE("underside");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }
    }

    private final Prism prism;
    private final Kind kind;
    private final int columns;
    private final int rows;
    private final double wideM;
    private final double highM;
    /** Of walls the corner on the left, of plates the corner of the frame at column 0 and the last row. */
    private final PlanePoint corner;

    private final double sin;
    private final double cos;
    private final IndexedPointInAreaLocator plan;

    private PrismFace(Prism prism, Kind kind, int wall, double cellM) {
        this.prism = prism;
        this.kind = kind;
        double along = prism.corner(wall).bearingRad(prism.corner(wall + 1));
        sin = Math.sin(along);
        cos = Math.cos(along);
        if (kind == Kind.WALL) {
            plan = null;
            corner = prism.corner(wall);
            wideM = prism.wallM(wall);
            highM = prism.topM() - prism.bottomM();
        } else {
            plan = new IndexedPointInAreaLocator(prism.plan());
            double[] frame = frame(prism, wall);
            corner = prism.corner(wall).moved(along, frame[0]).moved(along - Math.PI / 2, frame[2]);
            wideM = frame[1] - frame[0];
            highM = frame[3] - frame[2];
        }
        columns = parts(wideM, cellM);
        rows = parts(highM, cellM);
    }

    /** Least and greatest place along a wall, and to its left, of all corners. */
    private double[] frame(Prism of, int wall) {
        double[] frame = {0, 0, 0, 0};
        PlanePoint from = of.corner(wall);
        for (PlanePoint at : of.ring()) {
            double e = at.xM() - from.xM();
            double n = at.yM() - from.yM();
            double along = e * sin + n * cos;
            double left = n * sin - e * cos;
            frame[0] = Math.min(frame[0], along);
            frame[1] = Math.max(frame[1], along);
            frame[2] = Math.min(frame[2], left);
            frame[3] = Math.max(frame[3], left);
        }
        return frame;
    }

    private static int parts(double lengthM, double cellM) {
        return (int) Math.max(1, Math.round(lengthM / cellM));
    }

    /** A wall, by the corner at which it begins. */
    public static PrismFace wall(Prism prism, int wall, double cellM) {
        return new PrismFace(prism, Kind.WALL, wall, cellM);
    }

    /** The top, seen from above. */
    public static PrismFace roof(Prism prism, double cellM) {
        return new PrismFace(prism, Kind.ROOF, prism.longest(), cellM);
    }

    /** The underside, seen from below. */
    public static PrismFace underside(Prism prism, double cellM) {
        return new PrismFace(prism, Kind.UNDERSIDE, prism.longest(), cellM);
    }

    public Prism prism() {
        return prism;
    }

    public Kind kind() {
        return kind;
    }

    /** Length from its first column to its last, in metres. */
    public double wideM() {
        return wideM;
    }

    /** Length from its first row to its last, in metres. */
    public double highM() {
        return highM;
    }

    /** Area of one cell in square metres. */
    public double cellM2() {
        return wideM / columns * (highM / rows);
    }

    @Override
    public int columns() {
        return columns;
    }

    @Override
    public int rows() {
        return rows;
    }

    @Override
    public void place(int column, int row, double[] into) {
        at((column + 0.5) / columns * wideM, (row + 0.5) / rows * highM, into);
    }

    /**
     * A place of the face.
     *
     * @param alongM from its left edge
     * @param downM from its upper edge
     * @param into x, y and the height; not a number as height beyond the plan
     */
    public void at(double alongM, double downM, double[] into) {
        double left = kind == Kind.WALL ? 0 : highM - downM;
        into[0] = corner.xM() + alongM * sin - left * cos;
        into[1] = corner.yM() + alongM * cos + left * sin;
        into[2] = switch (kind) {
            case WALL -> prism.topM() - downM;
            case ROOF -> held(into, prism.topM());
            case UNDERSIDE -> held(into, prism.bottomM());
        };
    }

    private double held(double[] at, double upM) {
        return plan.locate(new Coordinate(at[0], at[1])) == Location.EXTERIOR ? Double.NaN : upM;
    }

    @Override
    public void normal(int column, int row, double[] into) {
        into[0] = kind == Kind.WALL ? cos : 0;
        into[1] = kind == Kind.WALL ? -sin : 0;
        into[2] = kind == Kind.WALL ? 0 : kind == Kind.ROOF ? 1 : -1;
    }

    @Override
    public boolean plane() {
        return true;
    }

    @Override
    public boolean oneSided() {
        return true;
    }
}
