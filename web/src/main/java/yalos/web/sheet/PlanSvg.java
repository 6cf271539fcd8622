package yalos.web.sheet;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import yalos.core.block.LocalPlane;
import yalos.core.flight.Line;
import yalos.core.flight.Way;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.units.RoundFigures;

/**
 * The plan sheet drawn for paper: paths for an SVG of {@value #WIDTH} by {@value #HEIGHT}, north of the grid up.
 *
 * @param outline of the block
 * @param strips all in one path
 * @param links all in one path
 * @param launch x and y of the launch point; empty when there is none
 * @param ticks of the grid along the edges
 * @param scaleBar parts of the scale bar
 * @param frame where the plane lies on the paper
 */
public record PlanSvg(
        String outline,
        String strips,
        String links,
        double[] launch,
        List<Tick> ticks,
        List<Part> scaleBar,
        Frame frame) {
    public static final int WIDTH = 960;
    public static final int HEIGHT = 600;
    private static final double EDGE = 40;
    private static final double TICK_EVERY = 150;
    private static final double BAR_PART = 70;

    /** Pixels for a metre of the plane, and the place in the middle of the paper. */
    public record Frame(double scale, double middleX, double middleY) {}

    /** Pixels from the left edge to a place of the plane. */
    public double x(double planeX) {
        return WIDTH / 2.0 + (planeX - frame.middleX()) * frame.scale();
    }

    /** Pixels from the upper edge to a place of the plane. */
    public double y(double planeY) {
        return HEIGHT / 2.0 - (planeY - frame.middleY()) * frame.scale();
    }

    /** A tick with its label; along the lower edge or the left one. */
    public record Tick(boolean below, double at, String label) {}

    /** A part of the scale bar, filled or not, with the figure at its start. */
    public record Part(double x, double width, boolean filled, String label) {}

    /**
     * @param rulerM metres in the unit of the scale bar
     * @param rulerUnit its symbol
     */
    public static PlanSvg of(BlockPlan plan, double rulerM, String rulerUnit) {
        return new Drawing(plan).svg(rulerM, rulerUnit);
    }

    /** Places plane metres on the paper. */
    private static final class Drawing {
        private final BlockPlan plan;
        private final double scale;
        private final double middleX;
        private final double middleY;

        Drawing(BlockPlan plan) {
            this.plan = plan;
            Bounds bounds = plan.covered().bounds();
            for (Line line : plan.flight().lines()) {
                bounds = bounds.with(line.from());
                bounds = bounds.with(line.to());
            }
            middleX = bounds.middle().xM();
            middleY = bounds.middle().yM();
            scale = Math.min((WIDTH - 2 * EDGE) / bounds.width(), (HEIGHT - 2 * EDGE) / bounds.height());
        }

        private double x(double planeX) {
            return WIDTH / 2.0 + (planeX - middleX) * scale;
        }

        private double y(double planeY) {
            return HEIGHT / 2.0 - (planeY - middleY) * scale;
        }

        PlanSvg svg(double rulerM, String rulerUnit) {
            StringBuilder outline = new StringBuilder();
            for (double[] ring : plan.block().rings()) {
                for (int i = 0; i < ring.length; i += 2) {
                    outline.append(point(i == 0 ? "M" : "L", ring[i], ring[i + 1]));
                }
                outline.append("Z");
            }
            StringBuilder strips = new StringBuilder();
            StringBuilder links = new StringBuilder();
            for (Way way : plan.flight().ways()) {
                StringBuilder path = way instanceof Line ? strips : links;
                String command = "M";
                for (PlanePoint at : way.shape()) {
                    path.append(point(command, at.xM(), at.yM()));
                    command = "L";
                }
            }
            double[] launch = plan.flight()
                    .launch()
                    .map(at -> new double[] {x(at.xM()), y(at.yM())})
                    .filter(at -> at[0] > 0 && at[0] < WIDTH && at[1] > 0 && at[1] < HEIGHT)
                    .orElse(new double[0]);
            return new PlanSvg(
                    outline.toString(),
                    strips.toString(),
                    links.toString(),
                    launch,
                    ticks(),
                    bar(rulerM, rulerUnit),
                    new Frame(scale, middleX, middleY));
        }

        private String point(String command, double planeX, double planeY) {
            return String.format(Locale.ROOT, "%s%.1f %.1f", command, x(planeX), y(planeY));
        }

        private List<Tick> ticks() {
            LocalPlane plane = plan.block().plane();
            double left = middleX - WIDTH / 2.0 / scale;
            double low = middleY - HEIGHT / 2.0 / scale;
            EastNorth corner = plane.toGrid(left, low);
            double unitsPerPixel = 1 / scale / plane.metresPerUnit();
            double step = RoundFigures.from(unitsPerPixel * TICK_EVERY);
            List<Tick> ticks = new ArrayList<>();
            for (double e = Math.ceil(corner.east() / step) * step;
                    e < corner.east() + WIDTH * unitsPerPixel;
                    e += step) {
                ticks.add(new Tick(true, (e - corner.east()) / unitsPerPixel, label(e)));
            }
            for (double n = Math.ceil(corner.north() / step) * step;
                    n < corner.north() + HEIGHT * unitsPerPixel;
                    n += step) {
                ticks.add(new Tick(false, HEIGHT - (n - corner.north()) / unitsPerPixel, label(n)));
            }
            return ticks;
        }

        private List<Part> bar(double rulerM, String rulerUnit) {
            double part = RoundFigures.from(BAR_PART / scale / rulerM);
            double width = part * rulerM * scale;
            List<Part> parts = new ArrayList<>();
            for (int i = 0; i < 3; i++) {
                parts.add(new Part(i * width, width, i % 2 == 0, label(i * part)));
            }
            parts.add(new Part(3 * width, 0, false, label(3 * part) + " " + rulerUnit));
            return parts;
        }

        private static String label(double figure) {
            return String.format(Locale.ROOT, "%,.0f", figure).replace(',', '\u2009');
        }
    }
}
