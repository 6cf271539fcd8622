package yalos.core.brief;

import static yalos.core.fault.InputFault.within;

import java.util.ArrayList;
import java.util.List;

/**
 * How the day on site is spent, besides flying. All in minutes.
 *
 * @param travelMinutes one way
 * @param setUpMinutes unpacking, base set-up, briefing, and packing up again
 * @param targets ground targets to lay, measure and collect
 * @param minutesPerTarget for each, the walk included
 * @param dayMinutes from leaving to being back
 */
public record Day(double travelMinutes, double setUpMinutes, int targets, double minutesPerTarget, double dayMinutes) {
    /** Half an hour each way, half an hour of setting up, no targets, a day of eight hours (common practice). */
    public static final Day USUAL = new Day(30, 30, 0, 8, 480);

    /** Minutes to land, change the set and take off again (common practice). */
    public static final double BATTERY_CHANGE_MINUTES = 4;

    public Day {
        within("travelMinutes", travelMinutes, 0, 1440, "min");
        within("setUpMinutes", setUpMinutes, 0, 1440, "min");
        within("targets", targets, 0, 1000, "");
        within("minutesPerTarget", minutesPerTarget, 0, 240, "min");
        within("dayMinutes", dayMinutes, 30, 2880, "min");
    }

    /** One entry of the day. */
    public record Entry(String what, double minutes) {}

    /** The day in its order, for a flight of so many minutes on so many battery sets. */
    public List<Entry> entries(double flightMinutes, int sets) {
        List<Entry> entries = new ArrayList<>();
        entries.add(new Entry("travel out", travelMinutes));
        entries.add(new Entry("set up and pack up", setUpMinutes));
        if (targets > 0) {
            entries.add(new Entry(targets + " targets laid and measured", targets * minutesPerTarget));
        }
        entries.add(new Entry("flying", flightMinutes));
        if (sets > 1) {
            entries.add(new Entry((sets - 1) + " battery changes", (sets - 1) * BATTERY_CHANGE_MINUTES));
        }
        entries.add(new Entry("travel home", travelMinutes));
        return entries;
    }

    /** Minutes of the whole day. */
    public double totalMinutes(double flightMinutes, int sets) {
        return entries(flightMinutes, sets).stream().mapToDouble(Entry::minutes).sum();
    }
}
