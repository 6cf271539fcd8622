package yalos.web.home;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;
import yalos.core.day.Needs;
import yalos.core.day.WeatherWindow;
import yalos.core.logbook.Series;
import yalos.core.units.UnitChoice;
import yalos.core.weather.Limits.Verdict;
import yalos.web.store.BlockFacts;
import yalos.web.store.JobMapper;
import yalos.web.store.LogMapper;

/** Blocks with a day from today on: the one that is planned, else when the result is due, else when its series comes round. */
@Component
class Upcoming {
    private static final int MOST_JOBS = 500;
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT);

    private final JobMapper rows;
    private final LogMapper flights;

    Upcoming(JobMapper rows, LogMapper flights) {
        this.rows = rows;
        this.flights = flights;
    }

    /**
     * A block with its date.
     *
     * @param window when the weather lets it be flown, in words
     */
    public record Next(
            long block,
            long job,
            String jobName,
            String name,
            LocalDate date,
            String because,
            String window,
            String mood) {}

    /** All of them, the nearest first. */
    List<Next> of(List<JobMapper.JobRow> jobs, LocalDate today, UnitChoice units) {
        List<Next> all = new ArrayList<>();
        for (JobMapper.JobRow job : jobs.subList(0, Math.min(jobs.size(), MOST_JOBS))) {
            for (JobMapper.BlockRow row : rows.blocksOf(job.id())) {
                row.readable()
                        .flatMap(facts -> next(job, row, facts, today, units))
                        .ifPresent(all::add);
            }
        }
        all.sort(Comparator.comparing(Next::date).thenComparing(Next::jobName).thenComparing(Next::name));
        return all;
    }

    private Optional<Next> next(
            JobMapper.JobRow job, JobMapper.BlockRow row, BlockFacts facts, LocalDate today, UnitChoice units) {
        Optional<LocalDate> planned = facts.field().day().date().filter(date -> !date.isBefore(today));
        Optional<LocalDate> due = facts.brief().due().filter(date -> !date.isBefore(today));
        Optional<LocalDate> again = flights.series(row.id())
                .map(series -> new Series(series.firstOn(), series.every(), Series.Step.valueOf(series.step()))
                        .after(today.minusDays(1), 1)
                        .get(0));
        Optional<LocalDate> date = planned.or(() -> due).or(() -> again);
        return date.map(on -> {
            Optional<WeatherWindow> window = window(facts, on, units);
            return new Next(
                    row.id(),
                    job.id(),
                    job.name(),
                    row.name(),
                    on,
                    planned.isPresent() ? "planned" : due.isPresent() ? "result due" : "comes round",
                    window.map(Upcoming::words).orElse("no weather yet"),
                    window.map(one -> one.verdict() == Verdict.GO
                                    ? "done"
                                    : one.verdict() == Verdict.MIND ? "mind" : "stop")
                            .orElse(""));
        });
    }

    private static Optional<WeatherWindow> window(BlockFacts facts, LocalDate date, UnitChoice units) {
        return facts.place().flatMap(at -> {
            ZoneId zone = facts.field().day().clock(at);
            Needs needs = Needs.of(facts.brief().purpose(), facts.brief().surface());
            return WeatherWindow.of(
                    facts.field().day().weather(),
                    at,
                    zone,
                    date,
                    facts.field().day().limits().forAircraft(facts.aircraft().windLimitMps(), 0),
                    needs.sky(),
                    units);
        });
    }

    private static String words(WeatherWindow window) {
        return window.from().isEmpty()
                ? "no window: " + window.against()
                : "%s to %s%s"
                        .formatted(
                                CLOCK.format(window.from().orElseThrow()),
                                CLOCK.format(window.to().orElseThrow()),
                                window.against().isEmpty() ? "" : ", " + window.against());
    }
}
