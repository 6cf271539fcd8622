package yalos.core.surface;

import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Solid;

/**
 * One face of a solid, cut into cells of about a size. Walls: column 0 on the left as seen from outside, row 0 on top. Top and
 * underside: row 0 at the front end, column 0 at the left side, both as seen in plan from above.
 *
 * @param solid whose face it is
 * @param side which one
 * @param columns of equal width
 * @param rows of equal height
 */
public record Face(Solid solid, Side side, int columns, int rows) implements Surface {
    /** The faces of a solid; front is the end of its axis. */
    public enum Side {
        FRONT,
        BACK,
        RIGHT,
        LEFT,
        TOP,
        UNDERSIDE;

        boolean wall() {
            return this != TOP && this != UNDERSIDE;
        }
    }

    /** A face in cells whose sides come as near to a size as equal parts allow. */
    public static Face of(Solid solid, Side side, double cellM) {
        double wide = side == Side.FRONT || side == Side.BACK || !side.wall() ? solid.widthM() : solid.lengthM();
        double high = side.wall() ? solid.topM() - solid.bottomM() : solid.lengthM();
        return new Face(solid, side, parts(wide, cellM), parts(high, cellM));
    }

    private static int parts(double lengthM, double cellM) {
        return (int) Math.max(1, Math.round(lengthM / cellM));
    }

    @Override
    public void place(int column, int row, double[] into) {
        double across = (column + 0.5) / columns - 0.5;
        double down = (row + 0.5) / rows;
        double along = 0;
        double aside = 0;
        double up = solid.topM() - down * (solid.topM() - solid.bottomM());
        switch (side) {
            case FRONT -> {
                along = solid.lengthM() / 2;
                aside = -across * solid.widthM();
            }
            case BACK -> {
                along = -solid.lengthM() / 2;
                aside = across * solid.widthM();
            }
            case RIGHT -> {
                aside = solid.widthM() / 2;
                along = across * solid.lengthM();
            }
            case LEFT -> {
                aside = -solid.widthM() / 2;
                along = -across * solid.lengthM();
            }
            case TOP, UNDERSIDE -> {
                along = (0.5 - down) * solid.lengthM();
                aside = across * solid.widthM();
                up = side == Side.TOP ? solid.topM() : solid.bottomM();
            }
        }
        PlanePoint at = solid.middle().moved(solid.axisRad(), along).moved(solid.axisRad() + Math.PI / 2, aside);
        into[0] = at.xM();
        into[1] = at.yM();
        into[2] = up;
    }

    @Override
    public void normal(int column, int row, double[] into) {
        double sin = Math.sin(solid.axisRad());
        double cos = Math.cos(solid.axisRad());
        double sign = side == Side.BACK || side == Side.LEFT || side == Side.UNDERSIDE ? -1 : 1;
        boolean ends = side == Side.FRONT || side == Side.BACK;
        into[0] = !side.wall() ? 0 : sign * (ends ? sin : cos);
        into[1] = !side.wall() ? 0 : sign * (ends ? cos : -sin);
        into[2] = side.wall() ? 0 : sign;
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
