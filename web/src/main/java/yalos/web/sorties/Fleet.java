package yalos.web.sorties;

import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.OptionalDouble;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.sortie.Consumption;
import yalos.core.sortie.Packs.Pack;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.store.FieldMapper;
import yalos.web.store.FieldMapper.BatteryRow;
import yalos.web.store.FieldMapper.ConsumptionRow;

/** What is known of the operator's batteries, of and of what flights took of them. */
@Service
class Fleet {
    private static final int MOST_BATTERIES = 100;
    private static final int MOST_CYCLES = 5000;

    private final FieldMapper rows;
    private final Clock clock;

    Fleet(FieldMapper rows) {
        this.rows = rows;
        this.clock = Clock.systemDefaultZone();
    }

    /** Batteries in use, by name. */
    List<BatteryRow> batteries() {
        return rows.batteries().stream().filter(row -> !row.gone()).toList();
    }

    /** The batteries as sorties ask for them; none where none has a name. */
    List<Pack> packs() {
        return batteries().stream()
                .map(row -> new Pack(row.name(), row.cycles(), row.capacity(), row.charge()))
                .toList();
    }

    /** A battery as it was read just now. */
    @Transactional
    public void read(String name, int cycles, double capacity, double charge, String since, String note) {
        String given = Names.given(name, "battery");
        if (name.isBlank()) {
            throw new InputFault("name", name, "A battery goes by the name that is written on it.");
        }
        InputFault.within("cycles", cycles, 0, MOST_CYCLES, "");
        InputFault.within("capacity", capacity * 100, 20, 110, "%");
        InputFault.within("charge", charge * 100, 0, 100, "%");
        if (batteries().size() >= MOST_BATTERIES) {
            throw new InputFault("name", name, "More than %d batteries are not kept.".formatted(MOST_BATTERIES));
        }
        rows.read(new BatteryRow(
                0, given, cycles, capacity, charge, cut(since, 10), cut(note, 300), false, now(), Person.present()));
    }

    /** A battery that is used no more; its readings stay. */
    @Transactional
    public void retire(String name, String reason) {
        BatteryRow last = batteries().stream()
                .filter(row -> row.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new NotThere("There is no battery " + name + " in use."));
        rows.read(new BatteryRow(
                0,
                name,
                last.cycles(),
                last.capacity(),
                last.charge(),
                last.since(),
                cut(reason, 300),
                true,
                now(),
                Person.present()));
    }

    /** All measured flights of an aircraft, those left out among them. */
    List<ConsumptionRow> flights(String aircraft) {
        return rows.consumption(aircraft);
    }

    /** Those that count. */
    List<Consumption> consumption(String aircraft) {
        return rows.consumption(aircraft).stream()
                .filter(row -> row.leftOut().isEmpty())
                .map(Fleet::flight)
                .toList();
    }

    static Consumption flight(ConsumptionRow row) {
        return new Consumption(
                row.flownOn(),
                row.share(),
                row.minutes(),
                row.ground() == null ? OptionalDouble.empty() : OptionalDouble.of(row.ground()),
                row.wind(),
                row.air(),
                row.note());
    }

    @Transactional
    public void flew(String aircraft, Consumption flight) {
        if (flight.on().isAfter(LocalDate.now(clock).plusDays(1))) {
            throw new InputFault("on", flight.on(), "That day has not come yet.");
        }
        rows.flew(new ConsumptionRow(
                0,
                cut(aircraft, 120),
                flight.on(),
                flight.share(),
                flight.minutes(),
                flight.groundMps().isPresent() ? flight.groundMps().getAsDouble() : null,
                flight.windMps(),
                flight.airK(),
                cut(flight.note(), 300),
                "",
                now(),
                Person.present()));
    }

    /** A flight that does not count, with the reason that stays; an empty one lets it count again. */
    @Transactional
    public void leaveOut(long id, String reason) {
        if (rows.leaveOut(id, cut(reason, 300)) == 0) {
            throw new NotThere("There is no such flight.");
        }
    }

    private LocalDateTime now() {
        return LocalDateTime.now(clock).withNano(0);
    }

    private static String cut(String text, int most) {
        String plain = text.strip();
        return plain.length() > most ? plain.substring(0, most) : plain;
    }
}
