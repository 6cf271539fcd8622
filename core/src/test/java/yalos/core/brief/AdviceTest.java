package yalos.core.brief;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import yalos.core.Samples;
import yalos.core.kit.Payload;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
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
                Site.PLAIN,
                Crop.NONE,
                Day.USUAL,
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

    /** The table of recommendations, line by line; all common practice. */
    @ParameterizedTest
    @CsvSource({
        "ORTHOPHOTO, GENERAL, 75, 70",
        "SURFACE_MODEL, GENERAL, 80, 75",
        "TOPOGRAPHIC_PLAN, GENERAL, 80, 75",
        "CORRIDOR, LINEAR, 85, 70",
        "STRUCTURE, GENERAL, 90, 80",
        "CROP_INDEX, FLAT_FIELD, 80, 75",
        "CROP_INDEX, TALL_CROP, 80, 80",
        "ORTHOPHOTO, FOREST, 85, 80",
        "ORTHOPHOTO, SAND_SNOW_WATER, 85, 80",
        "LIDAR, GENERAL, 30, 30",
        "IMAGERY, GENERAL, 60, 40",
    })
    void recommendsTheOverlapsOfTheTable(Purpose purpose, Surface surface, double forward, double side) {
        Advice advice = advice(brief(purpose, 0, 0, surface, Positioning.SINGLE), "overlaps");
        assertThat(advice.pins().get(0).value().figure()).isEqualTo(forward);
        assertThat(advice.pins().get(1).value().figure()).isEqualTo(side);
    }

    private static Brief of(Purpose purpose, Site site, Crop crop, Day day) {
        return new Brief(
                Optional.of(purpose),
                "",
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                Surface.GENERAL,
                Priority.DETAIL,
                Positioning.PPK,
                "",
                "",
                Optional.empty(),
                site,
                crop,
                day,
                Map.of());
    }

    @Test
    void bareEarthCoverAndDifficultiesAreAdvisedOn() {
        Site site = new Site(true, true, Set.of(Site.Difficulty.PEOPLE));
        Brief brief = of(Purpose.SURFACE_MODEL, site, Crop.NONE, Day.USUAL);
        assertThat(advice(brief, "model").text()).contains("filter");
        assertThat(advice(brief, "vegetation").text()).contains("pole");
        assertThat(advice(brief, "site-people").text()).contains("cordons");
    }

    @Test
    void theCropsStageChoosesTheSensorAndItsUseTheCalibration() {
        Crop crop = new Crop(Crop.Stage.CLOSED, OptionalDouble.of(0.3), Crop.Use.TRIAL_SERIES);
        Brief index = of(Purpose.CROP_INDEX, Site.PLAIN, crop, Day.USUAL);
        assertThat(advice(index, "sensor").text()).contains("red-edge");
        assertThat(advice(index, "calibration").text()).contains("panel before and after");
        Brief count = of(
                Purpose.STAND_COUNT,
                Site.PLAIN,
                new Crop(Crop.Stage.EMERGING, OptionalDouble.of(0.03), Crop.Use.SCOUTING),
                Day.USUAL);
        assertThat(advice(count, "gsd").pins().get(0).value().si()).isCloseTo(0.005, Offset.offset(1e-9));
    }

    @Test
    void theDayAddsUpTravelTargetsFlightAndBatteryChanges() {
        Day day = new Day(45, 40, 8, 8, 300);
        assertThat(day.totalMinutes(50, 3)).isEqualTo(45 + 40 + 64 + 50 + 2 * Day.BATTERY_CHANGE_MINUTES + 45);
    }

    @Test
    void theCarHoldsWhatTheJobNeeds() {
        BlockPlan plan = Samples.request(Samples.square(400), Pins.ofGsd(2)).plan();
        Brief brief = of(
                Purpose.CROP_INDEX,
                new Site(false, false, Set.of(Site.Difficulty.PEOPLE)),
                Crop.NONE,
                new Day(0, 0, 5, 8, 480));
        assertThat(PackList.of(brief, plan))
                .extracting(PackList.Item::what)
                .contains(
                        "reflectance panel",
                        "ground targets",
                        "base receiver, tripod, tape",
                        "cones, tape, high-visibility vests");
        assertThat(PackList.of(brief, plan).get(0).count()).isEqualTo(plan.batterySets() + 1);
    }

    /** Each of four heads writes to its own card, and each card is copied. */
    @Test
    void everyHeadTakesACardOfItsOwn() {
        PlanRequest one = Samples.request(Samples.square(300), Pins.ofGsd(2));
        PlanRequest four = one.with(one.kit()
                .with(Payload.ofBands(Samples.twentyMegapixel(), 0, List.of("green", "red", "edge", "infrared"))));
        assertThat(PackList.of(Brief.EMPTY, one.plan()).get(1).count()).isEqualTo(2);
        assertThat(PackList.of(Brief.EMPTY, four.plan()).get(1).count()).isEqualTo(8);
    }
}
