package yalos.web.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.DoubleStream;
import org.junit.jupiter.api.Test;
import yalos.web.block.StillSheet;

/** Drawings of blocks whose places are reckoned by hand: ten thousand units along the longer side, from the corner in the north-west. */
class StillDrawingTest {
    private static final double EAST = 412_000;
    private static final double NORTH = 6_041_000;
    private static final double[] FIELD = {0, 0, 200, 0, 200, 100, 0, 100};

    /** Places from a corner of the grid on. */
    private static double[] at(double... places) {
        double[] moved = new double[places.length];
        for (int i = 0; i < places.length; i++) {
            moved[i] = places[i] + (i % 2 == 0 ? EAST : NORTH);
        }
        return moved;
    }

    private static Sheet sheet(
            List<double[]> rings,
            double[] launch,
            double[] strips,
            int[] passes,
            List<Sheet.LinkLine> links,
            List<Sheet.Thing> things) {
        return new Sheet(
                1,
                32630,
                "UTM 30N",
                1,
                rings,
                List.of(),
                launch,
                strips,
                new double[0],
                new int[0],
                links,
                20,
                new Sheet.TitleBlock("Rigg, A", "2.00 ha", "2.00 cm", "UTM 30N", "level", "level", "60.0 m"),
                new Sheet.Ruler("m", 1),
                null,
                new double[0],
                "m",
                things,
                null,
                passes,
                new int[] {3},
                null,
                null,
                null,
                List.of());
    }

    private static String path(StillSheet still, String kind) {
        return still.shapes().stream()
                .filter(shape -> shape.kind().equals(kind))
                .map(StillSheet.Shape::path)
                .findFirst()
                .orElse("");
    }

    @Test
    void theFrameHoldsWhatTheMapShowsWhenItShowsTheWholeBlock() {
        // From 10 m west to 10 m east of 200 m: 220 m are 10,000 units. The launch point far off takes no part.
        StillSheet still = StillDrawing.of(sheet(
                List.of(at(FIELD)),
                at(-500, 50),
                at(-10, 50, 210, 50),
                new int[] {1},
                List.of(new Sheet.LinkLine("way", at(-500, 50, -10, 50))),
                List.of(
                        new Sheet.Thing("keep-out", "pond <x>", true, at(100, 100, 110, 100, 110, 90)),
                        new Sheet.Thing("obstacle", "mast", false, at(100, 0)))));
        assertThat(still.viewBox()).isEqualTo("0 0 10000 4545");
        assertThat(path(still, "edge")).isEqualTo("M455 4545L9545 4545L9545 0L455 0Z");
        assertThat(path(still, "strip")).isEqualTo("M0 2273L10000 2273").isEqualTo(path(still, "halo"));
        assertThat(path(still, "way")).isEqualTo("M-22273 2273L0 2273");
        assertThat(path(still, "launch")).isEqualTo("M-22273 2273Z");
        assertThat(path(still, "keep-out")).isEqualTo("M5000 0L5455 0L5455 455Z");
        assertThat(path(still, "obstacle point")).as("a dot").isEqualTo("M5000 4545Z");
        assertThat(still.title()).containsEntry("back", "60.0 m").containsEntry("area", "2.00 ha");
    }

    @Test
    void eachPassHasTheLookItHasOnTheMap() {
        double[] strips = at(0, 20, 200, 20, 0, 50, 200, 50, 0, 80, 200, 80);
        StillSheet still =
                StillDrawing.of(sheet(List.of(at(FIELD)), null, strips, new int[] {1, 2, 3}, List.of(), List.of()));
        assertThat(path(still, "strip")).isEqualTo("M0 4000L10000 4000");
        assertThat(path(still, "strip added")).isEqualTo("M0 2500L10000 2500");
        assertThat(path(still, "strip tilted")).isEqualTo("M0 1000L10000 1000");
        assertThat(path(still, "launch")).isEmpty();
    }

    @Test
    void whereNothingLiesNothingIsDrawn() {
        StillSheet still = StillDrawing.of(sheet(List.of(), at(0, 0), new double[0], new int[0], List.of(), List.of()));
        assertThat(still.isDrawn()).isFalse();
        assertThat(still.title()).containsEntry("name", "Rigg, A");
    }

    /** A drawing without any width would not be seen. */
    @Test
    void oneLineIsDrawn() {
        StillSheet still =
                StillDrawing.of(sheet(List.of(), null, at(0, 0, 0, 500), new int[] {1}, List.of(), List.of()));
        assertThat(still.viewBox()).isEqualTo("0 0 1 10000");
        assertThat(path(still, "strip")).isEqualTo("M0 10000L0 0");
    }

    @Test
    void whatIsTooLargeForAPageIsLeftToTheMap() {
        double[] ring = DoubleStream.iterate(0, i -> i + 1)
                .limit(100_000)
                .flatMap(i -> DoubleStream.of(Math.cos(i / 15_000), Math.sin(i / 15_000)))
                .map(one -> 1000 * one)
                .toArray();
        StillSheet still =
                StillDrawing.of(sheet(List.of(at(ring)), null, new double[0], new int[0], List.of(), List.of()));
        assertThat(still.isDrawn()).isFalse();
    }
}
