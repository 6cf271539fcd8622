package yalos.core.sortie;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yalos.core.SampleObjects.AREA;
import static yalos.core.SampleObjects.bridge;
import static yalos.core.SampleObjects.facade;
import static yalos.core.SampleObjects.house;
import static yalos.core.SampleObjects.plan;
import static yalos.core.SampleObjects.rings;
import static yalos.core.SampleObjects.round;
import static yalos.core.SampleObjects.tower;
import static yalos.core.SampleObjects.under;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Samples;
import yalos.core.brief.Brief;
import yalos.core.finding.Case;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.flight.Climb;
import yalos.core.flight.Leg;
import yalos.core.flight.Link;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.pattern.PathClearance;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Event;
import yalos.core.rehearsal.Script;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.site.Prism;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.UnitChoice;

/** Sorties round objects: ways home clear them, nobody climbs through a deck, and the rehearsal flies them to the end. */
class ObjectSortiesTest {
    private static Sorties sorties(BlockPlan plan) {
        return Sorties.of(Sorties.Given.usual(plan));
    }

    static Stream<BlockPlan> plans() {
        return Stream.of(
                plan(house(), facade("house", 8)),
                plan(tower(), rings("tower", 8)),
                plan(bridge(3), under(6, 90)),
                plan(bridge(0), under(5, 45)));
    }

    /** Each sortie's own path keeps what is to be kept clear, ways out and home too. */
    @ParameterizedTest
    @MethodSource("plans")
    void noSortieComesNearWhatItPhotographs(BlockPlan plan) {
        for (Sortie sortie : sorties(plan).all()) {
            PathClearance path = PathClearance.of(
                    sortie.flight(), round(plan).built(), round(plan).scene().ground());
            assertThat(path.nearest().orElseThrow().m()).isGreaterThan(3 - 0.5);
            Leg before = null;
            for (Leg leg : sortie.flight().legs()) {
                if (before != null) {
                    assertThat(leg.start().point().distanceM(before.end().point()))
                            .isLessThan(1e-6);
                    assertThat(leg.start().upM()).isCloseTo(before.end().upM(), within(1e-6));
                }
                before = leg;
            }
        }
    }

    /** From under the middle of a deck 6 m wide, 3 m kept: 6 m and a hair level to its edge, at 4 m/s at most, then up (hand). */
    @Test
    void fromUnderADeckItLeavesToTheSideBeforeItClimbs() {
        BlockPlan plan = plan(bridge(0), under(6, 90));
        Homing homing = sorties(plan).launches().get(0);
        PlanePoint middle = round(plan).built().get(0).solid().middle();
        Place beneath = Place.over(middle, 8);

        List<Leg> home = homing.home(beneath);
        assertThat(home.get(0)).isInstanceOf(Link.class);
        Way out = (Way) home.get(0);
        assertThat(out.lengthM()).isBetween(6.0, 6.5);
        assertThat(out.speedMps()).isLessThanOrEqualTo(4);
        assertThat(out.end().upM()).isEqualTo(8);
        assertThat(home.get(1)).isInstanceOf(Climb.class);
        assertThat(home.get(1).start().point().distanceM(out.end().point())).isLessThan(1e-9);
        List<Leg> there = homing.out(beneath);
        Leg in = there.get(there.size() - 1);
        assertThat(in.end().point().distanceM(middle)).isLessThan(1e-9);
        assertThat(in.start().point().distanceM(out.end().point())).isLessThan(1e-9);

        Draw draw = Draw.of(plan.request().aircraft(), plan.design().speedMps());
        Place beside = out.end();
        assertThat(homing.open(beside)).isEqualTo(beside);
        assertThat(homing.homeTakes(draw, beneath))
                .as("the slow way to the side is reckoned with")
                .isGreaterThan(homing.homeTakes(draw, beside));
    }

