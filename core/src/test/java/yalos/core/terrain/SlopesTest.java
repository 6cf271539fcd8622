package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.function.DoubleBinaryOperator;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Where strips climb least, on ground whose shape is given by a formula. */
class SlopesTest {
    private static final int CELLS = 121;
    private static final double CELL_M = 2.5;

    /** 300 m square, the middle at 0, 0; heights of east and north in metres. */
    private static HeightGrid ground(DoubleBinaryOperator height) {
        float[] heights = new float[CELLS * CELLS];
        double half = (CELLS - 1) / 2.0;
        for (int row = 0; row < CELLS; row++) {
            for (int column = 0; column < CELLS; column++) {
                heights[row * CELLS + column] =
                        (float) height.applyAsDouble((column - half) * CELL_M, (half - row) * CELL_M);
            }
        }
        return new HeightGrid(-half * CELL_M, half * CELL_M, CELL_M, CELL_M, CELLS, CELLS, heights);
    }

    private static double across(double east, double north, double alongDeg) {
        double rad = Math.toRadians(alongDeg);
        return east * Math.cos(rad) - north * Math.sin(rad);
    }

    private static void leads(HeightGrid ground, double deg) {
        double found = Math.toDegrees(Slopes.of(ground, 20).levelWay(0.03).orElseThrow());
        assertThat(Math.IEEEremainder(found - deg, 180)).isCloseTo(0, Offset.offset(0.5));
    }

    /** A plane, a ridge and a valley whose level line runs the same way: on the two last the mean slope is nothing. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 30, 90, 135, 179})
    void theLevelLineIsFound(double deg) {
        leads(ground((east, north) -> 0.3 * across(east, north, deg)), deg);
        leads(ground((east, north) -> -0.3 * Math.abs(across(east, north, deg))), deg);
        leads(ground((east, north) -> 0.001 * Math.pow(across(east, north, deg), 2)), deg);
    }

    /** A cone, a bowl and a nearly level plain lead nowhere. */
    @Test
    void groundAlikeAllRoundHasNone() {
        assertThat(Slopes.of(ground((east, north) -> -0.3 * Math.hypot(east, north)), 20)
                        .levelWay(0.03))
                .isEmpty();
        assertThat(Slopes.of(ground((east, north) -> 0.001 * (east * east + north * north)), 20)
                        .levelWay(0.03))
                .isEmpty();
        assertThat(Slopes.of(ground((east, north) -> 0.02 * east), 20).levelWay(0.03))
                .isEmpty();
    }

    /** Stones of half a metre on every second cell are steep from cell to cell, and no slope. */
    @Test
    void roughnessIsNoSlope() {
        leads(ground((east, north) -> 0.1 * east + 0.5 * (Math.round((east + north) / CELL_M) & 1)), 0);
    }

    /** Cells that are not known count for nothing; where none is, nothing is said. */
    @Test
    void whatIsNotKnownCountsForNothing() {
        leads(ground((east, north) -> north > 50 ? Double.NaN : 0.2 * north), 90);
        assertThat(Slopes.of(ground((east, north) -> Double.NaN), 20).levelWay(0.03))
                .isEmpty();
    }

    /** The mean of squares of a plane is the square of its slope. */
    @ParameterizedTest
    @CsvSource({"0.3, 0.4", "-0.3, 0.4", "0, -0.2"})
    void aPlaneHasItsOwnSlopes(double east, double north) {
        Slopes slopes = Slopes.of(ground((x, y) -> east * x + north * y), 20);
        assertThat(slopes.east()).isCloseTo(east * east, Offset.offset(1e-4));
        assertThat(slopes.north()).isCloseTo(north * north, Offset.offset(1e-4));
        assertThat(slopes.both()).isCloseTo(east * north, Offset.offset(1e-4));
    }
}
