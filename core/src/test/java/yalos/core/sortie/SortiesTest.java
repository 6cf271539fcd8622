package yalos.core.sortie;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.flight.Alignment;
import yalos.core.flight.Exposure;
import yalos.core.flight.Timeline;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.AlignmentPass;
import yalos.core.pattern.Patterns;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Properties every cut keeps: home with the reserve from everywhere, every station flown, energy the same by leg and by the clock. */
class SortiesTest {
    static PlanRequest request(Aircraft aircraft, double side, Pins pins, LonLat launch) {
        return new PlanRequest(
                Kit.of(aircraft, Samples.twentyMegapixel()),
                pins,
                Samples.square(side),
                Optional.of(launch),
                OptionalInt.of(32630));
    }

    private static Pins windy(double mps, double fromDeg) {
        Pins pins = Pins.ofGsd(2);
        return mps == 0
                ? pins
                : pins.with(Quantity.WIND, Measure.of(mps, Unit.METRE_PER_SECOND))
                        .with(Quantity.WIND_FROM, Measure.of(fromDeg, Unit.DEGREE));
    }

    private static GroundRequest ridge() {
        return new GroundRequest(
                FormulaGround.of(5, (x, y) -> 200 + 60 * Math.exp(-Math.pow((x - 40) / 120, 2))),
                HeightChoice.USUAL,
                List.of(),
                List.of(),
                OptionalDouble.empty());
    }

    @ParameterizedTest
    @CsvSource({
        "rotor, 650, 0, 0, false",
        "rotor, 700, 6, 250, false",
        "rotor, 600, 8, 20, true",
        "wing, 1200, 7, 100, false",
        "wing, 900, 0, 0, true"
    })
    void everyPointComesHomeWithTheReserve(String what, double side, double wind, double from, boolean hill) {
        Aircraft aircraft = what.equals("wing") ? Aircraft.smallWing() : Aircraft.smallMultirotor();
        PlanRequest request = request(aircraft, side, windy(wind, from), Samples.at(-60, -40));
        BlockPlan plan = (hill ? request.over(ridge()) : request).plan();
        Sorties sorties = Sorties.of(Sorties.Given.usual(plan));
        Draw draw = sorties.given().draw();
        boolean[] flown = new boolean[plan.photos()];
        int next = 0;
        for (Sortie sortie : sorties.all()) {
            assertThat(sortie.from()).isEqualTo(next);
            assertThat(sortie.start()).isBetween(sortie.from() - 2, sortie.from());
            next = sortie.to() + 1;
            assertThat(sortie.least().margin()).isGreaterThanOrEqualTo(-1e-9);
            assertThat(sortie.spare()).isGreaterThanOrEqualTo(sortie.least().margin() - 1e-9);
            double[] photosS = sortie.timeline().exposuresS();
            for (double at = 0; at < photosS[photosS.length - 1]; at += 7.3) {
                assertThat(sortie.marginAt(draw, at)).isGreaterThanOrEqualTo(-1e-4);
            }
            List<Exposure> photos = sortie.flight().exposures();
            assertThat(photos).hasSize(sortie.photos());
            for (int i = 0; i < photos.size(); i++) {
                flown[sortie.start() + i] = true;
                assertThat(photos.get(i).pose())
                        .isEqualTo(plan.flight()
                                .exposures()
                                .get(sortie.start() + i)
                                .pose());
            }
        }
        assertThat(flown).doesNotContain(false);
        assertThat(next).isEqualTo(plan.photos());
        assertThat(sorties.all().size()).isGreaterThan(1);
    }

    /** What legs take together is what the clock integrates second by second: 0.05 s steps against the closed pieces. */
    @ParameterizedTest
    @CsvSource({"rotor, 5, 140", "wing, 6, 40", "rotor, 0, 0"})
    void energyIsTheSameByLegsAndByTheClock(String what, double wind, double from) {
        Aircraft aircraft = what.equals("wing") ? Aircraft.smallWing() : Aircraft.smallMultirotor();
        BlockPlan plan =
                request(aircraft, 300, windy(wind, from), Samples.at(-30, -30)).plan();
        Draw draw = Draw.of(aircraft, plan.design().speedMps());
        Timeline timeline = plan.timeline();
        double climbing = timeline.climbingS();
        double up = climbing * aircraft.descentMps() / (aircraft.climbMps() + aircraft.descentMps());
        double vertical =
                up * draw.vertical(aircraft.climbMps()) + (climbing - up) * draw.vertical(-aircraft.descentMps());
        double step = 0.05;
        double level = 0;
        for (double at = step / 2; at < timeline.totalS(); at += step) {
            Timeline.Moment moment = timeline.at(at);
            boolean still = moment.groundMps() == 0;
            level += still ? 0 : step * draw.level(moment.airspeedMps());
        }
        assertThat(timeline.tally(draw).whole()).isCloseTo(vertical + level, Offset.offset(0.002));
        assertThat(timeline.tally(draw).at(timeline.totalS() / 2))
                .isBetween(0.3 * (vertical + level), 0.7 * (vertical + level));
    }

