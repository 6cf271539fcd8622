package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.flight.Dubins;

/** The order in which a wing flies parallel strips. */
class StripOrderTest {
    static Stream<Reference.Row> orders() {
        return Reference.rows("strip_order.csv");
    }

    /** Strips of one length side by side, turned between by the shortest forward way. */
    private record Side(double spacingM, double lengthM, double radiusM) implements StripOrder.Cost {
        @Override
        public double between(StripOrder.Step from, StripOrder.Step to) {
            double startN = from.reversed() ? 0 : lengthM;
            double endN = to.reversed() ? lengthM : 0;
            return Dubins.shortest(
                            (to.strip() - from.strip()) * spacingM,
                            endN - startN,
                            from.reversed() ? Math.PI : 0,
                            to.reversed() ? Math.PI : 0,
                            radiusM)
                    .lengthM();
        }

        @Override
        public double start(StripOrder.Step first) {
            return 0;
        }

        @Override
        public double end(StripOrder.Step last) {
            return 0;
        }

        /** To the strip so many away, flown the other way. */
        double back(int away) {
            return Dubins.shortest(away * spacingM, 0, 0, Math.PI, radiusM).lengthM();
        }

        double turning(List<StripOrder.Step> order) {
            return IntStream.range(1, order.size())
                    .mapToDouble(i -> between(order.get(i - 1), order.get(i)))
                    .sum();
        }
    }

    /** Independent reference: all orders and directions tried. */
    @ParameterizedTest
    @MethodSource("orders")
    void isAsShortAsTheBestOfAllOrders(Reference.Row row) {
        Side side = new Side(row.number("spacing_m"), row.number("strip_length_m"), row.number("radius_m"));
        List<StripOrder.Step> order = StripOrder.exact(row.whole("strips"), side);
        assertThat(order.stream().map(StripOrder.Step::strip).distinct()).hasSize(row.whole("strips"));
        assertThat(row.whole("strips")).isLessThanOrEqualTo(StripOrder.EXACT);
        assertThat(side.turning(order)).isCloseTo(row.number("least_turning_m"), Offset.offset(1e-6));
    }

    /** 40 strips 30 m apart with a radius of 50 m: turns of the best order are on average a third longer than a half circle, the sequence needs bulbs. */
    @Test
    void manyStripsAreInterleaved() {
        Side side = new Side(30, 600, 50);
        List<StripOrder.Step> order = StripOrder.interleaved(40, side, side::back);
        assertThat(order.stream().map(StripOrder.Step::strip).distinct()).hasSize(40);
        double bulb = side.between(new StripOrder.Step(0, false), new StripOrder.Step(1, true));
        assertThat(side.turning(order)).isLessThan(0.75 * 39 * bulb);
        assertThat(side.turning(order) / 39).isLessThan(Math.PI * 50 * 1.35);
    }

    /** Independent reference: what is quick enough for every direction of a search is on average within a tenth of the best of all orders, and never worse than the sequence. */
    @Test
    void theQuickOrderIsNearTheBest() {
        double excess = 0;
        List<Reference.Row> rows = orders().toList();
        for (Reference.Row row : rows) {
            Side side = new Side(row.number("spacing_m"), row.number("strip_length_m"), row.number("radius_m"));
            double quick = side.turning(StripOrder.interleaved(row.whole("strips"), side, side::back));
            assertThat(quick).isLessThanOrEqualTo(row.number("turning_in_sequence_m") + 1e-6);
            excess += quick / row.number("least_turning_m") - 1;
        }
        assertThat(excess / rows.size()).isLessThan(0.1);
    }
}
