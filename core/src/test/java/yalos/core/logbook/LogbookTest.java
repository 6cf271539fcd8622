package yalos.core.logbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.fault.InputFault;
import yalos.core.logbook.FlightRecord.Air;
import yalos.core.logbook.FlightRecord.Crew;
import yalos.core.logbook.FlightRecord.Figures;
import yalos.core.logbook.FlightRecord.Happening;
import yalos.core.logbook.FlightRecord.Kind;
import yalos.core.logbook.FlightRecord.Pack;
import yalos.core.units.UnitChoice;

/** Flights of the log: what is refused, what differs from the plan, hours and cycles as a spreadsheet adds them, service that falls due. */
class LogbookTest {
    private static Pack pack(String name, double before, double after) {
        return new Pack(name, OptionalDouble.of(before), OptionalDouble.of(after));
    }

    private static FlightRecord flight(double minutes, List<Crew> crew, List<Pack> packs) {
        return new FlightRecord(
                LocalDateTime.of(2026, 5, 14, 10, 42),
                ZoneId.of("Europe/London"),
                minutes,
                1,
                "small multirotor",
                "20-megapixel 4/3-inch camera",
                Optional.empty(),
                crew,
                packs,
                Figures.NONE,
                Figures.NONE,
                Air.UNKNOWN,
                OptionalInt.empty(),
                "",
                List.of(),
                "");
    }

