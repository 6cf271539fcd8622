package yalos.web.demo;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.FlightRecord.Air;
import yalos.core.logbook.FlightRecord.Crew;
import yalos.core.logbook.FlightRecord.Figures;
import yalos.core.logbook.FlightRecord.Happening;
import yalos.core.logbook.FlightRecord.Kind;
import yalos.core.logbook.FlightRecord.Pack;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.log.FlightLog;
import yalos.web.log.Repeats;
import yalos.web.store.JobMapper;
import yalos.web.store.LogMapper;
import yalos.web.store.LogMapper.SeriesRow;

/** The demo's log: the meadow flown in October and laid out again for the next; service of the aircraft. All invented. */
@Component
@ConditionalOnProperty("yalos.demo")
class DemoLog {
    private static final ZoneId ZONE = ZoneId.of("Europe/London");
    private static final LocalDate FLOWN = LocalDate.of(2026, 10, 6);
    private static final LocalDate AGAIN = LocalDate.of(2027, 10, 6);

    private final JobMapper jobs;
    private final Blocks blocks;
    private final FlightLog log;
    private final LogMapper rows;
    private final Repeats repeats;

    DemoLog(JobMapper jobs, Blocks blocks, FlightLog log, LogMapper rows, Repeats repeats) {
        this.jobs = jobs;
        this.blocks = blocks;
        this.log = log;
        this.rows = rows;
        this.repeats = repeats;
    }

    void write(long job) {
        OpenBlock fort = blocks.open(jobs.blockNamed(job, "Block A, hill fort").orElseThrow());
        log.keep(
                fort,
                flight(
                        fort,
                        LocalDateTime.of(2026, 9, 22, 14, 5),
                        6.5,
                        0,
                        "T1",
                        0.95,
                        0.71,
                        0,
                        List.of(
                                new Happening(Kind.EVENT, "14:05", "look over the ramparts by eye, no survey", "", ""),
                                new Happening(
                                        Kind.INCIDENT,
                                        "14:09",
                                        "a crow came within 15 m; climbed, it left",
                                        "",
                                        "A. Pilot"))),
                FlightLog.From.typed());
        OpenBlock meadow = blocks.open(jobs.blockNamed(job, "Block B, meadow").orElseThrow());
        long first = log.keep(
                meadow,
                flight(
                        meadow,
                        LocalDateTime.of(FLOWN, LocalTime.of(11, 40)),
                        12.0,
                        1,
                        "T1",
                        0.97,
                        0.37,
                        338,
                        List.of(new Happening(
                                Kind.DECISION,
                                "11:31",
                                "the hollow by the tarn left out",
                                "standing water gives no ties",
                                "A. Pilot"))),
                FlightLog.From.typed());
        log.keep(
                meadow,
                flight(meadow, LocalDateTime.of(FLOWN, LocalTime.of(12, 2)), 4.4, 2, "T2", 0.96, 0.74, 99, List.of()),
                FlightLog.From.typed());
        log.serviced(
                fort.facts().aircraft().name(),
                "propellers",
                OptionalDouble.of(50),
                OptionalInt.empty(),
                LocalDate.of(2026, 9, 1),
                "set of four, new");
        log.serviced(
                fort.facts().aircraft().name(),
                "firmware and compass",
                OptionalDouble.empty(),
                OptionalInt.of(180),
                LocalDate.of(2026, 6, 12),
                "firmware 4.1");
        rows.keepSeries(new SeriesRow(meadow.id(), FLOWN, 1, "YEARS", 21));
        repeats.repeat(
                meadow,
                repeats.before(meadow, "flight:" + first),
                new Repeats.Decided("Block E, meadow again", Optional.of(AGAIN), Set.of(), "then", Map.of()));
    }

    private static FlightRecord flight(
            OpenBlock block,
            LocalDateTime start,
            double minutes,
            int sortie,
            String pack,
            double before,
            double after,
            int photos,
            List<Happening> happenings) {
        return new FlightRecord(
                start,
                ZONE,
                minutes,
                sortie,
                block.facts().aircraft().name(),
                block.facts().kit().name(),
                block.facts().launch(),
                List.of(new Crew("A. Pilot", Crew.PILOT), new Crew("B. Watcher", "observer")),
                List.of(new Pack(pack, OptionalDouble.of(before), OptionalDouble.of(after))),
                photos == 0
                        ? Figures.NONE
                        : new Figures(
                                OptionalInt.of(photos + 2),
                                OptionalDouble.of(minutes - 0.8),
                                OptionalDouble.empty(),
                                OptionalDouble.of(0.998),
                                OptionalDouble.of(0.52 * minutes / 12),
                                OptionalDouble.empty()),
                photos == 0
                        ? Figures.NONE
                        : new Figures(
                                OptionalInt.of(photos),
                                OptionalDouble.of(minutes),
                                OptionalDouble.empty(),
                                OptionalDouble.of(0.991),
                                OptionalDouble.of(before - after),
                                OptionalDouble.empty()),
                new Air(
                        OptionalDouble.of(4),
                        OptionalDouble.of(6.5),
                        OptionalDouble.of(Math.toRadians(240)),
                        OptionalDouble.of(282.15),
                        "thin high cloud"),
                OptionalInt.of(17),
                "network service",
                happenings,
                "made up for the demo");
    }
}
