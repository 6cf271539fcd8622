package yalos.core.day;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.brief.Day;
import yalos.core.brief.Purpose;
import yalos.core.brief.Surface;
import yalos.core.day.DayPlan.Kind;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Surroundings;
import yalos.core.units.UnitChoice;
import yalos.core.weather.Limits;
import yalos.core.weather.Limits.Verdict;
import yalos.core.weather.SimulatedStation;
import yalos.core.weather.WeatherHour;

/** The order of the day against hand figures, and its light at places where days are strange. */
class DayTest {
    private static final Day BRIEF = new Day(30, 40, 8, 10, 480);
    private static final Needs PLAIN = Needs.of(Optional.empty(), Surface.GENERAL);
    private static final ZoneId UTC = ZoneId.of("UTC");

    private static List<Slot> slots(int stopFrom, int stopTo) {
        List<Slot> slots = new ArrayList<>();
        for (int minute = 0; minute < 1440; minute += Slot.MINUTES) {
            boolean dark = minute < 360 || minute >= 1200;
            boolean windy = minute >= stopFrom && minute < stopTo;
            Verdict light = dark ? Verdict.STOP : Verdict.GO;
            Verdict weather = windy ? Verdict.STOP : Verdict.GO;
            slots.add(new Slot(
                    minute,
                    light,
                    weather,
                    light.worse(weather),
                    windy ? List.of("wind 10.0 m/s, limit 8.0") : dark ? List.of("the sun is down") : List.of(),
                    0.7,
                    windy ? 10 : 3));
        }
        return slots;
    }

    private static DayPlan.Given given(DaySettings settings, List<Slot> slots, int sets, Double... sorties) {
        return new DayPlan.Given(BRIEF, settings, PLAIN, List.of(sorties), sets, slots);
    }

    private static DayPlan.Entry sortie(DayPlan plan, int number) {
        return plan.entries().stream()
                .filter(entry -> entry.kind() == Kind.SORTIE && entry.sortie() == number)
                .findFirst()
                .orElseThrow();
    }

    /** 30 of travel, 20 of setting up, 60 of targets: the first take-off is 110 minutes after 08:00. */
    @Test
    void oneThingFollowsTheOther() {
        DayPlan plan = DayPlan.of(given(DaySettings.USUAL, slots(0, 0), 3, 20.0, 18.0, 16.0), 480);
        assertThat(plan.flown()).isTrue();
        assertThat(sortie(plan, 1).from()).isCloseTo(590, Offset.offset(1e-9));
        assertThat(sortie(plan, 2).from()).isCloseTo(590 + 20 + 4, Offset.offset(1e-9));
        assertThat(sortie(plan, 3).to()).isCloseTo(590 + 20 + 4 + 18 + 4 + 16, Offset.offset(1e-9));
        // 20 of targets, 20 of packing, 30 home
        assertThat(plan.entries().get(plan.entries().size() - 1).to()).isCloseTo(652 + 70, Offset.offset(1e-9));
        for (int i = 1; i < plan.entries().size(); i++) {
            assertThat(plan.entries().get(i).from())
                    .isCloseTo(plan.entries().get(i - 1).to(), Offset.offset(1e-9));
        }
        // dusk at 20:00: 62 minutes of flying, 110 before
        assertThat(plan.latestStart()).hasValue(1200 - 62 - 110 - 8);
    }

    /** 62 minutes of flying round 12:40, 110 of preparing before: left at 10:19, to five minutes 10:20. */
    @Test
    void theDayIsLaidRoundTheMinuteThatIsWanted() {
        DayPlan.Given given = given(DaySettings.USUAL, slots(0, 0), 3, 20.0, 18.0, 16.0);
        int start = DayPlan.startRound(given, 760);
        assertThat(start).isEqualTo(620);
        DayPlan plan = DayPlan.of(given, start);
        assertThat((sortie(plan, 1).from() + sortie(plan, 3).to()) / 2).isCloseTo(760, Offset.offset(2.5));
    }

    @Test
    void aWindyHourIsWaitedForAndSaid() {
        DayPlan plan = DayPlan.of(given(DaySettings.USUAL, slots(600, 660), 3, 20.0, 18.0), 480);
        assertThat(plan.flown()).isTrue();
        assertThat(sortie(plan, 1).from()).isCloseTo(660, Offset.offset(1e-9));
        assertThat(plan.entries())
                .anyMatch(entry -> entry.kind() == Kind.WAIT
                        && entry.words().contains("wind 10.0 m/s")
                        && entry.to() - entry.from() == 70);
    }

    @Test
    void aSortieHeldBackTakesTheRestWithIt() {
        DaySettings held = DaySettings.USUAL.holding(2, 700);
        DayPlan plan = DayPlan.of(given(held, slots(0, 0), 3, 20.0, 18.0, 16.0), 480);
        assertThat(sortie(plan, 1).from()).isCloseTo(590, Offset.offset(1e-9));
        assertThat(sortie(plan, 2).from()).isCloseTo(700, Offset.offset(1e-9));
        assertThat(sortie(plan, 3).from()).isCloseTo(722, Offset.offset(1e-9));
        assertThat(held.startingAt(OptionalInt.of(500)).notBefore()).isEmpty();
    }

