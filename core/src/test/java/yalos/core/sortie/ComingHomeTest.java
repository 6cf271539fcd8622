package yalos.core.sortie;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.units.UnitChoice;

/** Return height, fences, lost link and sight against hand figures. */
class ComingHomeTest {
    private static GroundRequest.Source level() {
        return FormulaGround.of(5, (x, y) -> 100);
    }

    private static Sorties sorties(GroundRequest.Source source, List<Obstacle> obstacles, List<Zone> zones) {
        BlockPlan plan = SortiesTest.request(Aircraft.smallMultirotor(), 300, Pins.ofHeight(60), Samples.at(-100, 150))
                .over(new GroundRequest(source, HeightChoice.USUAL, obstacles, zones, OptionalDouble.empty()))
                .plan();
        return Sorties.of(Sorties.Given.usual(plan));
    }

    private static Obstacle mast(double east, double north, double heightM) {
        return new Obstacle("mast", Obstacle.Kind.MAST, List.of(Samples.at(east, north)), heightM, 1);
    }

    /** A mast of 47 m on the straight way home, 20 m kept: 67 m above take-off. One far from every way changes nothing. */
    @Test
    void theReturnHeightClearsWhatStandsOnTheStraightWays() {
        Sorties plain = sorties(level(), List.of(), List.of());
        Homing home = plain.launches().get(0);
        assertThat(home.returnUpM() - home.takeOffUpM()).isCloseTo(20, Offset.offset(1e-9));
        Sorties masted = sorties(level(), List.of(mast(-40, 150, 47), mast(-90, -900, 90)), List.of());
        Homing over = masted.launches().get(0);
        assertThat(over.returnUpM() - over.takeOffUpM()).isCloseTo(67, Offset.offset(1e-9));
        List<LinkLoss> losses = LinkLoss.of(masted);
        assertThat(LinkLoss.nearest(losses).orElseThrow().clearanceM()).isCloseTo(20, Offset.offset(0.01));
        assertThat(LinkLoss.nearest(LinkLoss.of(plain)).orElseThrow().clearanceM())
                .isCloseTo(60, Offset.offset(0.5));
    }

    @Test
    void aReturnHeightThatIsSetTooLowIsSeen() {
        Sorties masted = sorties(level(), List.of(mast(-40, 150, 47)), List.of());
        Sorties.Given given = masted.given();
        SortieSettings usual = SortieSettings.USUAL;
        SortieSettings low = new SortieSettings(
                List.of(),
                Optional.empty(),
                usual.eyeM(),
                OptionalDouble.empty(),
                1,
                2,
                OptionalDouble.of(30),
                20,
                50,
                FenceAct.STOPS,
                LostLink.RETURN,
                true);
        Sorties flown = Sorties.of(
                new Sorties.Given(given.plan(), given.around(), low, given.launches(), given.draw(), given.usable()));
        // photos are taken 60 m above the ground: from there it comes home at 60, 13 m over the mast
        assertThat(LinkLoss.nearest(LinkLoss.of(flown)).orElseThrow().clearanceM())
                .isCloseTo(13, Offset.offset(0.5));
    }

    /** Planned ways go round a keep-out zone; by itself the aircraft flies straight over it. */
    @Test
    void zonesOnTheStraightWayHomeAreNamed() {
        Zone paddock = new Zone(
                "paddock", Zone.Kind.KEEP_OUT, Samples.outline(-60, 100, -30, 100, -30, 220, -60, 220), 0, 500);
        Sorties zoned = sorties(level(), List.of(), List.of(paddock));
        assertThat(LinkLoss.of(zoned)).anyMatch(loss -> loss.crossed().contains("paddock"));
        for (Sortie sortie : zoned.all()) {
            for (double at = 0; at < sortie.seconds(); at += 2) {
                PlanePoint here = sortie.timeline().at(at).place().point();
                assertThat(zoned.given().around().site().zonesAt(here.xM(), here.yM(), 60))
                        .isEmpty();
            }
        }
        assertThat(zoned.seconds())
                .isGreaterThan(sorties(level(), List.of(), List.of()).seconds());
        assertThat(zoned.forbidding(0)).isEmpty();
    }

    /** The farthest place with fifty metres, up to whole tens; the highest with five. */
    @Test
    void fencesReachBeyondTheFarthestAndTheHighest() {
        Sorties plain = sorties(level(), List.of(), List.of());
        Fences fences = Fences.of(plain, 0);
        double farthest = plain.given().plan().flight().exposures().stream()
                .mapToDouble(
                        photo -> photo.point().distanceM(plain.launches().get(0).launch()))
                .max()
                .orElseThrow();
        assertThat(fences.farthestM()).isBetween(farthest - 1, farthest + 15);
        assertThat(fences.fenceM()).isEqualTo(Math.ceil((fences.farthestM() + 50) / 10) * 10);
        assertThat(fences.highestM()).isCloseTo(60, Offset.offset(0.5));
        assertThat(fences.ceilingM()).isCloseTo(65, Offset.offset(1.01));
    }

