package yalos.web.control;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.brief.Surface;
import yalos.core.control.Assumptions;
import yalos.core.control.Avoided;
import yalos.core.control.BlockWorth;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.control.ControlPoint.Role;
import yalos.core.control.CrewTime;
import yalos.core.control.Foretold;
import yalos.core.control.Foretold.Sigma;
import yalos.core.control.MarkedPlace;
import yalos.core.control.Spread;
import yalos.core.control.Suitability;
import yalos.core.control.Targets;
import yalos.core.control.Walk;
import yalos.core.geodesy.EastNorth;
import yalos.core.kit.Positioning;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof.Accuracy;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.store.BlockFacts;
import yalos.web.work.Recent;

/** The field book's page of the Control stage: what the points make of the block first, then the points, then what is taken for granted. */
@Component
class ControlBook implements StageBook {
    private static final int KEPT_FAULTS = 50;
    /** A spread of fewer says nothing. */
    private static final int LEAST_SPREAD = 3;

    private final ControlDesk desk;
    private final MeasuredPoints measured;
    /** What speaks against each point; asks all photos, so it is reckoned once for a state. */
    private final Map<BlockFacts, List<List<String>>> faults = Recent.map(KEPT_FAULTS);

    ControlBook(ControlDesk desk, MeasuredPoints measured) {
        this.desk = desk;
        this.measured = measured;
    }

    /**
     * A point of the table.
     *
     * @param sigma positions and heights foretold; empty while it is not known
     * @param measured how often
     * @param used how many of these measurements may be used
     */
    public record PointRow(
            String name,
            String role,
            boolean check,
            String kind,
            String kindKey,
            String place,
            String up,
            boolean locked,
            String note,
            String sigma,
            List<String> faults,
            int measured,
            int used) {}

    /** What is taken for granted, as it is typed. */
    public record AssumedView(
            String ties,
            String image,
            String horizontal,
            String vertical,
            boolean freeLens,
            int epochs,
            String walk,
            boolean closed,
            String slope) {}

    /** An area where nothing is laid out. */
    public record AvoidedRow(String name, String about, int at) {}

    @Override
    public Stage stage() {
        return Stage.CONTROL;
    }

    @Override
    public void fill(Opened opened, Model model) {
        ControlLayout layout = opened.block().facts().control();
        UnitChoice units = opened.units();
        model.addAttribute("kinds", ControlPoint.Kind.values());
        model.addAttribute("avoidedKinds", Avoided.Kind.values());
        model.addAttribute("assumed", assumed(layout.assumptions(), units));
        Surface surface = opened.block().facts().brief().surface();
        model.addAttribute(
                "surface",
                "On the brief's surface, %s, matching is taken to find %.0f %% of them (common practice)."
                        .formatted(surface.words(), 100 * surface.ties()));
        model.addAttribute("avoided", avoided(layout, units));
        model.addAttribute("nextName", layout.nextName());
        model.addAttribute("counts", counts(layout));
        model.addAttribute("checksMissing", layout.of(Role.CHECK).isEmpty());
        model.addAttribute("points", List.of());
        opened.planned().whole().map(Planned.Whole::plan).ifPresent(plan -> planned(opened, plan, layout, model));
    }

    private void planned(Opened opened, BlockPlan plan, ControlLayout layout, Model model) {
        UnitChoice units = opened.units();
        BlockFacts facts = opened.block().facts();
        ControlDesk.Foretelling found = desk.of(opened.block().id(), facts, plan);
        Optional<Foretold> foretold = found.worth().map(BlockWorth::planned);
        model.addAttribute("running", found.running());
        model.addAttribute("step", found.step());
        model.addAttribute("whyNot", found.fault());
        foretold.ifPresent(known -> headline(known, facts, plan, units, model));
        model.addAttribute("points", points(opened, plan, layout, foretold));
        found.walk().ifPresent(walk -> {
            model.addAttribute("walk", walk(walk, units));
            model.addAttribute("crew", crew(walk, plan, facts));
        });
        model.addAttribute(
                "target",
                units.text(
                        UnitKind.DISTANCE, Targets.sideM(plan.design().scale().gsdM())));
        spread(plan, layout, model);
    }

    private static void headline(Foretold known, BlockFacts facts, BlockPlan plan, UnitChoice units, Model model) {
        Accuracy asked = ControlDesk.asked(facts, plan);
        Foretold.Verdict verdict = known.against(asked);
        Sigma typical = known.typical();
        Sigma worst = known.worst();
        Sigma shared = known.shared();
        model.addAttribute("verdict", Shown.words(verdict));
        model.addAttribute("mood", Shown.mood(verdict));
        model.addAttribute("heights", Shown.accuracy(units, typical.verticalM()));
        model.addAttribute("positions", Shown.accuracy(units, typical.horizontalM()));
        model.addAttribute("asked", asked(asked, units));
        model.addAttribute(
                "parts",
                "Worst place %s; the whole block together off by %s; the middle may bulge by %s."
                        .formatted(
                                Shown.pair(units, worst),
                                Shown.pair(units, shared),
                                Shown.accuracy(units, known.domingM())));
        model.addAttribute(
                "positioning", plan.request().able(facts.brief().positioning()).words());
    }

    private static String asked(Accuracy asked, UnitChoice units) {
        List<String> words = new ArrayList<>();
        asked.positionM().ifPresent(m -> words.add("positions to " + Shown.accuracy(units, m)));
        asked.heightM().ifPresent(m -> words.add("heights to " + Shown.accuracy(units, m)));
        return words.isEmpty() ? "nothing in the brief" : String.join(", ", words);
    }

