package yalos.web.strips;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import yalos.core.brief.Advice;
import yalos.core.height.HeightChoice;
import yalos.core.ledger.Entry;
import yalos.core.pattern.CellGrid;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PinSolver;
import yalos.core.reason.Reason;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Planned;
import yalos.web.store.BlockFacts;

/** The ledger as the page shows it: ruled sections of rows, figures in the operator's units. */
public record LedgerView(List<SectionView> sections) {
    /** Told in the notes of other rows, to keep the page in sight. */
    private static final Set<Quantity> IN_NOTES = EnumSet.of(
            Quantity.FOOTPRINT_ACROSS,
            Quantity.FOOTPRINT_ALONG,
            Quantity.MARGIN_STRIPS,
            Quantity.STRIPS,
            Quantity.PATH_LENGTH,
            Quantity.AREA);

    /** A ruled section. */
    public record SectionView(String key, String title, boolean folded, List<Row> rows) {}

    /**
     * One row.
     *
     * @param key of the quantity
     * @param figure as shown; a dash while there is no plan
     * @param pinned whether it is decided
     * @param pinnable whether it can be
     * @param note under the row; may be empty
     * @param noteTerm the word in the note that is set apart; may be empty
     * @param because the operator's own line why; may be empty
     * @param why the reason, when it is open
     */
    public record Row(
            String key,
            String label,
            String figure,
            String unit,
            boolean pinned,
            boolean pinnable,
            String note,
            String noteTerm,
            String because,
            Optional<WhyView> why) {
        /** The figure where nobody types it. */
        public String shown() {
            return UnitChoice.parted(figure);
        }
    }

    /** A reason, spelled out. */
    public record WhyView(
            String formula, List<TermView> terms, List<LimitView> limits, String source, Optional<Drawing> drawing) {}

    /** A number put into a formula. */
    public record TermView(String symbol, String name, String value) {}

    /** A limit among several. */
    public record LimitView(String name, String formula, String value, boolean binds) {}

    static LedgerView of(BlockFacts facts, Planned planned, UnitChoice units, String why) {
        Writer writer = new Writer(facts.pins(), facts.notes(), planned.whole(), units, why);
        return new LedgerView(Arrays.stream(Quantity.Section.values())
                .map(section -> new SectionView(
                        section.name().toLowerCase(Locale.ROOT),
                        section.title(),
                        section == Quantity.Section.LIMITS && !writer.opens(section),
                        writer.rows(section)))
                .toList());
    }

    /** Whether the reason of a row is open. */
    public boolean explains() {
        return sections.stream()
                .flatMap(section -> section.rows().stream())
                .anyMatch(row -> row.why().isPresent());
    }

