package yalos.web.jobs;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.units.RoundFigures;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.store.BlockFacts;

/**
 * All blocks of a job on one sheet, drawn on the server: outlines, their numbers in the order flown, launch points, a scale bar, north up.
 *
 * @param shapes one for each block with an outline
 * @param launches x and y of the launch points, each once
 * @param scaleWidth length of the scale bar in units of the drawing
 * @param scaleText what it stands for
 */
record JobSheet(List<Shape> shapes, List<double[]> launches, double scaleWidth, String scaleText) {
    static final double WIDTH = 900;
    static final double HEIGHT = 420;
    private static final double EDGE = 40;

    /** A block: its number in the order flown, where that is written, its outline and the axis of a corridor as path data. */
    record Shape(int number, String name, String path, String axis, double x, double y) {}

    /** A block to be drawn. */
    record Listed(int number, String name, BlockFacts facts) {}

    /** The sheet; empty while no block has an outline. */
    static Optional<JobSheet> of(List<Listed> blocks, UnitChoice units) {
        List<Listed> drawn = blocks.stream()
                .filter(block -> !block.facts().outline().isEmpty())
                .toList();
        return drawn.isEmpty() ? Optional.empty() : Optional.of(new Drawing(drawn, units).sheet());
    }

    private static final class Drawing {
        private final List<Listed> blocks;
        private final UnitChoice units;
        private final LocalPlane plane;
        private double scale;
        private double west = Double.POSITIVE_INFINITY;
        private double east = Double.NEGATIVE_INFINITY;
        private double south = Double.POSITIVE_INFINITY;
        private double north = Double.NEGATIVE_INFINITY;

        Drawing(List<Listed> blocks, UnitChoice units) {
            this.blocks = blocks;
            this.units = units;
            LonLat middle = blocks.get(0).facts().outline().middle();
            this.plane = LocalPlane.at(Grid.utmAt(middle), middle);
        }

        JobSheet sheet() {
            for (Listed block : blocks) {
                block.facts().outline().corners().forEach(this::reach);
                block.facts().launch().ifPresent(this::reach);
            }
            scale = Math.min(
                    (WIDTH - 2 * EDGE) / Math.max(1, east - west), (HEIGHT - 2 * EDGE) / Math.max(1, north - south));
            List<Shape> shapes = new ArrayList<>();
            List<double[]> launches = new ArrayList<>();
            for (Listed block : blocks) {
                double[] middle = at(block.facts().outline().middle());
                shapes.add(new Shape(
                        block.number(),
                        block.name(),
                        block.facts().outline().rings().stream()
                                .map(ring -> path(ring) + "Z")
                                .reduce("", String::concat),
                        block.facts()
                                .patterns()
                                .corridor()
                                .map(c -> path(c.axis()))
                                .orElse(""),
                        middle[0],
                        middle[1]));
                block.facts().launch().map(this::at).ifPresent(launch -> {
                    if (launches.stream()
                            .noneMatch(other -> Math.hypot(other[0] - launch[0], other[1] - launch[1]) < 3)) {
                        launches.add(launch);
                    }
                });
            }
            double bar = barM();
            return new JobSheet(
                    shapes,
                    launches,
                    bar * scale,
                    String.format(
                            Locale.ROOT,
                            "%.0f %s",
                            units.unit(UnitKind.DISTANCE).ofSi(bar),
                            units.unit(UnitKind.DISTANCE).symbol()));
        }

        private void reach(LonLat place) {
            PlanePoint at = plane.toPlane(place);
            west = Math.min(west, at.xM());
            east = Math.max(east, at.xM());
            south = Math.min(south, at.yM());
            north = Math.max(north, at.yM());
        }

        private double[] at(LonLat place) {
            PlanePoint at = plane.toPlane(place);
            return new double[] {
                WIDTH / 2 + (at.xM() - (west + east) / 2) * scale, HEIGHT / 2 - (at.yM() - (south + north) / 2) * scale
            };
        }

        private String path(List<LonLat> line) {
            StringBuilder path = new StringBuilder();
            for (LonLat place : line) {
                double[] at = at(place);
                path.append(String.format(Locale.ROOT, "%s%.1f %.1f", path.isEmpty() ? "M" : "L", at[0], at[1]));
            }
            return path.toString();
        }

        /** A round length of about a sixth of the sheet, in the operator's unit. */
        private double barM() {
            double unit = units.unit(UnitKind.DISTANCE).size();
            double wanted = WIDTH / 6 / scale / unit;
            return RoundFigures.upTo(wanted) * unit;
        }
    }
}