    /** Nominal minutes are those of mapping: a straight line at that speed in still air empties a full battery in them. */
    @Test
    void nominalMinutesAreThoseOfMapping() {
        Draw draw = Draw.of(Aircraft.smallMultirotor(), 10);
        assertThat(draw.level(10) * 30 * 60).isCloseTo(1, Offset.offset(1e-12));
        assertThat(draw.level(7.5)).isLessThan(draw.level(0)).isLessThan(draw.level(15));
        assertThat(draw.vertical(4)).isGreaterThan(draw.vertical(0));
        assertThat(draw.vertical(0)).isCloseTo(draw.level(0), Offset.offset(1e-15));
    }

    @Test
    void aLaunchPointNearerIsTakenWhereThereAreTwo() {
        BlockPlan plan = request(Aircraft.smallMultirotor(), 700, Pins.ofGsd(1.5), Samples.at(-200, -200))
                .plan();
        Sorties one = Sorties.of(Sorties.Given.usual(plan));
        List<PlanePoint> two = new ArrayList<>(one.given().launches());
        two.add(plan.block().plane().toPlane(Samples.at(720, 720)));
        Sorties.Given given = one.given();
        Sorties both = Sorties.of(new Sorties.Given(
                plan, Surroundings.of(plan, two), given.settings(), two, given.draw(), given.usable()));
        assertThat(both.seconds()).isLessThan(one.seconds());
        assertThat(both.all()).extracting(Sortie::launch).contains(0, 1);
        assertThat(both.all().size()).isLessThanOrEqualTo(one.all().size());
    }

    /** Three good batteries and one nearly empty: the weak one stays behind, and where that is too few the good ones are charged again. */
    @Test
    void aWeakBatteryStaysBehind() {
        BlockPlan plan = request(Aircraft.smallMultirotor(), 800, Pins.ofGsd(2), Samples.at(-60, -40))
                .plan();
        Sorties.Given all = Sorties.Given.usual(plan);
        Sorties.Given mixed = new Sorties.Given(
                plan, all.around(), all.settings(), all.launches(), all.draw(), List.of(0.55, 0.2, 0.5, 0.52));
        Sorties sorties = Sorties.of(mixed);
        assertThat(sorties.batteries()).isLessThan(4);
        assertThat(sorties.all()).allMatch(sortie -> sortie.usable() >= 0.5);
        assertThat(sorties.all().size()).isGreaterThan(2);
    }

    /** A lidar aligns at both ends of every sortie. */
    @Test
    void aLidarsAlignmentCountsInEverySortie() {
        PlanRequest plain = request(Aircraft.smallMultirotor(), 400, Pins.ofGsd(2), Samples.at(-60, -40));
        BlockPlan plan =
                plain.with(Patterns.SINGLE.with(List.of(AlignmentPass.USUAL))).plan();
        assertThat(plan.flight().alignment()).isPresent();
        Sorties aligned = Sorties.of(Sorties.Given.usual(plan));
        Sorties without = Sorties.of(Sorties.Given.usual(plain.plan()));
        double seconds = Alignment.seconds(plan.timeline());
        assertThat(aligned.seconds() - without.seconds())
                .isGreaterThanOrEqualTo(seconds * without.all().size() - 60);
    }

    @Test
    void whatCannotBeFlownIsToldWithFigures() {
        BlockPlan far = request(Aircraft.smallMultirotor(), 300, Pins.ofGsd(2), Samples.at(-9000, 0))
                .plan();
        assertThatThrownBy(() -> Sorties.of(Sorties.Given.usual(far))).hasMessageContaining("does not reach station");
        BlockPlan stormy = request(Aircraft.smallMultirotor(), 300, windy(18, 0), Samples.at(0, -50))
                .plan();
        assertThatThrownBy(() -> Sorties.of(Sorties.Given.usual(stormy))).hasMessageContaining("wind is stronger");
        BlockPlan usual = request(Aircraft.smallMultirotor(), 300, Pins.ofGsd(2), Samples.at(0, -50))
                .plan();
        Sorties.Given given = Sorties.Given.usual(usual);
        assertThatThrownBy(() -> Sorties.of(new Sorties.Given(
                        usual, given.around(), given.settings(), given.launches(), given.draw(), List.of(-0.05))))
                .hasMessageContaining("no more than the reserve");
        assertThatThrownBy(() -> Sorties.of(new Sorties.Given(
                        usual, given.around(), given.settings(), List.of(), given.draw(), given.usable())))
                .hasMessageContaining("launch point");
    }
}