    /** Writes rows from a plan, or from the pins alone while there is none. */
    private record Writer(
            Pins pins, Map<Quantity, String> notes, Optional<Planned.Whole> whole, UnitChoice units, String why) {

        boolean opens(Quantity.Section section) {
            return Quantity.ofKey(why)
                    .filter(quantity -> quantity.section() == section)
                    .isPresent();
        }

        List<Row> rows(Quantity.Section section) {
            return Arrays.stream(Quantity.values())
                    .filter(quantity -> quantity.section() == section && !IN_NOTES.contains(quantity))
                    .filter(quantity -> quantity != Quantity.POINT_DENSITY || scans())
                    .map(this::row)
                    .toList();
        }

        private boolean scans() {
            return whole.filter(w -> w.plan().request().kit().payload().scannerLeads())
                    .isPresent();
        }

        private Row row(Quantity quantity) {
            Optional<Entry> entry = whole.map(Planned.Whole::ledger).map(ledger -> ledger.entry(quantity));
            Quantity pinnedBy =
                    quantity == Quantity.MARGIN && pins.has(Quantity.MARGIN_STRIPS) ? Quantity.MARGIN_STRIPS : quantity;
            Optional<Measure> pin = pins.of(pinnedBy);
            boolean limitPin = quantity == Quantity.BLUR
                    || quantity == Quantity.SPEED
                    || quantity == Quantity.INTERVAL
                    || quantity == Quantity.POINT_DENSITY
                    || quantity.isCost();
            Unit unit = pin.filter(p -> pinnedBy == quantity && !limitPin)
                    .map(Measure::unit)
                    .orElse(units.unit(quantity.kind()));
            boolean typedCost = quantity.isCost() && pin.isPresent();
            double si = typedCost
                    ? pin.get().si()
                    : entry.map(Entry::si).orElseGet(() -> pin.map(Measure::si).orElse(Double.NaN));
            String[] note = entry.isPresent() ? note(quantity) : new String[] {"", ""};
            return new Row(
                    quantity.key(),
                    label(quantity),
                    figure(quantity, si, unit),
                    unit.symbol(),
                    pin.isPresent(),
                    quantity.pinnable(),
                    note[0],
                    note[1],
                    notes.getOrDefault(quantity, ""),
                    entry.filter(e -> quantity.key().equals(why)).map(e -> why(e.reason(), Drawing.of(quantity))));
        }

        /** A level flight keeps no height above ground: its height is named by what it counts from. */
        private String label(Quantity quantity) {
            Optional<GroundRequest> ground =
                    whole.flatMap(w -> w.plan().request().ground());
            if (quantity != Quantity.HEIGHT || ground.isEmpty()) {
                return quantity.label();
            }
            HeightChoice choice = ground.get().choice();
            return ground.get().isLevel()
                    ? "Height above take-off"
                    : switch (choice.reference()) {
                        case FOLLOW -> "Height above ground";
                        case TAKE_OFF -> "Height above take-off";
                        case GEOID, STEPPED -> "Height above " + choice.plane().ground();
                    };
        }

        /** How full it makes the camera's card. */
        private String card(BlockPlan plan) {
            return String.format(Locale.ROOT, "%.0f %% of the card", Math.ceil(plan.cardShare() * 100));
        }

        private String figure(Quantity quantity, double si, Unit unit) {
            return Double.isNaN(si) ? "–" : quantity.kind().figure(si, unit);
        }

        /** What stands under a row, and the word in it that is set apart. */
        private String[] note(Quantity quantity) {
            BlockPlan plan = whole.orElseThrow().plan();
            return switch (quantity) {
                case HEIGHT ->
                    new String[] {
                        "sees "
                                + units.figure(
                                        UnitKind.DISTANCE, plan.design().scale().footprintAcrossM()) + " × "
                                + units.text(
                                        UnitKind.DISTANCE, plan.design().scale().footprintAlongM()),
                        ""
                    };
                case GSD -> new String[] {expected(plan), ""};
                case STORAGE -> new String[] {card(plan), ""};
                case BATTERY_SETS -> new String[] {left(plan), ""};
                case PHOTOS -> new String[] {files(plan), ""};
                case SPEED -> held(plan);
                case MARGIN -> margin(plan);
                case DIRECTION -> new String[] {direction(plan), ""};
                case BLUR ->
                    new String[] {
                        pins.of(Quantity.BLUR)
                                .map(most -> "held to " + most.asTyped() + " at most")
                                .orElse(""),
                        ""
                    };
                case FLIGHT_TIME -> new String[] {way(plan), ""};
                default -> new String[] {"", ""};
            };
        }

        private String direction(BlockPlan plan) {
            if (plan.request().patterns().corridor().isPresent()) {
                return "along the axis";
            }
            return plan.mainPass().pattern() instanceof CellGrid grid
                    ? "in %d parts: %s"
                            .formatted(
                                    grid.cells().size(),
                                    grid.cells().stream()
                                            .map(cell -> UnitKind.ANGLE.figure(cell.directionRad(), Unit.DEGREE) + "°")
                                            .collect(Collectors.joining(", ")))
                    : pins.has(Quantity.DIRECTION) ? "" : "of least flight time";
        }

        /** What can be told apart at this GSD; see {@link Advice}. */
        private String expected(BlockPlan plan) {
            String solved = pins.costs().isEmpty() && !pins.scaleFixed()
                    ? byAccuracy(plan.solution())
                    : solvedNote(plan, Quantity.GSD, "the finest that ");
            double seen = Advice.PIXELS_PER_FEATURE * plan.design().scale().gsdM();
            return (solved.isEmpty() ? "" : solved + "; ") + "tells " + units.text(UnitKind.GSD, seen) + " apart";
        }

        private static String byAccuracy(PinSolver.Solution solution) {
            return solution.holds()
                    ? "the coarsest that the accuracy allows"
                    : "the accuracy is not reached"
                            + solution.reachable()
                                    .map(mode -> ", with " + mode.words() + " it is")
                                    .orElse("");
        }

        private String files(BlockPlan plan) {
            int each = plan.request().kit().payload().filesPerCapture();
            String strips = plan.flight().strips() + (plan.flight().strips() == 1 ? " strip" : " strips");
            String files = each > 1 ? "%d files each, %,d files".formatted(each, plan.files()) : "";
            String most = atMost(Quantity.PHOTOS);
            return Stream.of(most, strips, files)
                    .filter(text -> !text.isEmpty())
                    .collect(Collectors.joining("; "));
        }

        /** What is in hand when the last set lands, and what was asked where a cost is pinned. */
        private String left(BlockPlan plan) {
            String most = atMost(Quantity.BATTERY_SETS);
            String left = plan.batterySets() == 0 || !plan.batteries().carries()
                    ? ""
                    : UnitKind.DURATION.figure(plan.batteries().leftS(), Unit.MINUTE) + " in hand";
            return most + (most.isEmpty() || left.isEmpty() ? "" : "; ") + left;
        }

        /** A height that is read in feet, in metres too. */
        private String inMetres(BlockPlan plan) {
            Unit shown = pins.of(Quantity.HEIGHT).map(Measure::unit).orElse(units.unit(UnitKind.HEIGHT));
            return shown == Unit.METRE
                    ? ""
                    : String.format(
                            Locale.ROOT, "%.2f m; ", plan.design().scale().heightM());
        }

        /** What a pinned time comes to, or how far is flown and how often turned. */
        private String way(BlockPlan plan) {
            String reached = atMost(Quantity.FLIGHT_TIME);
            int turns = Math.max(0, plan.flight().strips() - 1);
            return reached.isEmpty()
                    ? "%s, %d %s"
                            .formatted(
                                    units.text(UnitKind.LENGTH, plan.flight().pathLengthM()),
                                    turns,
                                    turns == 1 ? "turn" : "turns")
                    : reached;
        }

        /** What a pinned cost comes to: its figure stays as it was typed. */
        private String atMost(Quantity cost) {
            return pins.of(cost).isEmpty()
                    ? ""
                    : units.text(
                                    cost.kind(),
                                    whole.orElseThrow().ledger().entry(cost).si())
                            + " reached";
        }

        private String solvedNote(BlockPlan plan, Quantity quantity, String words) {
            boolean solved = plan.solution().solved().filter(quantity::equals).isPresent();
            return solved ? words + (plan.solution().holds() ? "the pinned cost allows" : "was tried") : "";
        }

        private String[] held(BlockPlan plan) {
            String asked = pins.of(Quantity.SPEED)
                    .filter(pin -> pin.si() > plan.design().speedMps() * (1 + 1e-9))
                    .map(pin -> "; " + pin.asTyped() + " asked for")
                    .orElse("");
            return new String[] {asked, plan.design().binding().limit().words()};
        }

        private String[] margin(BlockPlan plan) {
            double strips = plan.design().marginM() / plan.design().spacingM();
            return new String[] {strips == 0 ? "" : String.format(Locale.ROOT, "%.1f strips", strips), ""};
        }

        private WhyView why(Reason reason, Optional<Drawing> drawing) {
            return new WhyView(
                    reason.formula(),
                    reason.terms().stream()
                            .map(term -> new TermView(
                                    term.symbol(),
                                    term.name(),
                                    term.unit()
                                            .map(unit -> exact(term.si(), unit))
                                            .orElse(term.text())))
                            .toList(),
                    reason.limits().stream()
                            .map(limit -> new LimitView(
                                    limit.name(),
                                    limit.formula(),
                                    units.text(UnitKind.SPEED, limit.si()),
                                    limit.binds()))
                            .toList(),
                    reason.source(),
                    drawing);
        }

        /** A number as it went into the formula: four digits behind the point, and its unit. */
        private String exact(double si, Unit unit) {
            if (unit == Unit.MINUTE) {
                return UnitKind.DURATION.figure(si, unit) + " min";
            }
            String figure = String.format(Locale.ROOT, "%.4f", unit.ofSi(si))
                    .replaceAll("0+$", "")
                    .replaceAll("\\.$", "");
            return unit.symbol().isEmpty() ? figure : figure + " " + unit.symbol();
        }
    }

    /** The row of a quantity, for tests and print. */
    public Optional<Row> row(Quantity quantity) {
        return sections.stream()
                .flatMap(section -> section.rows().stream())
                .filter(row -> row.key().equals(quantity.key()))
                .findFirst();
    }

    /** The ledger of a plan with no reason open, for print. */
    public static LedgerView plain(BlockFacts facts, Planned planned, UnitChoice units) {
        return of(facts, planned, units, "");
    }
}
