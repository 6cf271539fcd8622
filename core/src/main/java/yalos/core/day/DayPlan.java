package yalos.core.day;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.PriorityQueue;
import yalos.core.brief.Day;
import yalos.core.weather.Limits.Verdict;

/**
 * The day from leaving to being back: travel, base and targets, panel, sorties with battery changes, waiting for weather and for batteries, collecting, packing. Everything follows the time it begins at.
 *
 * @param entries in their order; charging runs beside them
 * @param flown whether every sortie finds its time
 * @param missing why one does not, in a sentence; empty where all do
 * @param latestStart minute of the day of the latest leaving that still works; empty where none does
 */
public record DayPlan(List<Entry> entries, boolean flown, String missing, OptionalInt latestStart) {
    private static final int A_DAY = 24 * 60;
    private static final int STEP_MIN = 10;
    private static final double COLLECTING = 0.5;

    public DayPlan {
        entries = List.copyOf(entries);
    }

    /** What is done. */
    public enum Kind {
        TRAVEL,
        GROUND,
        PANEL,
        SORTIE,
        CHANGE,
        WAIT,
        CHARGE
    }

    /**
     * One entry.
     *
     * @param sortie its number; 0 for all else
     * @param from minute of the day, with its fraction
     * @param to minute of the day
     */
    public record Entry(Kind kind, String words, int sortie, double from, double to) {}

    /**
     * What the day is made of.
     *
     * @param day of the brief: travel, setting up, targets
     * @param settings the operator's
     * @param needs of the product
     * @param sorties minutes of each in the air
     * @param sets battery sets that are there, charged
     * @param slots of the day
     */
    public record Given(Day day, DaySettings settings, Needs needs, List<Double> sorties, int sets, List<Slot> slots) {}

    /** The day begun at a minute, and the latest minute at which it might be. */
    public static DayPlan of(Given given, int startMin) {
        DayPlan own = laid(given, startMin);
        OptionalInt latest = OptionalInt.empty();
        for (int start = A_DAY - STEP_MIN; start >= 0 && latest.isEmpty(); start -= STEP_MIN) {
            Given free = new Given(
                    given.day,
                    given.settings.startingAt(OptionalInt.of(start)),
                    given.needs,
                    given.sorties,
                    given.sets,
                    given.slots);
            if (laid(free, start).flown) {
                latest = OptionalInt.of(start);
            }
        }
        return new DayPlan(own.entries, own.flown, own.missing, latest);
    }

    /** The start at which flying lies round a minute of the day, such as solar noon. */
    public static int startRound(Given given, int middleMin) {
        double before = before(given);
        double start = middleMin - flyingMin(given) / 2 - before;
        return (int) (Math.round(Math.max(0, Math.min(A_DAY - STEP_MIN, start)) / 5) * 5);
    }

    /** Minutes from the first take-off to the last landing, where nothing is waited for. */
    public static double flyingMin(Given given) {
        return given.sorties.stream().mapToDouble(Double::doubleValue).sum()
                + given.settings.changeMin() * Math.max(0, given.sorties.size() - 1);
    }

    /** Minutes from leaving to the first take-off. */
    private static double before(Given given) {
        Laying laying = new Laying(given, 0);
        laying.prepare();
        return laying.now;
    }

    /** The day begun at a minute; the latest start is not looked for. */
    public static DayPlan laid(Given given, int startMin) {
        Laying laying = new Laying(given, startMin);
        boolean flown = laying.fly();
        return new DayPlan(laying.entries, flown, laying.missing, OptionalInt.empty());
    }

    /** Puts one after the other. */
    private static final class Laying {
        private final Given given;
        private final List<Entry> entries = new ArrayList<>();
        private final PriorityQueue<Double> ready = new PriorityQueue<>();
        private final PriorityQueue<Double> chargers = new PriorityQueue<>();
        private double now;
        private String missing = "";

        Laying(Given given, int startMin) {
            this.given = given;
            this.now = startMin;
            for (int i = 0; i < given.sets; i++) {
                ready.add(0.0);
            }
            for (int i = 0; i < given.settings.chargers(); i++) {
                chargers.add(0.0);
            }
        }

