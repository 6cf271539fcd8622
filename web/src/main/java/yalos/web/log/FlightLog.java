package yalos.web.log;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.fault.InputFault;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.FlightRecord.Crew;
import yalos.core.logbook.FlightRecord.Pack;
import yalos.core.logbook.Totals;
import yalos.core.logbook.Upkeep;
import yalos.web.block.OpenBlock;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.store.FactsJson;
import yalos.web.store.FieldMapper;
import yalos.web.store.FieldMapper.BatteryRow;
import yalos.web.store.FieldMapper.ConsumptionRow;
import yalos.web.store.LogMapper;
import yalos.web.store.LogMapper.CrewRow;
import yalos.web.store.LogMapper.FlightRow;
import yalos.web.store.LogMapper.PackRow;
import yalos.web.store.LogMapper.ServiceRow;
import yalos.web.store.LogMapper.Wanted;
import yalos.web.store.StoredFlight;

/** Keeps flights, adds them up, says what falls due. A flight is never deleted; one that is wrong is mended or left out with a reason. */
@Service
public class FlightLog {
    private static final int LONGEST_REASON = 300;

    private final LogMapper rows;
    private final FieldMapper batteries;

    FlightLog(LogMapper rows, FieldMapper batteries) {
        this.batteries = batteries;
        this.rows = rows;
    }

    /** Where a flight in the log comes from. */
    public enum Source {
        RUN("rehearsal"),
        TAKE("photos"),
        TYPED("typed");

        private final String words;

