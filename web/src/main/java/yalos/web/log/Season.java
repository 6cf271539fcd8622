package yalos.web.log;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Component;
import yalos.core.light.Sun;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.Totals;
import yalos.core.pins.Quantity;
import yalos.core.proof.Shares;
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
    private static final int MOST_FLIGHTS = 100;
    private static final String NONE = "–";

    private final Blocks blocks;
    private final PlanDesk plans;
    private final FlightLog log;
    private final LogMapper rows;
    private final RepeatBook book;
    private final AccuracySaid accuracy;

    Season(Blocks blocks, PlanDesk plans, FlightLog log, LogMapper rows, RepeatBook book, AccuracySaid accuracy) {
        this.blocks = blocks;
        this.plans = plans;
        this.log = log;
        this.rows = rows;
        this.book = book;
        this.accuracy = accuracy;
    }

    /** One block of the row, at the head of its column. */
    public record Head(long block, String name) {}

    /** A figure, with {@code done} or {@code mind} where it is judged. */
    public record Cell(String words, String mood) {
        static Cell plain(String words) {
            return new Cell(words, "");
        }
    }

    /** One thing of all blocks. */
    public record Line(String label, List<Cell> cells) {}

    /** All of them beside each other. */
    public record Table(List<Head> heads, List<Line> lines) {}

    Table of(List<Long> row, UnitChoice units) {
        Optional<First> first = row.isEmpty() ? Optional.empty() : book.first(blocks.open(row.get(0)));
        List<Head> heads = new ArrayList<>();
        Map<String, List<Cell>> lines = new LinkedHashMap<>();
        for (long id : row) {
            OpenBlock block = blocks.open(id);
            heads.add(new Head(id, block.name()));
            column(block, first, units)
                    .forEach((label, cell) -> lines.computeIfAbsent(label, one -> new ArrayList<>())
                            .add(cell));
        }
        return new Table(
                heads,
                lines.entrySet().stream()
                        .map(line -> new Line(line.getKey(), line.getValue()))
                        .toList());
    }

    private Map<String, Cell> column(OpenBlock block, Optional<First> first, UnitChoice units) {
        Wanted own = Wanted.ofBlock(block.id()).thatCount();
        Planned planned = plans.plan(block.facts());
        List<FlightLog.Kept> flights = log.flights(own, 0, MOST_FLIGHTS);
        Totals totals = log.totals(own);
        Optional<FlightRecord> earliest = flights.stream()
                .map(FlightLog.Kept::flight)
                .reduce((one, other) -> one.start().isBefore(other.start()) ? one : other);
        OptionalDouble share = planned.whole().isPresent()
                ? OptionalDouble.of(planned.whole().orElseThrow().judgement().share())
                : OptionalDouble.empty();
        Map<String, Cell> cells = new LinkedHashMap<>();
        cells.put("Flown", Cell.plain(flown(block, earliest)));
        cells.put("Sun", light(earliest, first));
        cells.put("Given enough, flown", covered(FlightLog.covered(flights), share));
        cells.put("Given enough, planned", Cell.plain(percent(share)));
        cells.put(
                "Accuracy",
                accuracy.of(block, units)
                        .map(said -> new Cell(
                                said.headline().words() + " " + said.headline().detail(),
                                said.headline().mood()))
                        .orElse(Cell.plain("not checked")));
        cells.put("GSD", Cell.plain(figure(planned, Quantity.GSD, units)));
        cells.put("Height", Cell.plain(figure(planned, Quantity.HEIGHT, units)));
        cells.put(
                "Overlap, forward / side",
                Cell.plain(figure(planned, Quantity.FORWARD_OVERLAP, units) + " / "
                        + figure(planned, Quantity.SIDE_OVERLAP, units)));
        cells.put(
                "Lines",
                Cell.plain(rows.repeated(block.id())
                        .map(one ->
                                one.ofRevision() > 0 ? "again, from revision " + one.ofRevision() : "again, as flown")
                        .orElse("first")));
        boolean any = totals.flights() > 0;
        cells.put("Flights", Cell.plain(any ? String.valueOf(totals.flights()) : NONE));
        cells.put("Good photos", Cell.plain(totals.photos() > 0 ? "%,d".formatted(totals.photos()) : NONE));
        cells.put("In the air", Cell.plain(any ? units.text(UnitKind.DURATION, totals.minutes() * 60) : NONE));
        return cells;
    }

    private static String flown(OpenBlock block, Optional<FlightRecord> earliest) {
        return earliest.map(one -> one.start().toLocalDate().toString())
                .orElseGet(() -> block.facts()
                        .field()
                        .day()
                        .date()
                        .map(day -> "to fly " + day)
                        .orElse("not flown"));
    }

    private static Cell covered(OptionalDouble covered, OptionalDouble planned) {
        if (covered.isEmpty() || planned.isEmpty()) {
            return Cell.plain(percent(covered));
        }
        boolean less = covered.getAsDouble() < planned.getAsDouble() - 0.0005;
        return new Cell(percent(covered), less ? "mind" : "done");
    }

    /** Where the sun stood, and how far from where it stood first. */
    private static Cell light(Optional<FlightRecord> earliest, Optional<First> first) {
        Optional<Sun> sun = earliest.flatMap(FlightRecord::sun);
        if (sun.isEmpty() || first.isEmpty()) {
            return Cell.plain(sun.map(FlightView::sun).orElse(NONE));
        }
        double off = sun.orElseThrow().apartRad(first.orElseThrow().sun());
        return new Cell(
                String.format(Locale.ROOT, "%s; %.0f° off", FlightView.sun(sun.orElseThrow()), Math.toDegrees(off)),
                off <= RepeatBook.SAME_RAD ? "done" : "mind");
    }

    private static String percent(OptionalDouble share) {
        return share.isPresent() ? Shares.percent(share.getAsDouble()) : NONE;
    }

    private static String figure(Planned planned, Quantity quantity, UnitChoice units) {
        return planned.whole()
                .map(whole -> whole.ledger().entries().stream()
                        .filter(entry -> entry.quantity() == quantity)
                        .findFirst()
                        .map(entry -> units.text(quantity.kind(), entry.si()))
                        .orElse(NONE))
                .orElse(NONE);
    }
}