    /** A tower of 24 m, of which 3 m are to be kept clear, 20 m by the sorties' own margin: 27 m at least, and 44 m where the way home leads over it. */
    @Test
    void theReturnHeightClearsObjects() {
        BlockPlan plan = plan(tower(), rings("tower", 8));
        assertThat(plan.returnAboveTakeOffM().orElseThrow()).isGreaterThanOrEqualTo(27);
        Homing homing = sorties(plan).launches().get(0);
        assertThat(homing.returnUpM()).isCloseTo(44, within(1e-9));
        Finding said = Findings.of(Case.of(plan, Brief.EMPTY), UnitChoice.METRIC).stream()
                .filter(finding -> finding.key().equals("return-height"))
                .findFirst()
                .orElseThrow();
        assertThat(said.sentence()).contains("obstacles and objects");
    }

    @Test
    void nobodyTakesOffFromAnObjectAndItHidesWhatLiesBehind() {
        BlockPlan plan = plan(tower(), rings("tower", 8));
        Surroundings around = sorties(plan).given().around();
        Prism foot = round(plan).built().get(0).solid();
        PlanePoint middle = foot.middle();
        HeightGrid surface = around.surface();

        assertThat(around.bare()).isFalse();
        assertThat(around.hasRoom(middle, 1)).isFalse();
        assertThat(around.hasRoom(middle.moved(0, 40), 15)).isTrue();
        assertThat(surface.at(middle.xM(), middle.yM())).isGreaterThanOrEqualTo(foot.topM() - 1e-6);
        assertThat(around.within(Place.over(middle, 1))).isTrue();
        assertThat(around.within(Place.over(middle, 25))).isFalse();
        assertThat(LaunchSearch.of(plan)).isNotEmpty().allMatch(spot -> foot.asideM(spot.at()) > 15);
        assertThat(around.topBetween(middle.moved(0, 60), middle.moved(Math.PI, 60), 1)
                        .upM())
                .isEqualTo(24);
    }

    /** Below a deck the air is free, within it not; and a deck is no wall for the eye. */
    @Test
    void aDeckIsNoGround() {
        BlockPlan plan = plan(bridge(0), under(6, 90));
        Surroundings around = sorties(plan).given().around();
        PlanePoint middle = round(plan).built().get(0).solid().middle();
        assertThat(around.within(Place.over(middle, 8))).isFalse();
        assertThat(around.within(Place.over(middle, 14.5))).isTrue();
        assertThat(around.surface().at(middle.xM(), middle.yM())).isEqualTo(0);
    }

    /** In calm air every station gets its photo, and nothing stops the aircraft however low it was planned. */
    @ParameterizedTest
    @MethodSource("plans")
    void theRehearsalFliesThemToTheEnd(BlockPlan plan) {
        Sorties sorties = sorties(plan);
        SimulatedFlight flight = new SimulatedFlight(sorties, 1, Script.calm(1));
        flight.press(Command.of(Command.Kind.START), "", "");
        while (!flight.over()) {
            flight.step();
        }
        assertThat(flight.events())
                .extracting(Event::kind)
                .contains("landed")
                .doesNotContain("floor", "struck", "lost");
        assertThat(flight.taken()).hasSize(sorties.all().get(0).photos());
    }

    @Test
    void whatStandsBesideTheLaunchPointIsSaid() {
        BlockPlan near = plan(house(), facade("house", 8));
        assertThat(Findings.of(Case.of(near, Brief.EMPTY), UnitChoice.METRIC))
                .extracting(Finding::key)
                .doesNotContain("launch-object");
        PlanRequest asked = near.request();
        BlockPlan beside = new PlanRequest(
                        asked.kit(), asked.pins(), AREA, Optional.of(Samples.at(68, 75)), OptionalInt.of(32630))
                .with(asked.patterns())
                .plan();
        assertThat(Findings.of(Case.of(beside, Brief.EMPTY), UnitChoice.METRIC))
                .anyMatch(finding -> finding.key().equals("launch-object") && finding.level() == Finding.Level.STOP);
    }
}