    @Test
    void whatCannotBeIsRefusedByName() {
        assertThatThrownBy(() -> flight(0, List.of(), List.of())).hasMessageContaining("more than nothing");
        assertThatThrownBy(() -> flight(2000, List.of(), List.of())).hasMessageContaining("less than a day");
        assertThatThrownBy(() -> flight(Double.NaN, List.of(), List.of())).isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> pack("T1", 0.3, 0.9)).hasMessageContaining("are the two swapped");
        assertThatThrownBy(() -> pack("T1", 1.3, 0.9)).isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> pack(" ", 1, 0.9)).hasMessageContaining("written on it");
        assertThatThrownBy(() -> flight(5, List.of(), List.of(pack("T1", 1, 0.5), pack("T1", 1, 0.5))))
                .hasMessageContaining("stands twice");
        assertThatThrownBy(() -> new Happening(Kind.DECISION, "", "strip 4 again", " ", ""))
                .hasMessageContaining("because?");
        assertThat(new Happening(Kind.EVENT, "", "wind got up", "", "").what()).isEqualTo("wind got up");
    }

    @Test
    void whoeverFliesFirstIsThePilot() {
        FlightRecord flight =
                flight(5, List.of(new Crew("B. Watcher", "observer"), new Crew("A. Pilot", "")), List.of());
        assertThat(flight.pilot()).isEqualTo("A. Pilot");
        assertThat(flight(5, List.of(), List.of()).pilot()).isEmpty();
    }

    /** Against a second way of adding up, row by row, as a spreadsheet would. */
    @Test
    void totalsAreTheSumsOfTheirFlights() {
        Random random = new Random(15);
        List<Totals.Entry> flights = new ArrayList<>();
        Map<String, double[]> batteries = new TreeMap<>();
        Map<String, double[]> aircraft = new TreeMap<>();
        Map<String, double[]> people = new TreeMap<>();
        double minutes = 0;
        for (int i = 0; i < 10_000; i++) {
            double lasted = 1 + random.nextInt(240) / 10.0;
            String craft = "aircraft " + random.nextInt(3);
            String pilot = "pilot " + random.nextInt(4);
            List<Pack> packs = new ArrayList<>();
            for (int p = 0; p <= random.nextInt(2); p++) {
                String name = "T" + (2 * random.nextInt(6) + p);
                boolean read = random.nextInt(10) > 0;
                double after = random.nextInt(60) / 100.0;
                packs.add(
                        read
                                ? pack(name, 0.95, after)
                                : new Pack(name, OptionalDouble.empty(), OptionalDouble.empty()));
                double taken = read ? 0.95 - after : 1;
                batteries.merge(name, new double[] {1, lasted, taken}, LogbookTest::sum);
                aircraft.merge(craft, new double[] {0, 0, taken}, LogbookTest::sum);
            }
            aircraft.merge(craft, new double[] {1, lasted, 0}, LogbookTest::sum);
            people.merge(pilot, new double[] {1, lasted, 0}, LogbookTest::sum);
            people.merge("observer", new double[] {1, 0, 0}, LogbookTest::sum);
            minutes += lasted;
            flights.add(new Totals.Entry(
                    LocalDate.of(2026, 1, 1).plusDays(i % 365),
                    craft,
                    lasted,
                    10,
                    List.of(new Crew(pilot, Crew.PILOT), new Crew("observer", "observer")),
                    packs));
        }
        Totals totals = Totals.of(flights);
        assertThat(totals.flights()).isEqualTo(10_000);
        assertThat(totals.minutes()).isCloseTo(minutes, within(1e-6));
        assertThat(totals.photos()).isEqualTo(100_000);
        same(totals.batteries(), batteries);
        same(totals.aircraft(), aircraft);
        same(totals.people(), people);
        assertThat(totals.aircraft().get("aircraft 0").last()).isEqualTo(LocalDate.of(2026, 12, 31));
    }

    private static double[] sum(double[] one, double[] other) {
        return new double[] {one[0] + other[0], one[1] + other[1], one[2] + other[2]};
    }

    private static void same(Map<String, Totals.Sum> sums, Map<String, double[]> expected) {
        assertThat(sums.keySet()).isEqualTo(expected.keySet());
        expected.forEach((name, all) -> {
            assertThat(sums.get(name).flights()).isEqualTo((int) all[0]);
            assertThat(sums.get(name).minutes()).isCloseTo(all[1], within(1e-6));
            assertThat(sums.get(name).cycles()).isCloseTo(all[2], within(1e-6));
        });
    }

    @Test
    void differencesAreToldWhereTheyMatter() {
        Figures planned = new Figures(
                OptionalInt.of(201),
                OptionalDouble.of(10),
                OptionalDouble.of(50_000),
                OptionalDouble.of(0.99996),
                OptionalDouble.of(0.5),
                OptionalDouble.of(0.02));
        Figures flown = new Figures(
                OptionalInt.of(198),
                OptionalDouble.of(11.2),
                OptionalDouble.of(49_000),
                OptionalDouble.of(0.98),
                OptionalDouble.of(0.55),
                OptionalDouble.empty());
        Map<String, Difference> all = new TreeMap<>();
        Difference.of(planned, flown, UnitChoice.METRIC).forEach(one -> all.put(one.label(), one));
        assertThat(all.get("photos").change()).isEqualTo("−3");
        assertThat(all.get("photos").mind()).isTrue();
        assertThat(all.get("minutes in the air").change()).isEqualTo("+12 %");
        assertThat(all.get("minutes in the air").mind()).isTrue();
        assertThat(all.get("area given enough").change()).isEqualTo("−2 %");
        // Never rounded up to a whole.
        assertThat(all.get("block given enough").planned()).isEqualTo("99.99 %");
        assertThat(all.get("block given enough").change()).isEqualTo("−2.0 points");
        assertThat(all.get("battery taken").mind()).isFalse();
        assertThat(all.get("GSD").flown()).isEqualTo("–");
        assertThat(Difference.of(planned, planned, UnitChoice.METRIC))
                .allMatch(one -> one.change().equals("as planned") && !one.mind());
        assertThat(Difference.of(Figures.NONE, Figures.NONE, UnitChoice.METRIC)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        // every h, every days, done, hours then, hours now, today, words, mood
        "50, , 2026-01-01, 100, 120, 2026-06-01, in 30 h 00 min of flight, done",
        "50, , 2026-01-01, 100, 146, 2026-06-01, in 4 h 00 min of flight, mind",
        "50, , 2026-01-01, 100, 152.5, 2026-06-01, overdue by 2 h 30 min, stop",
        ", 180, 2026-01-01, 0, 0, 2026-02-01, 'in 149 days, on 2026-06-30', done",
        ", 180, 2026-01-01, 0, 0, 2026-06-20, 'in 10 days, on 2026-06-30', mind",
        ", 180, 2026-01-01, 0, 0, 2026-07-01, due since 2026-06-30, stop",
        "50, 180, 2026-01-01, 100, 148, 2026-02-01, in 2 h 00 min of flight, mind",
        "50, 180, 2026-01-01, 100, 101, 2026-06-25, 'in 5 days, on 2026-06-30', mind",
    })
    void serviceFallsDueByHoursOrDaysWhicheverIsFirst(
            Double hours, Integer days, String done, double then, double now, String today, String words, String mood) {
        Upkeep upkeep = new Upkeep(
                "small multirotor",
                "propellers",
                hours == null ? OptionalDouble.empty() : OptionalDouble.of(hours),
                days == null ? OptionalInt.empty() : OptionalInt.of(days),
                LocalDate.parse(done),
                then);
        Upkeep.Due due = upkeep.due(now, LocalDate.parse(today));
        assertThat(due.words()).isEqualTo(words);
        assertThat(due.mood()).isEqualTo(mood);
    }

    @Test
    void serviceWithoutIntervalIsRefused() {
        assertThatThrownBy(() ->
                        new Upkeep("a", "b", OptionalDouble.empty(), OptionalInt.empty(), LocalDate.of(2026, 1, 1), 0))
                .hasMessageContaining("after how many hours or days");
    }
}
