package yalos.core.brief;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import yalos.core.Samples;
import yalos.core.ledger.BlockPlan;
import yalos.core.ledger.Pins;
import yalos.core.ledger.Quantity;
import yalos.core.units.UnitChoice;

class AdviceTest {
    private static Brief brief(Purpose purpose, double smallest, double horizontal, Surface surface, Positioning mode) {
        return new Brief(
                Optional.of(purpose),
                "",
                smallest > 0 ? OptionalDouble.of(smallest) : OptionalDouble.empty(),
                horizontal > 0 ? OptionalDouble.of(horizontal) : OptionalDouble.empty(),
                OptionalDouble.empty(),
                surface,
                Priority.DETAIL,
                mode,
                "",
                "",
                Optional.empty(),
                Map.of());
    }

    private static Advice advice(Brief brief, String key) {
        return Advice.of(brief, UnitChoice.METRIC).stream()
                .filter(advice -> advice.key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    @ParameterizedTest
    @EnumSource(Purpose.class)
    void everyPurposeHasAdviceWithAReasonAndASource(Purpose purpose) {
        assertThat(Advice.of(brief(purpose, 0, 0, Surface.GENERAL, Positioning.SINGLE), UnitChoice.METRIC))
                .hasSizeGreaterThan(4)
                .allSatisfy(advice -> {
                    assertThat(advice.text()).isNotBlank();
                    assertThat(advice.reason()).isNotBlank();
                    assertThat(advice.source()).isNotBlank();
                });
        assertThat(Advice.of(Brief.EMPTY, UnitChoice.METRIC)).isEmpty();
    }

    /** Common practice: three pixels on the smallest feature; one GSD in position. */
    @Test
    void theSmallestFeatureAndTheAccuracyHoldTheGsd() {
        Brief feature = brief(Purpose.ORTHOPHOTO, 0.03, 0, Surface.GENERAL, Positioning.SINGLE);
        assertThat(advice(feature, "gsd").pins().get(0).value().si()).isCloseTo(0.01, Offset.offset(1e-9));
        Brief accurate = brief(Purpose.ORTHOPHOTO, 0.03, 0.005, Surface.GENERAL, Positioning.PPK);
        assertThat(advice(accurate, "gsd").pins().get(0).value().si()).isCloseTo(0.005, Offset.offset(1e-9));
    }

    @Test
    void difficultSurfacesRaiseTheOverlap() {
        Brief sand = brief(Purpose.ORTHOPHOTO, 0, 0, Surface.SAND_SNOW_WATER, Positioning.SINGLE);
        assertThat(advice(sand, "overlaps").text()).isEqualTo("85 % forward, 80 % side");
        assertThat(advice(sand, "overlaps").reason()).contains("texture");
    }

    @Test
    void accuracyFinerThanPositioningAllowsIsSaid() {
        BlockPlan plan = Samples.request(Samples.square(300), Pins.ofGsd(2)).plan();
        Brief single = brief(Purpose.TOPOGRAPHIC_PLAN, 0.05, 0.03, Surface.GENERAL, Positioning.SINGLE);
        assertThat(Contradictions.of(single, plan, UnitChoice.METRIC))
                .extracting(Contradictions.Contradiction::key)
                .containsExactly("feature-too-small", "accuracy-horizontal");
        Brief ppk = brief(Purpose.TOPOGRAPHIC_PLAN, 0.06, 0.03, Surface.GENERAL, Positioning.PPK);
        assertThat(Contradictions.of(ppk, plan, UnitChoice.METRIC)).isEmpty();
    }

    @Test
    void everyMendMends() {
        BlockPlan plan = Samples.request(Samples.square(300), Pins.ofGsd(4)).plan();
        Brief brief = brief(Purpose.TOPOGRAPHIC_PLAN, 0.05, 0.03, Surface.GENERAL, Positioning.PPK);
        for (Contradictions.Contradiction found : Contradictions.of(brief, plan, UnitChoice.METRIC)) {
            Advice.Pin mend = found.mend().get(0);
            assertThat(mend.quantity()).isEqualTo(Quantity.GSD);
            BlockPlan mended = plan.tried(plan.request().pins().with(mend.quantity(), mend.value()));
            assertThat(Contradictions.of(brief, mended, UnitChoice.METRIC))
                    .extracting(Contradictions.Contradiction::key)
                    .doesNotContain(found.key());
        }
    }
}
