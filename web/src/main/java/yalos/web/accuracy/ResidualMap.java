package yalos.web.accuracy;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.springframework.web.util.HtmlUtils;
import yalos.core.accuracy.Residual;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.units.UnitChoice;
import yalos.web.accuracy.AccuracyDesk.Found;
import yalos.web.accuracy.AccuracyDesk.Kept;
import yalos.web.block.OpenBlock;
import yalos.web.control.Shown;

/** Residuals over the outline as a drawing for paper: an arrow level, a stroke up or down, one scale for all with a legend. */
final class ResidualMap {
    private static final double WIDE = 640;
    private static final double HIGH = 420;
    private static final double PAD = 46;
    private static final double LONGEST_PX = 44;

    private ResidualMap() {}

    /** By how much arrows are longer than true: the longest residual has a fixed length on paper; metres to one pixel. */
    static double metresPerPx(List<Residual> residuals) {
        double most = residuals.stream()
                .mapToDouble(one ->
                        Math.max(one.levelM().orElse(0), Math.abs(one.upM().orElse(0))))
                .max()
                .orElse(0);
        return Math.max(1e-6, most / LONGEST_PX);
    }

    /** Nothing where no residual has a place. */
    static String svg(OpenBlock block, Found found, UnitChoice units) {
        List<Residual> placed = found.kept().stream()
                .filter(one -> one.row().leftOut().isEmpty())
                .map(Kept::residual)
                .filter(one -> one.at().isPresent())
                .toList();
        if (placed.isEmpty() || block.facts().outline().isEmpty()) {
            return "";
        }
        LocalPlane plane = LocalPlane.at(
                block.facts().grid().orElseThrow(), block.facts().outline().middle());
        List<PlanePoint> corners = new ArrayList<>();
        for (LonLat corner : block.facts().outline().corners()) {
            corners.add(plane.toPlane(corner));
        }
        placed.forEach(one -> corners.add(one.at().orElseThrow()));
        double west = corners.stream().mapToDouble(PlanePoint::xM).min().orElse(0);
        double east = corners.stream().mapToDouble(PlanePoint::xM).max().orElse(1);
        double south = corners.stream().mapToDouble(PlanePoint::yM).min().orElse(0);
        double north = corners.stream().mapToDouble(PlanePoint::yM).max().orElse(1);
        double scale =
                Math.min((WIDE - 2 * PAD) / Math.max(1, east - west), (HIGH - 2 * PAD) / Math.max(1, north - south));
        Drawing drawing = new Drawing(west, north, scale, metresPerPx(placed));
        StringBuilder ring = new StringBuilder();
        for (LonLat corner : block.facts().outline().corners()) {
            PlanePoint at = plane.toPlane(corner);
            ring.append(String.format(
                    Locale.ROOT, "%s%.1f %.1f", ring.isEmpty() ? "M" : "L", drawing.x(at), drawing.y(at)));
        }
        drawing.add(
                "<path d=\"%sZ\" fill=\"none\" stroke=\"#000\" stroke-width=\"1.2\" stroke-dasharray=\"9 3 2 3\"/>",
                ring);
        placed.forEach(drawing::residual);
        drawing.legend(units);
        return drawing.done();
    }

    /** Draws one. */
    private static final class Drawing {
        private final StringBuilder marks = new StringBuilder();
        private final double west;
        private final double north;
        private final double scale;
        private final double metresPerPx;

        Drawing(double west, double north, double scale, double metresPerPx) {
            this.west = west;
            this.north = north;
            this.scale = scale;
            this.metresPerPx = metresPerPx;
        }

        double x(PlanePoint at) {
            return PAD + (at.xM() - west) * scale;
        }

        double y(PlanePoint at) {
            return PAD + (north - at.yM()) * scale;
        }

        void add(String format, Object... parts) {
            marks.append(String.format(Locale.ROOT, format, parts));
        }

        void residual(Residual one) {
            double x = x(one.at().orElseThrow());
            double y = y(one.at().orElseThrow());
            if (one.eastM().isPresent()) {
                arrow(
                        x,
                        y,
                        one.eastM().getAsDouble() / metresPerPx,
                        -one.northM().getAsDouble() / metresPerPx);
            }
            if (one.upM().isPresent()) {
                double up = -one.upM().getAsDouble() / metresPerPx;
                add(
                        "<path d=\"M%.1f %.1fV%.1f\" stroke=\"#8a5a00\" stroke-width=\"3\" fill=\"none\"/>",
                        x + 5, y, y + up);
            }
            add("<circle cx=\"%.1f\" cy=\"%.1f\" r=\"2.6\" fill=\"#fff\" stroke=\"#000\"/>", x, y);
            add(
                    "<text x=\"%.1f\" y=\"%.1f\" font-size=\"11\">%s</text>",
                    x + 8, y + 12, HtmlUtils.htmlEscape(one.point()));
        }

        private void arrow(double x, double y, double dx, double dy) {
            double length = Math.hypot(dx, dy);
            if (length < 0.5) {
                return;
            }
            double ux = dx / length;
            double uy = dy / length;
            add(
                    "<path d=\"M%.1f %.1fl%.1f %.1fm%.1f %.1fl%.1f %.1fl%.1f %.1f\" stroke=\"#1f5673\" stroke-width=\"1.8\" fill=\"none\"/>",
                    x,
                    y,
                    dx,
                    dy,
                    -ux * 5 - uy * 3,
                    -uy * 5 + ux * 3,
                    ux * 5 + uy * 3,
                    uy * 5 - ux * 3,
                    -ux * 5 + uy * 3,
                    -uy * 5 - ux * 3);
        }

        void legend(UnitChoice units) {
            double metres = metresPerPx * LONGEST_PX / 2;
            double x = WIDE - 190;
            double y = HIGH - 22;
            arrow(x, y, LONGEST_PX / 2, 0);
            add(
                    "<text x=\"%.1f\" y=\"%.1f\" font-size=\"11\">%s level</text>",
                    x + 30, y + 4, Shown.accuracy(units, metres));
            add("<path d=\"M%.1f %.1fv%.1f\" stroke=\"#8a5a00\" stroke-width=\"3\"/>", x + 104, y + 8, -LONGEST_PX / 2);
            add("<text x=\"%.1f\" y=\"%.1f\" font-size=\"11\">too high</text>", x + 112, y + 4);
        }

        String done() {
            return String.format(
                    Locale.ROOT,
                    "<svg xmlns=\"http://www.w3.org/2000/svg\" class=\"map\" viewBox=\"0 0 %.0f %.0f\" width=\"%.0f\" height=\"%.0f\" font-family=\"'Source Sans 3'\" role=\"img\" aria-label=\"Residuals over the block\">%s</svg>",
                    WIDE,
                    HIGH,
                    WIDE,
                    HIGH,
                    marks);
        }
    }
}
