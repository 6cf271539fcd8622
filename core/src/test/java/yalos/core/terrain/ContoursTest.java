package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

class ContoursTest {
    /** Plane geometry: on a cone of slope 1 the contour h below the top is a circle of radius h, closed. */
    @Test
    void theContoursOfAConeAreCircles() {
        HeightGrid grid = HeightGrid.level(-50, 50, 1, 100, 100, 0);
        for (int row = 0; row < 100; row++) {
            for (int column = 0; column < 100; column++) {
                grid.heights()[row * 100 + column] = (float) (100 - Math.hypot(grid.x(column), grid.y(row)));
            }
        }
        List<Contours.Line> lines = Contours.of(grid, 10).stream()
                .filter(line -> line.levelM() >= 60 && line.levelM() <= 90)
                .toList();
        assertThat(lines).hasSize(4).allSatisfy(line -> {
            double[] points = line.points();
            for (int i = 0; i < points.length; i += 2) {
                assertThat(Math.hypot(points[i], points[i + 1])).isCloseTo(100 - line.levelM(), Offset.offset(0.05));
            }
            assertThat(points[0]).isEqualTo(points[points.length - 2]);
            assertThat(points[1]).isEqualTo(points[points.length - 1]);
        });
        assertThat(Contours.stepM(grid)).isEqualTo(2);
    }

    @Test
    void unknownGroundHasNoContours() {
        HeightGrid grid = HeightGrid.level(0, 10, 1, 10, 10, Double.NaN);
        assertThat(Contours.of(grid, 1)).isEmpty();
    }
}