        private void add(Kind kind, String words, int sortie, double minutes) {
            if (minutes > 0) {
                entries.add(new Entry(kind, words, sortie, now, now + minutes));
                now += minutes;
            }
        }

        void prepare() {
            Day day = given.day;
            add(Kind.TRAVEL, "travel out", 0, day.travelMinutes());
            add(Kind.GROUND, "set up, base, briefing", 0, day.setUpMinutes() * COLLECTING);
            add(Kind.GROUND, day.targets() + " targets laid and measured", 0, targets(day) * (1 - COLLECTING / 2));
            panel();
        }

        private static double targets(Day day) {
            return day.targets() * day.minutesPerTarget();
        }

        boolean fly() {
            Day day = given.day;
            prepare();
            for (int i = 0; i < given.sorties.size(); i++) {
                if (i > 0) {
                    add(Kind.CHANGE, "battery change", 0, given.settings.changeMin());
                }
                if (!sortie(i + 1, given.sorties.get(i))) {
                    return false;
                }
            }
            panel();
            add(Kind.GROUND, "targets collected", 0, targets(day) * COLLECTING / 2);
            add(Kind.GROUND, "copy, check, pack up", 0, day.setUpMinutes() * COLLECTING);
            add(Kind.TRAVEL, "travel home", 0, day.travelMinutes());
            return true;
        }

        private void panel() {
            if (given.needs.panel()) {
                add(Kind.PANEL, "reflectance panel", 0, given.settings.panelMin());
            }
        }

        private boolean sortie(int number, double minutes) {
            if (ready.isEmpty()) {
                missing =
                        "Sortie %d has no charged battery: %d sets are there and nothing charges on site. Bring more, or a charger."
                                .formatted(number, given.sets);
                return false;
            }
            double battery = ready.poll();
            if (battery > now) {
                add(Kind.WAIT, "wait for a battery", number, battery - now);
            }
            double wanted = Math.max(now, given.settings.notBefore().getOrDefault(number, 0));
            double begin = clearFrom(wanted, minutes);
            if (Double.isNaN(begin)) {
                missing = "Sortie %d finds no %.0f minutes of weather and light after %s."
                        .formatted(number, minutes, clock(wanted));
                return false;
            }
            String why = wanted > now && begin == wanted ? "held" : "wait for " + stopper(Math.max(now, wanted), begin);
            add(Kind.WAIT, why, number, begin - now);
            add(Kind.SORTIE, "sortie " + number, number, minutes);
            charge(number);
            return true;
        }

        /** The landed set goes on the charger that is free first. */
        private void charge(int number) {
            if (chargers.isEmpty()) {
                return;
            }
            double begin = Math.max(now, chargers.poll());
            double end = begin + given.settings.chargeMin();
            chargers.add(end);
            ready.add(end);
            entries.add(new Entry(Kind.CHARGE, "charging set of sortie " + number, number, begin, end));
        }

        /** The first moment from which nothing stops flying for so long; not a number for none on this day. */
        private double clearFrom(double from, double minutes) {
            double begin = from;
            while (begin + minutes <= A_DAY) {
                double blocked = Double.NaN;
                for (Slot slot : given.slots) {
                    boolean meets = slot.minute() < begin + minutes && slot.minute() + Slot.MINUTES > begin;
                    if (meets && slot.verdict() == Verdict.STOP) {
                        blocked = slot.minute() + Slot.MINUTES;
                    }
                }
                if (Double.isNaN(blocked)) {
                    return begin;
                }
                begin = blocked;
            }
            return Double.NaN;
        }

        private String stopper(double from, double to) {
            return given.slots.stream()
                    .filter(slot -> slot.minute() + Slot.MINUTES > from
                            && slot.minute() <= to + Slot.MINUTES
                            && slot.verdict() == Verdict.STOP
                            && !slot.reasons().isEmpty())
                    .map(slot -> slot.reasons().get(0))
                    .findFirst()
                    .orElse("weather and light");
        }
    }

    /** A minute of the day as a clock shows it. */
    public static String clock(double minute) {
        int whole = (int) Math.round(minute);
        return "%02d:%02d".formatted(Math.floorMod(whole, A_DAY) / 60, Math.floorMod(whole, 60))
                + (whole >= A_DAY ? " next day" : "");
    }
}
