package yalos.web.take;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.springframework.stereotype.Component;
import yalos.core.day.Slot;
import yalos.core.geodesy.LonLat;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.FlightRecord.Air;
import yalos.core.logbook.FlightRecord.Figures;
import yalos.core.logbook.FlightRecord.Happening;
import yalos.core.logbook.FlightRecord.Kind;
import yalos.core.logbook.FlightRecord.Pack;
import yalos.core.proof.Judgement;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;
import yalos.core.take.Role;
import yalos.core.take.Take;
import yalos.core.take.TakeMatch;
import yalos.core.units.UnitChoice;
import yalos.web.block.OpenBlock;
import yalos.web.control.MeasuredPoints;
import yalos.web.sorties.Charged;
import yalos.web.sorties.SortieDesk;
import yalos.web.store.TakeMapper;
import yalos.web.take.TakeDesk.Found;

/** The take of a block as the log would have it: a flight for each sortie that brought photos home. */
@Component
public class FlownTake {
    private final TakeDesk desk;
    private final TakeStore store;
    private final TakeMapper rows;
    private final SortieDesk sorties;
    private final MeasuredPoints measured;

    FlownTake(TakeDesk desk, TakeStore store, TakeMapper rows, SortieDesk sorties, MeasuredPoints measured) {
        this.measured = measured;
        this.store = store;
        this.desk = desk;
        this.rows = rows;
        this.sorties = sorties;
    }

    /** Whether a block has photos at all; asked without working for it. */
    public boolean any(long block) {
        return rows.count(block) > 0;
    }

    /** A take's share given enough as planned and as flown, as far as it is proved. */
    public record Coverage(Optional<Judgement> planned, Optional<Judgement> flown, Take take) {}

    /** What the take gives, as far as it is worked out by now. */
    public Optional<Coverage> coverage(OpenBlock block) {
        return desk.of(block).map(found -> new Coverage(found.planned(), found.taken(), found.take()));
    }

    /** Waits until the take of a block is proved. */
    public void settle(OpenBlock block) {
        desk.of(block).ifPresent(Found::settle);
    }

    /** Gaps of the take with what was decided of each. */
    public List<TakeView.GapRow> gaps(OpenBlock block, UnitChoice units) {
        return desk.of(block)
                .map(found -> TakeView.gaps(found, rows.decisions(block.id()), units))
                .orElse(List.of());
    }

    /** The sums of all photos, a line for each, as {@code sha256sum} reads them. */
    public String manifest(OpenBlock block) {
        return TakeCopy.manifest(store.photos(block.id()));
    }

    /** Flights of the take, in the order of the sorties; none where no photo has a time. */
    public List<FlightRecord> flights(OpenBlock block) {
        Optional<Found> found = desk.of(block);
        if (found.isEmpty()) {
            return List.of();
        }
        Take take = found.orElseThrow().take();
        Optional<Sorties> cut =
                sorties.of(block.id(), block.facts(), take.plan()).sorties();
        List<FlightRecord> flights = new ArrayList<>();
        cut.ifPresent(all -> all.all()
                .forEach(sortie -> flight(block, found.orElseThrow(), sortie).ifPresent(flights::add)));
        return flights;
    }

