package yalos.web.pack;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.stream.Collectors;
import yalos.core.fault.InputFault;
import yalos.core.ledger.CameraCard;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Fences;
import yalos.core.sortie.Homing;
import yalos.core.sortie.Sorties;
import yalos.core.units.Measure;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.sorties.Listed;
import yalos.web.sorties.SortieDesk;
import yalos.web.store.BlockFacts;

/** The figures of a plan that are set on an aircraft and read back from it, by the names a checklist calls them. */
final class PlanFigures {
    /** So far a value on the aircraft may lie off, of the figure as it is shown. */
    private static final double ROUNDED = 0.006;

    private static final String FROM = " from ";

    private final Map<String, Figure> figures = new LinkedHashMap<>();
    private final UnitChoice units;

    /**
     * A figure.
     *
     * @param text as it is read out, in the operator's units
     * @param metric the same in metric ones, by which it is known whatever units somebody looks at it in
     * @param si in SI; empty for words
     * @param kind of unit it is typed in
     */
    record Figure(String text, String metric, OptionalDouble si, UnitKind kind) {}

    private PlanFigures(UnitChoice units) {
        this.units = units;
    }

    static PlanFigures of(BlockFacts facts, BlockPlan plan, Optional<Sorties> sorties, UnitChoice units) {
        PlanFigures all = new PlanFigures(units);
        sorties.ifPresent(cut -> all.sorties(cut, facts));
        all.put("height", UnitKind.HEIGHT, plan.design().scale().heightM());
        all.put("speed", UnitKind.SPEED, plan.design().speedMps());
        all.words("shutter", "1/" + (int) Math.ceil(1 / CameraCard.longestShutterS(plan) - 1e-9) + " s");
        all.put("interval", UnitKind.INTERVAL, plan.design().intervalS());
        all.words("photos", "%,d".formatted(plan.photos()));
        sorties.ifPresent(cut -> all.words("sorties", String.valueOf(cut.all().size())));
        all.put("wind limit", UnitKind.SPEED, SortieDesk.limits(facts, plan).windMps());
        all.words("firmware", word(facts.kit().service().firmware()));
        all.words(
                "calibrated",
                facts.kit().service().calibratedOn().map(Object::toString).orElse("(not recorded)"));
        return all;
    }

    /** Of a block without a plan. */
    static PlanFigures none(UnitChoice units) {
        return new PlanFigures(units);
    }

    private static String word(String given) {
        return given.isBlank() ? "(not recorded)" : given;
    }

    /** Of every launch point from which a sortie goes; those besides the first by their names. */
    private void sorties(Sorties cut, BlockFacts facts) {
        for (int launch = 0; launch < cut.launches().size(); launch++) {
            int one = launch;
            if (launch > 0 && cut.all().stream().noneMatch(sortie -> sortie.launch() == one)) {
                continue;
            }
            String from = launch == 0 ? "" : FROM + Listed.launchName(facts, launch);
            Homing homing = cut.launches().get(launch);
            Fences fences = Fences.of(cut, launch);
            put("return height" + from, UnitKind.HEIGHT, homing.returnUpM() - homing.takeOffUpM());
            put("distance fence" + from, UnitKind.DISTANCE, fences.fenceM());
            put("height limit" + from, UnitKind.HEIGHT, fences.ceilingM());
        }
    }

    /** Lines to read back at launch points besides the first, as they are written in a list. */
    List<String> linesElsewhere() {
        return figures.keySet().stream()
                .filter(name -> name.contains(FROM))
                .map(name -> "pilot: At that place, %s {%s}".formatted(name, name))
                .toList();
    }

    private void put(String name, UnitKind kind, double si) {
        figures.put(
                name, new Figure(units.text(kind, si), UnitChoice.METRIC.text(kind, si), OptionalDouble.of(si), kind));
    }

    private void words(String name, String text) {
        figures.put(name, new Figure(text, text, OptionalDouble.empty(), UnitKind.HEIGHT));
    }

    /** As they are read out, by name. */
    Map<String, String> texts() {
        return each(Figure::text);
    }

    /** In metric units, by name. */
    Map<String, String> metric() {
        return each(Figure::metric);
    }

    private Map<String, String> each(Function<Figure, String> text) {
        return figures.entrySet().stream()
                .collect(Collectors.toMap(Map.Entry::getKey, entry -> text.apply(entry.getValue())));
    }

    Optional<Figure> of(String name) {
        return Optional.ofNullable(figures.get(name));
    }

    /** Names of figures, in order. */
    Iterable<String> names() {
        return figures.keySet();
    }

    /**
     * What is wrong with a value read off the aircraft; empty where it is the plan's.
     *
     * @throws InputFault for what is no figure
     */
    Optional<String> slip(String name, String read) {
        Figure planned = figures.get(name);
        if (planned == null || planned.si().isEmpty()) {
            return Optional.empty();
        }
        double si = Measure.typed("reads", read, units.unit(planned.kind())).si();
        double wanted = planned.si().getAsDouble();
        double shown = Measure.typed("reads", planned.text(), units.unit(planned.kind()))
                .si();
        boolean same = Math.abs(si - wanted) <= ROUNDED * Math.abs(wanted) || Math.abs(si - shown) < 1e-9;
        return same
                ? Optional.empty()
                : Optional.of("It shows %s, the plan says %s: %s too %s."
                        .formatted(
                                units.text(planned.kind(), si),
                                planned.text(),
                                units.text(planned.kind(), Math.abs(si - wanted)),
                                si > wanted ? "much" : "little"));
    }
}
