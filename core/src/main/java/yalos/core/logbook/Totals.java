package yalos.core.logbook;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import yalos.core.logbook.FlightRecord.Crew;
import yalos.core.logbook.FlightRecord.Pack;

/**
 * Flights added up: hours and cycles by aircraft, battery and person.
 *
 * @param people hours of whoever flew; others with their flights alone
 */
public record Totals(
        int flights,
        double minutes,
        long photos,
        Map<String, Sum> aircraft,
        Map<String, Sum> batteries,
        Map<String, Sum> people) {

    /** What a total needs of a flight. */
    public record Entry(LocalDate on, String aircraft, double minutes, int photos, List<Crew> crew, List<Pack> packs) {}

    /**
     * What one aircraft, battery or person has.
     *
     * @param cycles full charges taken, parts added up; a flight whose charge nobody read counts as one
     * @param last day on which it flew
     */
    public record Sum(int flights, double minutes, double cycles, LocalDate last) {
        Sum plus(double more, double taken, LocalDate on) {
            return new Sum(flights + 1, minutes + more, cycles + taken, on.isAfter(last) ? on : last);
        }

        public double hours() {
            return minutes / 60;
        }
    }

    /** All flights together. A battery of several counts the whole flight: it was in the air all the time. */
    public static Totals of(Collection<Entry> flights) {
        Map<String, Sum> aircraft = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        Map<String, Sum> batteries = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        Map<String, Sum> people = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        double minutes = 0;
        long photos = 0;
        for (Entry flight : flights) {
            minutes += flight.minutes();
            photos += flight.photos();
            double taken = 0;
            for (Pack pack : flight.packs()) {
                taken += pack.taken().orElse(1);
                add(batteries, pack.name(), flight.minutes(), pack.taken().orElse(1), flight.on());
            }
            add(aircraft, flight.aircraft(), flight.minutes(), taken, flight.on());
            for (Crew one : flight.crew()) {
                add(people, one.name(), one.role().equals(Crew.PILOT) ? flight.minutes() : 0, 0, flight.on());
            }
        }
        return new Totals(flights.size(), minutes, photos, aircraft, batteries, people);
    }

    private static void add(Map<String, Sum> sums, String name, double minutes, double cycles, LocalDate on) {
        sums.put(name, sums.getOrDefault(name, new Sum(0, 0, 0, on)).plus(minutes, cycles, on));
    }
}