    private Optional<FlightRecord> flight(OpenBlock block, Found found, Sortie sortie) {
        Take take = found.take();
        TakeMatch match = take.match();
        Instant first = null;
        Instant last = null;
        int good = 0;
        int stationOfFirst = sortie.start();
        for (int i = 0; i < match.photos().size(); i++) {
            TakeMatch.Matched one = match.photos().get(i);
            boolean own =
                    one.role() == Role.PLANNED && one.station() > sortie.from() && one.station() <= sortie.to() + 1;
            Optional<Instant> when = match.instant(i);
            if (own) {
                good += take.lacking().containsKey(one.station()) ? 0 : 1;
                if (when.isPresent() && (first == null || when.orElseThrow().isBefore(first))) {
                    first = when.orElseThrow();
                    stationOfFirst = one.station() - 1;
                }
                if (when.isPresent() && (last == null || when.orElseThrow().isAfter(last))) {
                    last = when.orElseThrow();
                }
            }
        }
        if (first == null) {
            return Optional.empty();
        }
        double[] due = sortie.timeline().exposuresS();
        double lead = due[Math.max(0, Math.min(due.length - 1, stationOfFirst - sortie.start()))];
        double tail = sortie.seconds() - due[due.length - 1];
        double seconds = lead + (last.toEpochMilli() - first.toEpochMilli()) / 1000.0 + tail;
        ZoneId zone = SortieDesk.clock(block.facts());
        Instant took = first.minusMillis(Math.round(lead * 1000));
        LonLat launch = take.plan().block().plane().toLonLat(sortie.homing().launch());
        Optional<Judgement> planned = found.planned();
        Optional<Judgement> taken = found.taken();
        return Optional.of(new FlightRecord(
                LocalDateTime.ofInstant(took, zone).withNano(0),
                zone,
                Math.max(seconds, 1) / 60,
                sortie.number(),
                block.facts().aircraft().name(),
                block.facts().kit().name(),
                Optional.of(launch),
                List.of(),
                battery(block, sortie),
                new Figures(
                        OptionalInt.of(sortie.photos() - sortie.repeated()),
                        OptionalDouble.of(sortie.seconds() / 60),
                        area(block, planned),
                        share(planned),
                        OptionalDouble.of(sortie.taken()),
                        OptionalDouble.empty()),
                new Figures(
                        OptionalInt.of(good),
                        OptionalDouble.of(seconds / 60),
                        area(block, taken),
                        share(taken),
                        OptionalDouble.empty(),
                        OptionalDouble.empty()),
                air(block, LocalDateTime.ofInstant(first, zone)),
                OptionalInt.empty(),
                measured.base(block.id()).map(base -> base.name()).orElse(""),
                decisions(block.id()),
                "Times of take-off and landing follow from the photos and the planned ways out and home."));
    }

    /** The battery that was to fly it; what its gauge showed is for the operator to say. */
    private List<Pack> battery(OpenBlock block, Sortie sortie) {
        return sorties.known(block.facts())
                .filter(found -> found.sorties().isPresent() && !found.packs().isEmpty())
                .map(found -> Charged.of(found.sorties().orElseThrow(), found.packs())
                        .get(sortie.number() - 1)
                        .name())
                .filter(name -> !name.isEmpty())
                .map(name -> List.of(new Pack(name, OptionalDouble.empty(), OptionalDouble.empty())))
                .orElse(List.of());
    }

    /** What the weather of the day told of that hour. */
    private static Air air(OpenBlock block, LocalDateTime at) {
        return Slot.hour(block.facts().field().day().weather(), at)
                .map(hour -> new Air(
                        hour.windMps(), hour.gustMps(), hour.windFromRad(), hour.airK(), "as told for that hour"))
                .orElse(Air.UNKNOWN);
    }

    private static OptionalDouble share(Optional<Judgement> judged) {
        return judged.isPresent() ? OptionalDouble.of(judged.orElseThrow().share()) : OptionalDouble.empty();
    }

    private static OptionalDouble area(OpenBlock block, Optional<Judgement> judged) {
        return judged.isPresent()
                ? OptionalDouble.of(
                        judged.orElseThrow().share() * block.facts().outline().areaM2())
                : OptionalDouble.empty();
    }

    private List<Happening> decisions(long block) {
        return rows.decisions(block).stream()
                .filter(one -> one.takenBack().isEmpty())
                .map(one -> new Happening(
                        Kind.DECISION,
                        "",
                        Decisions.Kind.of(one.kind()).words() + ", " + one.about(),
                        one.reason(),
                        one.person()))
                .toList();
    }
}