        Source(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** A flight with its row. */
    public record Kept(FlightRow row, FlightRecord flight) {
        public boolean counts() {
            return row.counted && row.leftOut.isEmpty();
        }

        public Source source() {
            return Source.valueOf(row.source);
        }
    }

    /**
     * What a flight is kept with.
     *
     * @param sourceId run or sortie it was taken from; 0 for none
     * @param counted whether its hours and cycles count
     * @param facts as they were flown, as stored; those of the block where empty
     */
    public record From(Source source, long sourceId, boolean counted, String facts) {
        public static From typed() {
            return new From(Source.TYPED, 0, true, "");
        }
    }

    /**
     * Keeps a flight of a block.
     *
     * @throws InputFault for one that was taken into the log already
     */
    @Transactional
    public long keep(OpenBlock block, FlightRecord flight, From from) {
        if (from.sourceId() != 0 && rows.taken(block.id(), from.source().name(), from.sourceId())) {
            throw new InputFault(
                    "flight",
                    from.sourceId(),
                    "This %s stands in the log already. Mend that flight, or leave it out first."
                            .formatted(from.source() == Source.RUN ? "rehearsal" : "sortie"));
        }
        FlightRow row = new FlightRow();
        row.uid = UUID.randomUUID().toString();
        row.blockId = block.id();
        row.jobName = block.jobName();
        row.blockName = block.name();
        row.source = from.source().name();
        row.sourceId = from.sourceId() == 0 ? null : from.sourceId();
        row.counted = from.counted();
        row.facts = from.facts().isEmpty() ? FactsJson.write(block.facts()) : from.facts();
        fill(row, flight);
        rows.insert(row);
        aboard(row.id, flight);
        if (from.counted()) {
            landed(flight);
        }
        return row.id;
    }

    /** A battery of the fleet is as empty as it landed, unless it was read since. */
    private void landed(FlightRecord flight) {
        LocalDateTime end = flight.start().plusSeconds(Math.round(flight.minutes() * 60));
        for (Pack pack : flight.packs()) {
            batteries.batteries().stream()
                    .filter(known -> !known.gone() && known.name().equals(pack.name()))
                    .filter(known -> pack.after().isPresent() && known.keptAt().isBefore(end))
                    .findFirst()
                    .ifPresent(known -> batteries.read(new BatteryRow(
                            0,
                            known.name(),
                            known.cycles() + 1,
                            known.capacity(),
                            pack.after().getAsDouble(),
                            known.since(),
                            "as it landed, by the log",
                            false,
                            end.withNano(0),
                            Person.present())));
        }
    }

    private static void fill(FlightRow row, FlightRecord flight) {
        row.startedAt = flight.start();
        row.minutes = flight.minutes();
        row.photos = flight.flown().photos().orElse(0);
        row.aircraft = flight.aircraft();
        row.pilot = flight.pilot();
        row.lon = flight.place().map(at -> at.lonDeg()).orElse(null);
        row.lat = flight.place().map(at -> at.latDeg()).orElse(null);
        row.content = StoredFlight.write(flight);
        row.keptAt = LocalDateTime.now().withNano(0);
        row.keptBy = Person.present();
    }

    private void aboard(long id, FlightRecord flight) {
        for (int i = 0; i < flight.crew().size(); i++) {
            Crew one = flight.crew().get(i);
            rows.crew(new CrewRow(id, i, one.name(), one.role()));
        }
        for (int i = 0; i < flight.packs().size(); i++) {
            Pack one = flight.packs().get(i);
            rows.pack(new PackRow(
                    id, i, one.name(), StoredFlight.charge(one.before()), StoredFlight.charge(one.after())));
        }
    }

    /** Mends a flight. */
    @Transactional
    public void change(long id, FlightRecord flight, boolean counted) {
        FlightRow row = row(id);
        fill(row, flight);
        row.counted = counted;
        rows.update(row);
        rows.dropCrew(id);
        rows.dropPacks(id);
        aboard(id, flight);
    }

    /**
     * What a flight took of its battery, for the figures that sorties are cut by.
     *
     * @throws InputFault where it does not say, or says it for several batteries
     */
    @Transactional
    public void consumed(long id) {
        Kept kept = flight(id);
        FlightRecord flight = kept.flight();
        boolean one =
                flight.packs().size() == 1 && flight.packs().get(0).taken().isPresent();
        if (!one || flight.air().windMps().isEmpty() || flight.air().airK().isEmpty()) {
            throw new InputFault(
                    "packs",
                    id,
                    "A measured flight has one battery with its charge before and after, the wind and the temperature. Fill them in first.");
        }
        String note = "from the log, " + flight.start().toString().replace('T', ' ');
        boolean there = batteries.consumption(flight.aircraft()).stream()
                .anyMatch(row -> row.leftOut().isEmpty() && row.note().equals(note));
        if (there) {
            throw new InputFault("packs", id, "This flight corrects the aircraft's figures already.");
        }
        batteries.flew(new ConsumptionRow(
                0,
                flight.aircraft(),
                flight.start().toLocalDate(),
                flight.packs().get(0).taken().getAsDouble(),
                flight.minutes(),
                null,
                flight.air().windMps().getAsDouble(),
                flight.air().airK().getAsDouble(),
                note,
                "",
                LocalDateTime.now().withNano(0),
                Person.present()));
    }

    /** A flight that counts no more, with the reason that stays; an empty one lets it count again. */
    @Transactional
    public void leaveOut(long id, boolean out, String why) {
        if (out && why.isBlank()) {
            throw new InputFault("why", "", "Say why this flight is left out; the reason stays with it.");
        }
        String reason = out ? why.strip() : "";
        if (rows.leaveOut(id, reason.substring(0, Math.min(reason.length(), LONGEST_REASON))) == 0) {
            throw new NotThere("There is no such flight.");
        }
    }

    private FlightRow row(long id) {
        return rows.flight(id).orElseThrow(() -> new NotThere("There is no such flight."));
    }

    public Kept flight(long id) {
        return kept(row(id));
    }

    private static Kept kept(FlightRow row) {
        return new Kept(row, StoredFlight.read(row.content));
    }

    public List<Kept> flights(Wanted wanted, int from, int most) {
        return rows.flights(wanted, from, most).stream().map(FlightLog::kept).toList();
    }

    public int count(Wanted wanted) {
        return rows.count(wanted);
    }

    /** Hours and cycles of all flights that count. */
    @Transactional(readOnly = true)
    public Totals totals(Wanted all) {
        Wanted wanted = all.thatCount();
        Map<Long, List<Crew>> crews = rows.crews(wanted).stream()
                .collect(Collectors.groupingBy(
                        CrewRow::flightId,
                        Collectors.mapping(one -> new Crew(one.name(), one.role()), Collectors.toList())));
        Map<Long, List<Pack>> packs = rows.packs(wanted).stream()
                .collect(Collectors.groupingBy(
                        PackRow::flightId,
                        Collectors.mapping(
                                one -> new Pack(one.name(), maybe(one.chargeBefore()), maybe(one.chargeAfter())),
                                Collectors.toList())));
        return Totals.of(rows.hours(wanted).stream()
                .map(one -> new Totals.Entry(
                        one.startedAt().toLocalDate(),
                        one.aircraft(),
                        one.minutes(),
                        one.photos(),
                        crews.getOrDefault(one.id(), List.of()),
                        packs.getOrDefault(one.id(), List.of())))
                .toList());
    }

    private static OptionalDouble maybe(Double share) {
        return share == null ? OptionalDouble.empty() : OptionalDouble.of(share);
    }

    /** Aircraft, people and batteries that are in the log, to choose from. */
    public List<String> aircraft() {
        return rows.aircraft();
    }

    public List<String> people() {
        return rows.people();
    }

    /** The largest share of a block that any of some flights is told to have given enough. */
    public static OptionalDouble covered(List<Kept> flights) {
        return flights.stream()
                .map(kept -> kept.flight().flown().enough())
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .max();
    }

    /** What comes round, with when it falls due. */
    public record Due(ServiceRow row, Upkeep.Due due) {}

    /** All that comes round, what is nearest first. */
    public List<Due> due(LocalDate today) {
        Totals totals = totals(Wanted.ALL);
        return rows.services().stream()
                .map(row -> new Due(row, upkeep(row).due(hours(totals, row.thing()), today)))
                .sorted((one, other) ->
                        Double.compare(other.due().used(), one.due().used()))
                .toList();
    }

    private static Upkeep upkeep(ServiceRow row) {
        return new Upkeep(
                row.thing(),
                row.what(),
                maybe(row.everyHours()),
                row.everyDays() == null ? OptionalInt.empty() : OptionalInt.of(row.everyDays()),
                row.doneOn(),
                row.hoursThen());
    }

    /** Hours of an aircraft, or of a battery of that name. */
    private static double hours(Totals totals, String thing) {
        return Optional.ofNullable(totals.aircraft().get(thing))
                .or(() -> Optional.ofNullable(totals.batteries().get(thing)))
                .map(Totals.Sum::hours)
                .orElse(0.0);
    }

    /**
     * Something was done to a thing, and comes round.
     *
     * @param done that day; hours count from what it had flown till then
     */
    @Transactional
    public void serviced(
            String thing, String what, OptionalDouble everyHours, OptionalInt everyDays, LocalDate done, String note) {
        LocalDateTime end = done.plusDays(1).atStartOfDay();
        Totals till = totals(Wanted.ALL.before(end));
        double hours = hours(till, thing.strip());
        Upkeep upkeep = new Upkeep(thing.strip(), what.strip(), everyHours, everyDays, done, hours);
        rows.service(new ServiceRow(
                0,
                cut(upkeep.thing(), 120),
                cut(upkeep.what(), 120),
                StoredFlight.charge(everyHours),
                everyDays.isPresent() ? everyDays.getAsInt() : null,
                done,
                hours,
                cut(note.strip(), LONGEST_REASON),
                false,
                LocalDateTime.now().withNano(0),
                Person.present()));
    }

    /** It comes round no more; what was done stays in the rows. */
    @Transactional
    public void dropService(long id) {
        ServiceRow row = rows.services().stream()
                .filter(one -> one.id() == id)
                .findFirst()
                .orElseThrow(() -> new NotThere("That is not in the list any more."));
        rows.service(new ServiceRow(
                0,
                row.thing(),
                row.what(),
                row.everyHours(),
                row.everyDays(),
                row.doneOn(),
                row.hoursThen(),
                row.note(),
                true,
                LocalDateTime.now().withNano(0),
                Person.present()));
    }

    private static String cut(String text, int most) {
        return text.substring(0, Math.min(text.length(), most));
    }
}
