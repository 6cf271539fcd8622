package yalos.core.control;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;

/** Against the optimal tours of the reference data (dynamic programming, small ones by brute force as well). */
class TourTest {
    static Stream<Reference.Row> sets() {
        return Reference.rows("routing_optimal.csv");
    }

    private static double[][] distances(Reference.Row set) {
        List<Reference.Row> points = Reference.rows("routing_points.csv")
                .filter(row -> row.text("set").equals(set.text("set")))
                .toList();
        double[][] cost = new double[points.size()][points.size()];
        for (int i = 0; i < cost.length; i++) {
            for (int j = 0; j < cost.length; j++) {
                cost[i][j] = Math.hypot(
                        points.get(i).number("e_m") - points.get(j).number("e_m"),
                        points.get(i).number("n_m") - points.get(j).number("n_m"));
            }
        }
        return cost;
    }

    @ParameterizedTest
    @MethodSource("sets")
    void isTheShortest(Reference.Row set) {
        double[][] cost = distances(set);
        double exact = cost.length - 1 <= Tour.EXACT ? 0.001 : 0.05 * set.number("open_tour_m");
        for (boolean closed : new boolean[] {false, true}) {
            int[] order = Tour.order(cost, closed);
            assertThat(order[0]).isZero();
            assertThat(Arrays.stream(order).sorted().toArray())
                    .isEqualTo(IntStream.range(0, cost.length).toArray());
            double expected = set.number(closed ? "closed_tour_m" : "open_tour_m");
            assertThat(Tour.length(cost, order, closed)).isCloseTo(expected, Offset.offset(exact));
        }
    }

    /** Beyond the exact ones: a ring of places, whose shortest closed tour goes round. */
    @Test
    void manyPlacesRoundARingAreWalkedRound() {
        int count = 60;
        double[][] cost = new double[count][count];
        for (int i = 0; i < count; i++) {
            for (int j = 0; j < count; j++) {
                // Numbered crosswise, so that their numbers are no help.
                cost[i][j] = 2 * Math.abs(Math.sin(Math.PI * ((i * 7) % count - (j * 7) % count) / count)) * 100;
            }
        }
        double round = count * 2 * Math.sin(Math.PI / count) * 100;
        assertThat(Tour.length(cost, Tour.order(cost, true), true)).isBetween(round - 1e-6, round * 1.05);
    }

    @Test
    void oneAndTwoPlacesNeedNoSearch() {
        assertThat(Tour.order(new double[1][1], true)).containsExactly(0);
        assertThat(Tour.order(new double[][] {{0, 1}, {2, 0}}, true)).containsExactly(0, 1);
        assertThat(Tour.order(new double[0][0], false)).isEmpty();
    }
}
