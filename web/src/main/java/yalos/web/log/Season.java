package yalos.web.log;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Component;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.Totals;
import yalos.core.pins.Quantity;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.accuracy.AccuracySaid;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.log.RepeatBook.First;
import yalos.web.store.LogMapper;
import yalos.web.store.LogMapper.Wanted;

/** The flights of one site beside each other: dates, plans, GSD, light, coverage, accuracy. */
@Component
class Season {
    private final Blocks blocks;
    private final PlanDesk plans;
    private final Logbook log;
    private final LogMapper rows;
    private final RepeatBook book;
    private final AccuracySaid accuracy;

    Season(Blocks blocks, PlanDesk plans, Logbook log, LogMapper rows, RepeatBook book, AccuracySaid accuracy) {
        this.blocks = blocks;
        this.plans = plans;
        this.log = log;
        this.rows = rows;
        this.book = book;
        this.accuracy = accuracy;
    }

    /**
     * One block as a column.
     *
     * @param offDeg how far the sun stood from where it stood first; NaN where not known
     */
    public record Column(
            long block,
            String name,
            String flown,
            String flights,
            String plan,
            String gsd,
            String height,
            String overlap,
            String photos,
            String minutes,
            String light,
            String lightMood,
            String planned,
            String covered,
            String coveredMood,
            String accuracy,
            String accuracyMood,
            double share,
            double offDeg) {}

    List<Column> of(List<Long> row, UnitChoice units) {
        List<Column> all = new ArrayList<>();
        Optional<First> first = row.isEmpty() ? Optional.empty() : book.first(blocks.open(row.get(0)));
        for (long id : row) {
            all.add(column(blocks.open(id), first, units));
        }
        return all;
    }

    private Column column(OpenBlock block, Optional<First> first, UnitChoice units) {
        Planned planned = plans.plan(block.facts());
        List<Logbook.Kept> flights = log.flights(Wanted.ofBlock(block.id()), 0, 100);
        Totals totals = log.totals(Wanted.ofBlock(block.id()));
        Optional<FlightRecord> earliest = flights.stream()
                .map(Logbook.Kept::flight)
                .reduce((one, other) -> one.start().isBefore(other.start()) ? one : other);
        OptionalDouble covered = flights.stream()
                .map(one -> one.flight().flown().enough())
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .max();
        double off = earliest.flatMap(FlightRecord::sun)
                .flatMap(sun -> first.map(one -> Math.toDegrees(sun.apartRad(one.sun()))))
                .orElse(Double.NaN);
        Optional<AccuracySaid.Said> said = accuracy.of(block, units);
        OptionalDouble share = planned.whole().isPresent()
                ? OptionalDouble.of(planned.whole().orElseThrow().judgement().share())
                : OptionalDouble.empty();
        return new Column(
                block.id(),
                block.name(),
                earliest.map(one -> one.start().toLocalDate().toString())
                        .orElseGet(() -> block.facts()
                                .field()
                                .day()
                                .date()
                                .map(LocalDate::toString)
                                .map(day -> "to fly " + day)
                                .orElse("not flown")),
                flights.isEmpty() ? "–" : "%d".formatted(flights.size()),
                rows.repeated(block.id())
                        .map(one ->
                                one.ofRevision() > 0 ? "again, from revision " + one.ofRevision() : "again, as flown")
                        .orElse("first"),
                figure(planned, Quantity.GSD, units),
                figure(planned, Quantity.HEIGHT, units),
                figure(planned, Quantity.FORWARD_OVERLAP, units) + " / "
                        + figure(planned, Quantity.SIDE_OVERLAP, units),
                totals.photos() > 0 ? "%,d".formatted(totals.photos()) : "–",
                totals.flights() > 0 ? units.text(UnitKind.DURATION, totals.minutes() * 60) : "–",
                light(earliest, off),
                Double.isNaN(off) ? "" : off <= Math.toDegrees(RepeatBook.SAME_RAD) ? "done" : "mind",
                percent(share),
                percent(covered),
                covered.isEmpty() || share.isEmpty()
                        ? ""
                        : covered.getAsDouble() < share.getAsDouble() - 0.0005 ? "mind" : "done",
                said.map(one -> one.headline().words() + " " + one.headline().detail())
                        .orElse("not checked"),
                said.map(one -> one.headline().mood()).orElse(""),
                covered.orElse(Double.NaN),
                off);
    }

    private static String light(Optional<FlightRecord> earliest, double off) {
        return earliest.map(FlightView::sun)
                .map(words -> Double.isNaN(off) ? words : words + String.format(Locale.ROOT, "; %.0f° off", off))
                .orElse("–");
    }

    private static String percent(OptionalDouble share) {
        return share.isPresent()
                ? String.format(Locale.ROOT, "%.1f %%", Math.floor(share.getAsDouble() * 1000 + 1e-9) / 10)
                : "–";
    }

    private static String figure(Planned planned, Quantity quantity, UnitChoice units) {
        return planned.whole()
                .map(whole -> whole.ledger().entries().stream()
                        .filter(entry -> entry.quantity() == quantity)
                        .findFirst()
                        .map(entry -> units.text(quantity.kind(), entry.si()))
                        .orElse("–"))
                .orElse("–");
    }
}
