package yalos.core.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.brief.Brief;
import yalos.core.brief.Purpose;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** Whether a kit can deliver a brief, and which can where it cannot. */
class KitFitTest {
    private static final Aircraft SMALL = Aircraft.smallMultirotor();
    private static final Kit RGB = Kit.of(SMALL, Samples.twentyMegapixel()).named("rgb");
    private static final Kit BANDS = RGB.named("bands")
            .with(Payload.ofBands(Samples.twentyMegapixel(), 35, List.of("green", "red", "edge", "infrared")));

    private static BlockPlan plan(Kit kit, Pins pins) {
        return Samples.request(Samples.square(300), pins).with(kit).plan();
    }

    private static Brief brief(Purpose purpose, OptionalDouble horizontal, Positioning mode) {
        Brief empty = Brief.EMPTY;
        return new Brief(
                Optional.of(purpose),
                "",
                OptionalDouble.empty(),
                horizontal,
                OptionalDouble.empty(),
                empty.surface(),
                empty.priority(),
                mode,
                "",
                "",
                Optional.empty(),
                empty.site(),
                empty.crop(),
                empty.day(),
                Map.of());
    }

    @Test
    void aCropIndexNeedsBandsAndTheKitThatHasThemIsNamed() {
        Brief index = brief(Purpose.CROP_INDEX, OptionalDouble.empty(), Positioning.SINGLE);
        BlockPlan plan = plan(RGB, Pins.ofGsd(2));
        assertThat(KitFit.of(index, plan, UnitChoice.METRIC).lacks())
                .singleElement()
                .satisfies(lack -> assertThat(lack).contains("bands beyond").contains("writes 1 file"));
        assertThat(KitFit.among(List.of(RGB, BANDS), index, plan, UnitChoice.METRIC))
                .singleElement()
                .satisfies(fit -> assertThat(fit.kit().name()).isEqualTo("bands"));
        assertThat(Findings.of(Case.of(plan, index), UnitChoice.METRIC))
                .anySatisfy(finding -> assertThat(finding.key()).isEqualTo("no-bands"));
        assertThat(Findings.of(Case.of(plan(BANDS, Pins.ofGsd(2)), index), UnitChoice.METRIC))
                .noneMatch(finding -> finding.key().equals("no-bands"));
    }

    /** 0.5 cm with 12.29 mm and 3.28 µm pixels is 19 m above ground; the heads register from 35 m. */
    @Test
    void aGsdBelowTheHeadsLeastHeightIsSaidWithBothHeights() {
        Brief index = brief(Purpose.CROP_INDEX, OptionalDouble.empty(), Positioning.SINGLE);
        assertThat(KitFit.of(index, plan(BANDS, Pins.ofGsd(0.5)), UnitChoice.METRIC)
                        .lacks())
                .anySatisfy(lack -> assertThat(lack).contains("18.8 m").contains("35.0 m"));
    }

    /** 2 cm with pixels of 3.2765 µm behind 12.29 mm are 75.0 m; 3 cm would be 112.5 m, 4 cm are above the 120 m of the ceiling. */
    @Test
    void theHeightsThatServeAreSaidWithWhatSetsEachEnd() {
        assertThat(KitFit.heights(plan(BANDS, Pins.ofGsd(2)), UnitChoice.METRIC))
                .contains("from 35.0 to 75.0 m")
                .contains("heads no longer register")
                .contains("GSD asked for is lost");
        Pins coarse = Pins.ofGsd(4).with(Quantity.CEILING, Measure.of(120, Unit.METRE));
        assertThat(KitFit.heights(plan(RGB, coarse), UnitChoice.METRIC))
                .contains("from 0.0 to 120.0 m")
                .contains("your ceiling is passed")
                .doesNotContain("below it");
        assertThat(KitFit.heights(plan(BANDS, Pins.ofGsd(0.5)), UnitChoice.METRIC))
                .isEqualTo("No height serves: 35.0 m at least and 18.8 m at most.");
    }

    @Test
    void positionsThatTheAircraftDoesNotKnowAreSaidUnlessControlGivesThem() {
        BlockPlan plan = plan(RGB, Pins.ofGsd(1));
        OptionalDouble fine = OptionalDouble.of(0.01);
        assertThat(KitFit.of(brief(Purpose.ORTHOPHOTO, fine, Positioning.PPK), plan, UnitChoice.METRIC)
                        .lacks())
                .anySatisfy(lack -> assertThat(lack).contains("1.00 cm").contains("1.50 cm"));
        assertThat(KitFit.of(brief(Purpose.ORTHOPHOTO, fine, Positioning.CONTROL), plan, UnitChoice.METRIC)
                        .fits())
                .isTrue();
    }

    @Test
    void windBeyondTheLimitAndAWingBelowItsSlowestDoNotFit() {
        Pins storm = Pins.ofGsd(2)
                .with(Quantity.WIND, Measure.of(11, Unit.METRE_PER_SECOND))
                .with(Quantity.WIND_FROM, Measure.of(0, Unit.DEGREE));
        assertThat(KitFit.of(Brief.EMPTY, plan(RGB, storm), UnitChoice.METRIC).lacks())
                .anySatisfy(lack -> assertThat(lack).contains("wind limit is 10.0 m/s"));
        PlanRequest wing = Samples.request(Samples.square(900), Pins.ofGsd(2))
                .with(Kit.of(Aircraft.smallWing(), Samples.twentyMegapixel()));
        assertThat(KitFit.of(Brief.EMPTY, wing.plan(), UnitChoice.METRIC).lacks())
                .anySatisfy(lack -> assertThat(lack).contains("stays up only above 13.0 m/s"));
    }
}
