package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.function.DoubleBinaryOperator;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.terrain.Holes.Hole;

/** Holes are found by their rims, and spanned by what the rims say. */
class HolesTest {
    private static HeightGrid grid(int columns, int rows, DoubleBinaryOperator height) {
        HeightGrid grid = HeightGrid.level(0, rows * 2, 2, columns, rows, 0);
        for (int row = 0; row < rows; row++) {
            for (int column = 0; column < columns; column++) {
                grid.heights()[row * columns + column] = (float) height.applyAsDouble(grid.x(column), grid.y(row));
            }
        }
        return grid;
    }

    @Test
    void aHoleHasAnAreaAWidthAndARim() {
        HeightGrid holed = grid(20, 10, (x, y) -> x > 10 && x < 18 && y > 8 && y < 12 ? Double.NaN : x);
        assertThat(Holes.of(holed)).singleElement().satisfies(hole -> {
            assertThat(hole.areaM2()).isEqualTo(4 * 2 * 4.0);
            assertThat(hole.widthM()).isEqualTo(8);
            assertThat(hole.rimLeastM()).isEqualTo(9);
            assertThat(hole.rimMostM()).isEqualTo(19);
            assertThat(hole.rimRangeM()).isEqualTo(10);
        });
    }

    @Test
    void whatReachesTheEdgeIsNoHole() {
        assertThat(Holes.of(grid(20, 10, (x, y) -> x < 8 ? Double.NaN : 1))).isEmpty();
        assertThat(Holes.of(grid(20, 10, (x, y) -> Double.NaN))).isEmpty();
        assertThat(Holes.of(grid(20, 10, (x, y) -> 1))).isEmpty();
    }

    @Test
    void theLargestComesFirst() {
        HeightGrid two =
                grid(30, 10, (x, y) -> y > 8 && y < 12 && (x > 4 && x < 8 || x > 20 && x < 40) ? Double.NaN : 1);
        List<Hole> holes = Holes.of(two);
        assertThat(holes).hasSize(2);
        assertThat(holes.get(0).areaM2()).isGreaterThan(holes.get(1).areaM2());
    }

    /** A harmonic function, x² - y², solves Laplace's equation: its span is itself but for the rounding of the cells. */
    @Test
    void aSpanSolvesLaplacesEquation() {
        DoubleBinaryOperator saddle = (x, y) -> ((x - 40) * (x - 40) - (y - 40) * (y - 40)) / 50;
        HeightGrid holed =
                grid(40, 40, (x, y) -> Math.hypot(x - 40, y - 40) < 24 ? Double.NaN : saddle.applyAsDouble(x, y));
        HeightGrid spanned = Holes.spanned(holed, Holes.of(holed));
        for (int row = 12; row < 28; row++) {
            for (int column = 12; column < 28; column++) {
                assertThat((double) spanned.cell(column, row))
                        .isCloseTo(saddle.applyAsDouble(spanned.x(column), spanned.y(row)), Offset.offset(0.01));
            }
        }
        assertThat(holed.cell(20, 20)).as("the model itself stays as it is").isNaN();
    }

    /** However uneven the rim, what is spanned stays between its least and its greatest height. */
    @Test
    void aSpanNeverLeavesTheRangeOfItsRim() {
        HeightGrid rough = grid(30, 30, (x, y) -> Math.hypot(x - 30, y - 30) < 15 ? Double.NaN : 50 * Math.sin(x * y));
        Hole hole = Holes.of(rough).get(0);
        HeightGrid spanned = Holes.spanned(rough, List.of(hole));
        for (int cell : hole.cells()) {
            assertThat((double) spanned.heights()[cell]).isBetween(hole.rimLeastM() - 1e-4, hole.rimMostM() + 1e-4);
        }
    }
}
