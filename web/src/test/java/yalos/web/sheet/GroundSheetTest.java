package yalos.web.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import org.assertj.core.data.Offset;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.HeightGrid;

/** Contours of a plane that rises three metres on ten to the east: by its formula each level lies on one line from south to north. */
class GroundSheetTest {
    private static final int CELLS = 201;
    private static final double CELL_M = 2;
    private static final double HALF_M = (CELLS - 1) / 2.0 * CELL_M;
    private static final double FOOT = 0.3048;

    private static HeightGrid plane() {
        float[] heights = new float[CELLS * CELLS];
        for (int i = 0; i < heights.length; i++) {
            heights[i] = (float) (300 + 0.3 * (i % CELLS * CELL_M - HALF_M));
        }
        // Edges of the outermost cells, whose heights are those of their middles.
        return new HeightGrid(-HALF_M - CELL_M / 2, HALF_M + CELL_M / 2, CELL_M, CELL_M, CELLS, CELLS, heights);
    }

    /** North and south of the equator, in metres and in feet; to the tenth of a metre that places are told in. */
    @ParameterizedTest
    @CsvSource({"32630, -4.35, 54.51, 1", "32719, -70.2, -33.5, 1", "32630, -4.35, 54.51, " + FOOT})
    void eachPlaceOfAContourLiesAtItsLevel(int epsg, double lon, double lat, double unitM) {
        LocalPlane plane = LocalPlane.at(Grid.ofEpsg(epsg), LonLat.of(lon, lat));
        GroundSheet.Ground ground = GroundSheet.lines(plane(), plane, unitM);
        double step = ground.step();
        assertThat(ground.contours()).hasSizeBetween((int) (120 / unitM / step) - 2, (int) (120 / unitM / step) + 1);
        for (GroundSheet.ContourLine line : ground.contours()) {
            assertThat(line.level() / step).isCloseTo(Math.rint(line.level() / step), Offset.offset(1e-6));
            assertThat(line.index()).isEqualTo(Math.round(line.level() / step) % 5 == 0);
            double x = (line.level() * unitM - 300) / 0.3;
            EastNorth south = plane.toGrid(x, -HALF_M);
            EastNorth north = plane.toGrid(x, HALF_M);
            double length = Math.hypot(north.east() - south.east(), north.north() - south.north());
            long east = 0;
            long upward = 0;
            for (int i = 0; i < line.steps().length; i += 2) {
                east += line.steps()[i];
                upward += line.steps()[i + 1];
                double off = ((east / 10.0 - south.east()) * (north.north() - south.north())
                                - (upward / 10.0 - south.north()) * (north.east() - south.east()))
                        / length;
                assertThat(off).as("level %s", line.level()).isCloseTo(0, Offset.offset(0.12));
            }
        }
    }
}