    /** Over level ground all is in sight; behind a wall-like ridge it is not, and an observer on the ridge sees the rest. */
    @Test
    void whatTheGroundHidesIsOutOfSight() {
        Sorties plain = sorties(level(), List.of(), List.of());
        PlanePoint pilot = plain.launches().get(0).launch();
        Sight open = Sight.of(plain, pilot, 1.6, 0.35);
        assertThat(open.hiddenShare()).isZero();
        assertThat(open.observer()).isEmpty();
        assertThat(open.arcMinutes())
                .isCloseTo(Math.toDegrees(Math.atan2(0.35, open.farthestM())) * 60, Offset.offset(1e-9));
        Sorties ridged =
                sorties(FormulaGround.of(5, (x, y) -> 100 + Math.max(0, 80 - Math.abs(x + 20))), List.of(), List.of());
        Sight hidden = Sight.of(ridged, ridged.launches().get(0).launch(), 1.6, 0.35);
        assertThat(hidden.hiddenShare()).isGreaterThan(0.2);
        assertThat(hidden.radioPoorShare()).isGreaterThanOrEqualTo(hidden.hiddenShare() - 0.1);
        assertThat(hidden.observer())
                .hasValueSatisfying(one -> assertThat(one.sees()).isGreaterThan(0.9));
    }

    /** A launch point inside a zone is named; segments are compared where there are several sorties. */
    @Test
    void launchPointsInZonesAndSegments() {
        Zone yard =
                new Zone("yard", Zone.Kind.KEEP_OUT, Samples.outline(-150, 100, -60, 100, -60, 200, -150, 200), 0, 20);
        assertThat(sorties(level(), List.of(), List.of(yard)).forbidding(0))
                .extracting(Zone::name)
                .containsExactly("yard");
        BlockPlan large = SortiesTest.request(Aircraft.smallMultirotor(), 900, Pins.ofGsd(2), Samples.at(-100, -100))
                .plan();
        Sorties scan = Sorties.of(Sorties.Given.usual(large));
        assertThat(scan.all().size()).isGreaterThan(2);
        Segments parts = Segments.of(scan, LaunchSearch.of(large), 240).orElseThrow();
        assertThat(parts.segments().farthestM()).isLessThan(parts.scan().farthestM());
        assertThat(parts.scan().groundS()).isEqualTo(240.0 * (scan.all().size() - 1));
    }

    /** 40 % in 12 minutes is what 30 minutes a battery mean; twice as much makes the model draw twice as much. */
    @Test
    void measuredFlightsCorrectTheModel() {
        Aircraft aircraft = Aircraft.smallMultirotor();
        BlockPlan plan = SortiesTest.request(aircraft, 300, Pins.ofGsd(2), Samples.at(0, 0))
                .plan();
        Draw draw = Draw.of(aircraft, 10);
        var pace = plan.timeline().pace();
        var on = LocalDate.of(2026, 10, 6);
        Consumption same = new Consumption(on, 0.4, 12, OptionalDouble.of(10), 0, 293.15, "");
        assertThat(same.ratio(draw, pace, 12)).isCloseTo(1, Offset.offset(1e-9));
        Consumption twice = new Consumption(on, 0.8, 12, OptionalDouble.of(10), 0, 293.15, "");
        Draw corrected = Consumption.corrected(List.of(twice), draw, pace, 12);
        assertThat(corrected.level(10)).isCloseTo(2 * draw.level(10), Offset.offset(1e-12));
        assertThat(corrected.reasons(UnitChoice.METRIC)).anyMatch(reason -> reason.contains("took 100 % more"));
        assertThat(Consumption.ratio(List.of(same, twice), draw, pace, 12)).isCloseTo(1.5, Offset.offset(1e-9));
        assertThat(Consumption.doubtful(1.5)).isTrue();
        // at 5 °C a battery holds 15 % less, so the same flight takes more of it: the model is not blamed for that
        Consumption cold = new Consumption(on, 0.4 / 0.85, 12, OptionalDouble.of(10), 0, 278.15, "");
        assertThat(cold.ratio(draw, pace, 12)).isCloseTo(1, Offset.offset(1e-9));
    }

    @Test
    void namedBatteriesAreCutForAsTheyAre() {
        BlockPlan plan = SortiesTest.request(Aircraft.smallMultirotor(), 300, Pins.ofGsd(2), Samples.at(0, 0))
                .plan();
        List<Double> usable = Packs.usable(
                plan, SortieSettings.USUAL, List.of(new Packs.Pack("A", 40, 0.9, 0.46), new Packs.Pack("B", 3, 1, 1)));
        // B: 1 − 0.25; A: 0.9 of what it holds, 0.46 less 0.25 of that
        assertThat(usable.get(0)).isCloseTo(0.75, Offset.offset(1e-9));
        assertThat(usable.get(1)).isCloseTo(0.9 * 0.21, Offset.offset(1e-9));
    }
}
