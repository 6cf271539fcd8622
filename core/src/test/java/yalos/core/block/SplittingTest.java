package yalos.core.block;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.Samples;
import yalos.core.fault.InputFault;

/** Blocks parted and joined. */
class SplittingTest {
    /** Parts without overlap are even to a millionth and together all of the block, whatever its shape. */
    @ParameterizedTest
    @CsvSource({"2, 0", "3, 25", "5, 64", "7, 140"})
    void evenPartsHaveEvenAreas(int parts, double directionDeg) {
        for (Outline outline : List.of(Samples.square(400), Samples.concaveWithHole(), Samples.random(3))) {
            List<Outline> split = Splitting.even(outline, Samples.UTM30, parts, Math.toRadians(directionDeg), 0, 0);
            assertThat(split).hasSize(parts);
            double whole = outline.areaM2();
            for (Outline part : split) {
                assertThat(OutlineCheck.sound(part).areaM2()).isCloseTo(whole / parts, Percentage.withPercentage(0.01));
            }
            assertThat(split.stream().mapToDouble(Outline::areaM2).sum())
                    .isCloseTo(whole, Percentage.withPercentage(1e-4));
        }
    }

    /** By hand: a square of 400 m in two with 30 m shared: each 215 m by 400 m. */
    @Test
    void neighboursShareAStrip() {
        double scale = PlaneBlock.of(Samples.square(400), Samples.UTM30).areaM2() / 160_000;
        for (Outline part : Splitting.even(Samples.square(400), Samples.UTM30, 2, 0, 30, 0)) {
            assertThat(PlaneBlock.of(part, Samples.UTM30).areaM2())
                    .isCloseTo((200 * Math.sqrt(scale) + 15) * 400 * Math.sqrt(scale), Offset.offset(5.0));
        }
    }

    @Test
    void aDrawnLinePartsLeftFromRight() {
        List<Outline> split =
                Splitting.byLine(Samples.square(400), Samples.UTM30, Samples.at(100, -50), Samples.at(100, 450), 0);
        assertThat(split.get(0).areaM2() / split.get(1).areaM2()).isCloseTo(1.0 / 3, Offset.offset(1e-3));
        assertThatThrownBy(() -> Splitting.byLine(
                        Samples.square(400), Samples.UTM30, Samples.at(500, 0), Samples.at(500, 400), 0))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("does not cross");
        assertThatThrownBy(() ->
                        Splitting.byLine(Samples.square(400), Samples.UTM30, Samples.at(3, 0), Samples.at(3, 400), 0))
                .hasMessageContaining("cuts off only");
        assertThatThrownBy(() ->
                        Splitting.byLine(Samples.square(400), Samples.UTM30, Samples.at(3, 0), Samples.at(3, 0), 0))
                .hasMessageContaining("side of the block");
        assertThatThrownBy(() -> Splitting.even(Samples.square(9), Samples.UTM30, 1, 0, 0, 0))
                .hasMessageContaining("2 to 50");
    }

    /** By hand: 300 m in ten parts are 30 m each, less than a strip of 31 m; across a wide and a narrow tower the narrow one's top of 10 m lies apart. */
    @Test
    void sliversAreRefusedBeforeAnythingIsCut() {
        assertThatThrownBy(() -> Splitting.even(Samples.square(300), Samples.UTM30, 10, 0, 0, 31))
                .hasMessageMatching(
                        "Part \\d+ of 10 would be 30 m wide, less than a strip of 31 m. Choose fewer parts.");
        Outline towers = Samples.outline(0, 0, 400, 0, 400, 300, 390, 300, 390, 100, 200, 100, 200, 400, 0, 400);
        assertThatThrownBy(() -> Splitting.even(towers, Samples.UTM30, 2, Math.PI / 2, 0, 1))
                .hasMessageContaining("in pieces, one of only");
    }

    @Test
    void joinedBlocksCoverWhatBothDid() {
        Outline west = Samples.outline(0, 0, 100, 0, 100, 100, 0, 100);
        Outline east = Samples.outline(100, 0, 200, 0, 200, 100, 100, 100);
        Outline both = Splitting.joined(west, east, Samples.UTM30);
        assertThat(both.parts()).hasSize(1);
        assertThat(both.areaM2()).isCloseTo(west.areaM2() + east.areaM2(), Percentage.withPercentage(1e-4));
        Outline far = Samples.outline(300, 0, 400, 0, 400, 100, 300, 100);
        assertThat(Splitting.joined(west, far, Samples.UTM30).parts()).hasSize(2);
        Outline over = Samples.outline(50, 0, 150, 0, 150, 100, 50, 100);
        assertThat(Splitting.joined(west, over, Samples.UTM30).areaM2())
                .isCloseTo(1.5 * west.areaM2(), Percentage.withPercentage(0.01));
    }
}