    /** Two sets and one charger of 60 minutes: the third sortie waits for the set of the first, landed at 610. */
    @Test
    void batteriesAreChargedOnSiteOrMissing() {
        DaySettings charging = new DaySettings(
                Optional.empty(),
                "",
                OptionalInt.empty(),
                DaySettings.USUAL.notBefore(),
                4,
                5,
                1,
                60,
                Limits.USUAL,
                List.of(),
                Optional.empty(),
                Papers.EXAMPLE);
        DayPlan plan = DayPlan.of(given(charging, slots(0, 0), 2, 20.0, 20.0, 20.0), 480);
        assertThat(sortie(plan, 3).from()).isCloseTo(670, Offset.offset(1e-9));
        DayPlan bare = DayPlan.of(given(DaySettings.USUAL, slots(0, 0), 2, 20.0, 20.0, 20.0), 480);
        assertThat(bare.flown()).isFalse();
        assertThat(bare.missing()).contains("Sortie 3 has no charged battery: 2 sets");
        assertThat(bare.latestStart()).isEmpty();
    }

    private static BlockPlan plan() {
        return Samples.request(Samples.square(200), Pins.ofGsd(2)).plan();
    }

    private static DayLight light(LocalDate date) {
        BlockPlan plan = plan();
        Surroundings around = Surroundings.of(plan, List.of());
        return DayLight.of(plan, around, new DayLight.Shade(plan, around), date, UTC);
    }

    @Test
    void theSimulatedDayHasItsWindyHourAndTheLightItsNoon() {
        LocalDate date = LocalDate.of(2027, 4, 30);
        LonLat place = Samples.at(100, 100);
        DayLight light = light(date);
        List<Slot> slots = Slot.of(
                light,
                place,
                PLAIN,
                SimulatedStation.day(date),
                Limits.USUAL.forAircraft(Aircraft.smallMultirotor().windLimitMps(), 70),
                UnitChoice.METRIC);
        assertThat(slots).hasSize(144);
        assertThat(slots.get(0).verdict()).isEqualTo(Verdict.STOP);
        assertThat(slots.get(78).verdict()).isEqualTo(Verdict.STOP);
        assertThat(slots.get(78).reasons().get(0)).startsWith("wind");
        assertThat(slots.get(60).verdict()).isEqualTo(Verdict.GO);
        List<Window> windows = Window.best(slots, 60);
        assertThat(windows.get(0).fits()).isTrue();
        assertThat(windows.get(0).verdict()).isEqualTo(Verdict.GO);
        assertThat(windows.get(0).from()).isGreaterThan(420);
        assertThat(windows.get(0).to()).isLessThanOrEqualTo(780);
        // solar noon at 4.4° W lies at about 12:15 UTC in April (equation of time +3 minutes, from memory)
        assertThat(light.minute(light.sun().noon())).isBetween(730, 742);
    }

    /** A gap in what is told is a thing to mind, and so is an hour without wind; a day of which nothing is told is judged by its light. */
    @Test
    void gapsInTheWeatherAreMinded() {
        LocalDate date = LocalDate.of(2027, 4, 30);
        LonLat place = Samples.at(100, 100);
        List<WeatherHour> gappy = new ArrayList<>(SimulatedStation.day(date));
        gappy.removeIf(hour -> hour.at().getHour() == 10);
        OptionalDouble none = OptionalDouble.empty();
        gappy.set(6, new WeatherHour(date.atTime(12, 0), none, none, none, none, none, none, none));
        Limits limits = Limits.USUAL.forAircraft(10, 70);
        List<Slot> slots = Slot.of(light(date), place, PLAIN, gappy, limits, UnitChoice.METRIC);
        assertThat(slots.get(60).verdict()).isEqualTo(Verdict.MIND);
        assertThat(slots.get(60).weather()).isEqualTo(Verdict.UNKNOWN);
        assertThat(slots.get(60).reasons()).containsExactly("weather not known");
        assertThat(slots.get(72).verdict()).isEqualTo(Verdict.MIND);
        assertThat(slots.get(72).reasons()).contains("wind not known");
        assertThat(slots.get(66).verdict()).isEqualTo(Verdict.GO);
        List<Slot> untold = Slot.of(light(date), place, PLAIN, List.of(), limits, UnitChoice.METRIC);
        assertThat(untold.get(60).verdict()).isEqualTo(Verdict.GO);
        assertThat(untold.get(60).weather()).isEqualTo(Verdict.UNKNOWN);
    }

    @Test
    void indexWorkMindsABrokenSky() {
        Needs index = Needs.of(Optional.of(Purpose.CROP_INDEX), Surface.FLAT_FIELD);
        assertThat(index.panel()).isTrue();
        assertThat(index.sky()).isEqualTo(Limits.Sky.EVEN);
        Needs lidar = Needs.of(Optional.of(Purpose.LIDAR), Surface.FOREST);
        assertThat(lidar.light()).isFalse();
    }
}
