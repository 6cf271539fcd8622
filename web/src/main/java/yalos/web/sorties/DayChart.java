package yalos.web.sorties;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import yalos.core.day.DayPlan;
import yalos.core.day.DayPlan.Entry;
import yalos.core.day.DayPlan.Kind;
import yalos.core.day.Slot;
import yalos.core.units.Unit;
import yalos.core.weather.Limits.Verdict;
import yalos.web.figure.Chart;

/** The day on one chart: windows of light and weather behind, the work before them, charging below. */
final class DayChart {
    private static final int WIDTH = 860;
    private static final int HOUR = 60;
    private static final int WORK_PX = 54;
    private static final int WORK_HIGH_PX = 40;
    private static final double LETTER_PX = 6.2;

    private final DayPlan plan;
    private final List<Slot> slots;
    private final Unit speed;
    private final Chart chart;
    private final double from;
    private final double to;

    private DayChart(DayPlan plan, List<Slot> slots, Unit speed) {
        this.plan = plan;
        this.slots = slots;
        this.speed = speed;
        double first = plan.entries().stream().mapToDouble(Entry::from).min().orElse(480);
        double last = plan.entries().stream().mapToDouble(Entry::to).max().orElse(1020);
        this.from = Math.max(0, Math.floor(first / HOUR - 0.5) * HOUR);
        this.to = Math.max(from + 6 * HOUR, Math.ceil(last / HOUR + 0.5) * HOUR);
        this.chart = new Chart(WIDTH, 150, "The day: light, weather, work and charging by the hour")
                .movable()
                .within(62, 4, 26, 22)
                .over(from, to, 0, 1);
    }

    static String svg(DayPlan plan, List<Slot> slots, Unit speed) {
        return new DayChart(plan, slots, speed).drawn();
    }

    private String drawn() {
        for (double hour = Math.ceil(from / HOUR) * HOUR; hour <= to; hour += HOUR) {
            chart.path("c-grid", "M%.1f 4V128", chart.x(hour));
        }
        lane("light", 4, Slot::light);
        lane("weather", 28, Slot::weather);
        chart.text("c-tick", 56, 80, "end", "work");
        boolean charging = plan.entries().stream().anyMatch(entry -> entry.kind() == Kind.CHARGE);
        if (charging) {
            chart.text("c-tick", 56, 114, "end", "charging");
        }
        plan.entries().forEach(this::entry);
        return chart.ticks(to - from > 14 * HOUR ? 2 * HOUR : HOUR, DayPlan::clock)
                .path("c-axis", "M%.1f 128H%.1f", chart.x(from), chart.x(to))
                .svg();
    }

    /** Runs of one verdict, each with its word where there is room. */
    private void lane(String name, int top, Function<Slot, Verdict> verdict) {
        chart.text("c-tick", 56, top + 14, "end", name);
        List<Slot> shown = new ArrayList<>();
        slots.stream()
                .filter(slot -> slot.minute() >= from && slot.minute() < to)
                .forEach(shown::add);
        for (int begin = 0, end; begin < shown.size(); begin = end) {
            end = begin + 1;
            Verdict here = verdict.apply(shown.get(begin));
            while (end < shown.size() && verdict.apply(shown.get(end)) == here) {
                end++;
            }
            Slot first = shown.get(begin);
            Slot last = shown.get(end - 1);
            String why = first.reasons().isEmpty() ? here.words() : String.join(", ", first.reasons());
            double until = last.minute() + Slot.MINUTES;
            chart.bar(look(here), first.minute(), until, top, 20, "", DayPlan.clock(first.minute()) + " " + why);
            String words = name.equals("weather") && !Double.isNaN(first.windMps())
                    ? here.words() + wind(shown.subList(begin, end))
                    : here.words();
            double room = chart.x(until) - chart.x(first.minute());
            String word = room > LETTER_PX * words.length() ? words : here.words();
            if (room > LETTER_PX * word.length()) {
                chart.text(
                        "c-in " + look(here) + "-word",
                        (chart.x(until) + chart.x(first.minute())) / 2,
                        top + 14,
                        "middle",
                        word);
            }
        }
    }

    private String wind(List<Slot> run) {
        double least = run.stream().mapToDouble(Slot::windMps).min().orElse(0);
        double most = run.stream().mapToDouble(Slot::windMps).max().orElse(0);
        return String.format(Locale.ROOT, ", wind %.0f–%.0f %s", speed.ofSi(least), speed.ofSi(most), speed.symbol());
    }

    private static String look(Verdict verdict) {
        return "c-" + verdict.name().toLowerCase(Locale.ROOT);
    }

    private void entry(Entry entry) {
        String title = "%s to %s: %s".formatted(DayPlan.clock(entry.from()), DayPlan.clock(entry.to()), entry.words());
        boolean charge = entry.kind() == Kind.CHARGE;
        String hold = entry.kind() == Kind.SORTIE
                ? "tabindex=\"0\" role=\"slider\" aria-valuenow=\"%.0f\" aria-valuetext=\"%s\" aria-label=\"sortie %d, earlier or later\" data-sortie=\"%d\" data-minute=\"%.1f\""
                        .formatted(
                                entry.from(), DayPlan.clock(entry.from()), entry.sortie(), entry.sortie(), entry.from())
                : plan.entries().get(0) == entry
                        ? "tabindex=\"0\" role=\"slider\" aria-valuenow=\"%.0f\" aria-valuetext=\"%s\" aria-label=\"leave earlier or later\" data-start=\"1\" data-minute=\"%.1f\""
                                .formatted(entry.from(), DayPlan.clock(entry.from()), entry.from())
                        : "";
        int top = charge ? 102 : WORK_PX;
        chart.bar(
                "c-work c-" + entry.kind().name().toLowerCase(Locale.ROOT),
                entry.from(),
                entry.to(),
                top,
                charge ? 14 : WORK_HIGH_PX,
                hold,
                title);
        double room = chart.x(entry.to()) - chart.x(entry.from());
        String word = entry.kind() == Kind.SORTIE ? String.valueOf(entry.sortie()) : entry.words();
        if (!charge && room > LETTER_PX * Math.max(2, word.length())) {
            chart.text("c-in", chart.x(entry.from()) + room / 2, WORK_PX + 18, "middle", word);
        }
        if (!charge && room > 36) {
            chart.text(
                    "c-in c-small",
                    chart.x(entry.from()) + room / 2,
                    WORK_PX + 33,
                    "middle",
                    DayPlan.clock(entry.from()));
        }
    }
}
