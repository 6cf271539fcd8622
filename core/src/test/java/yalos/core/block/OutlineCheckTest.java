package yalos.core.block;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.Stream;
import org.assertj.core.api.AbstractThrowableAssert;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;

class OutlineCheckTest {
    private static AbstractThrowableAssert<?, ?> refused(Outline outline) {
        return assertThatThrownBy(() -> OutlineCheck.sound(outline)).isInstanceOf(InputFault.class);
    }

    @Test
    void namesThePlaceWhereAnOutlineCrossesItself() {
        LonLat crossing = Samples.at(50, 50);
        refused(Samples.outline(0, 0, 100, 100, 100, 0, 0, 100))
                .hasMessageContaining("crosses")
                .hasMessageContaining("%.4f".formatted(crossing.lonDeg()))
                .hasMessageContaining("%.4f".formatted(crossing.latDeg()));
    }

    @Test
    void refusesTooFewCornersAndNoArea() {
        refused(Samples.outline(0, 0, 100, 100, 0, 0)).hasMessageContaining("at least 3");
        refused(Samples.outline(0, 0, 100, 0, 200, 0)).hasMessageContaining("encloses");
        refused(Outline.EMPTY).hasMessageContaining("no outline");
    }

    @Test
    void refusesMoreThanFiveHundredSquareKilometres() {
        refused(Samples.square(23_000)).hasMessageContaining("500 km²");
        assertThat(OutlineCheck.sound(Samples.square(22_000)).areaM2()).isGreaterThan(480e6);
    }

    @Test
    void refusesAHoleOutside() {
        Outline.Part square = Samples.square(100).parts().get(0);
        List<LonLat> hole =
                Samples.outline(200, 0, 300, 0, 300, 100).parts().get(0).outer();
        refused(new Outline(List.of(new Outline.Part(square.outer(), List.of(hole)))))
                .hasMessageContaining("hole");
    }

    /** A square kilometre across the date line, and one across the edge of UTM zones 31 and 32. */
    @ParameterizedTest
    @ValueSource(doubles = {180, 6})
    void plansAcrossTheDateLineAndZoneEdges(double lon) {
        Outline across = Outline.ofRing(Stream.of(
                        new double[] {lon - 0.008, 47},
                        new double[] {lon + 0.008, 47},
                        new double[] {lon + 0.008, 47.009},
                        new double[] {lon - 0.008, 47.009})
                .map(corner -> LonLat.of(corner[0], corner[1]))
                .toList());
        Grid grid = Grid.utmAt(across.middle());
        PlaneBlock block = PlaneBlock.of(OutlineCheck.sound(across), grid);
        assertThat(block.areaM2()).isCloseTo(across.areaM2(), Percentage.withPercentage(0.01));
        BlockPlan plan = BlockPlan.over(block, Samples.request(across, Pins.ofGsd(2)));
        assertThat(plan.photos()).isBetween(2000, 3500);
    }

    @ParameterizedTest
    @ValueSource(ints = {3857, 2263, 32630, 27700})
    void planeIsInTrueMetresInAnyGrid(int epsg) {
        Outline square = epsg == 2263
                ? Outline.ofRing(List.of(LonLat.of(-74, 40.7), LonLat.of(-73.99, 40.7), LonLat.of(-73.99, 40.71)))
                : Samples.square(500);
        PlaneBlock block = PlaneBlock.of(square, Grid.ofEpsg(epsg));
        assertThat(block.areaM2()).isCloseTo(square.areaM2(), Percentage.withPercentage(0.02));
    }
}