    private static String counts(ControlLayout layout) {
        return "%d control, %d check"
                .formatted(layout.of(Role.CONTROL).size(), layout.of(Role.CHECK).size());
    }

    private List<PointRow> points(Opened opened, BlockPlan plan, ControlLayout layout, Optional<Foretold> foretold) {
        BlockFacts facts = opened.block().facts();
        UnitChoice units = opened.units();
        List<List<String>> against = faults.computeIfAbsent(facts, changed -> faults(plan, layout));
        Map<String, Integer> used = new HashMap<>();
        Map<String, Integer> tried = new HashMap<>();
        for (MeasuredPoints.Judged one : measured.judged(
                opened.block().id(), plan.block().plane(), layout.assumptions().epochs())) {
            String key = ControlLayout.key(one.one().point());
            tried.merge(key, 1, Integer::sum);
            used.merge(key, one.used() ? 1 : 0, Integer::sum);
        }
        List<PointRow> rows = new ArrayList<>();
        for (int i = 0; i < layout.points().size(); i++) {
            ControlPoint point = layout.points().get(i);
            int at = i;
            String key = ControlLayout.key(point.name());
            rows.add(new PointRow(
                    point.name(),
                    point.role().words(),
                    point.role() == Role.CHECK,
                    point.kind().words(),
                    point.kind().name(),
                    place(plan, point),
                    point.upM().isPresent()
                            ? units.text(UnitKind.HEIGHT, point.upM().getAsDouble())
                            : "",
                    point.locked(),
                    point.note(),
                    foretold.map(known -> known.atPoint(at)
                                    .map(sigma -> Shown.pair(units, sigma))
                                    .orElse("in too few photos"))
                            .orElse(""),
                    against.get(i),
                    tried.getOrDefault(key, 0),
                    used.getOrDefault(key, 0)));
        }
        return rows;
    }

    /** Easting and northing of a point in the job's grid. */
    static String place(BlockPlan plan, ControlPoint point) {
        EastNorth at = plan.block().plane().grid().toGrid(point.place());
        return String.format(Locale.ROOT, "%.2f, %.2f", at.east(), at.north());
    }

    private static List<List<String>> faults(BlockPlan plan, ControlLayout layout) {
        Suitability suitability = new Suitability(plan, layout);
        return layout.points().stream()
                .map(point -> suitability.faults(MarkedPlace.of(plan, point)))
                .toList();
    }

    private static String walk(Walk walk, UnitChoice units) {
        return "%s on foot %s, %s up, %s"
                .formatted(
                        units.text(UnitKind.LENGTH, walk.lengthM()),
                        walk.fromLaunch() ? "from the launch point" : "from the first point",
                        units.text(UnitKind.HEIGHT, walk.climbM()),
                        Times.minutes(walk.seconds()));
    }

    /** How long the crew is out with fewer and with more epochs at each point. */
    private static String crew(Walk walk, BlockPlan plan, BlockFacts facts) {
        int points = facts.control().points().size();
        Positioning mode = plan.request().able(facts.brief().positioning());
        return IntStream.of(5, 30, 180)
                .mapToObj(epochs -> "%d epochs %s"
                        .formatted(
                                epochs,
                                Times.minutes(CrewTime.of(walk.seconds(), points, epochs, mode)
                                        .totalS())))
                .collect(Collectors.joining(", ", "Crew out at ", "; base first, targets fetched after the flight."));
    }

    private static void spread(BlockPlan plan, ControlLayout layout, Model model) {
        List<MarkedPlace> control = layout.of(Role.CONTROL).stream()
                .map(point -> MarkedPlace.of(plan, point))
                .toList();
        if (control.size() < LEAST_SPREAD) {
            return;
        }
        Spread spread = Spread.of(plan, control);
        boolean poor = spread.inLine()
                || spread.hullShare() < Spread.LEAST_HULL
                || spread.heightShare() < Spread.LEAST_HEIGHTS;
        model.addAttribute("spreadPoor", poor);
        model.addAttribute(
                "spread",
                spread.inLine()
                        ? "The control points lie in one line: nothing holds the block across it."
                        : "Control spans %.0f %% of the block and %.0f %% of its heights%s."
                                .formatted(
                                        100 * spread.hullShare(),
                                        100 * spread.heightShare(),
                                        poor
                                                ? "; 35 % of it and 60 % of the heights are the least (common practice)"
                                                : ""));
    }

    private static AssumedView assumed(Assumptions assumed, UnitChoice units) {
        return new AssumedView(
                plain(assumed.tiesPerPhoto()),
                plain(assumed.imagePx()),
                Shown.accuracy(units, assumed.horizontalM()),
                Shown.accuracy(units, assumed.verticalM()),
                assumed.freeLens(),
                assumed.epochs(),
                units.text(UnitKind.SPEED, assumed.walkMps()),
                assumed.closedTour(),
                plain(Math.toDegrees(assumed.steepestRad())) + "°");
    }

    private static String plain(double figure) {
        return figure == Math.rint(figure)
                ? String.valueOf(Math.round(figure))
                : String.format(Locale.ROOT, "%.2g", figure);
    }

    private static List<AvoidedRow> avoided(ControlLayout layout, UnitChoice units) {
        List<Avoided> areas = layout.avoided();
        AvoidedRow[] rows = new AvoidedRow[areas.size()];
        Arrays.setAll(
                rows,
                i -> new AvoidedRow(
                        areas.get(i).name(),
                        areas.get(i).kind().words() + ", "
                                + units.areaText(areas.get(i).outline().areaM2()),
                        i));
        return List.of(rows);
    }
}
