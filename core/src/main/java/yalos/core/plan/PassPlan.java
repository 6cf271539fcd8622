package yalos.core.plan;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.DoubleStream;
import yalos.core.block.Corridor;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.Pace;
import yalos.core.flight.Turn;
import yalos.core.geodesy.PlanePoint;
import yalos.core.pattern.CellGrid;
import yalos.core.pattern.CorridorStrips;
import yalos.core.pattern.Gaze;
import yalos.core.pattern.Pass;
import yalos.core.pattern.Passes;
import yalos.core.pattern.Pattern;
import yalos.core.pattern.QuickestGrid;
import yalos.core.pattern.StripEdits;
import yalos.core.pattern.StripGrid;
import yalos.core.pattern.Task;
import yalos.core.pins.Quantity;
import yalos.core.site.Detour;

/** How the passes of a plan are flown: in which patterns, with what settings, in what wind, and round which zones. */
final class PassPlan {
    private final PlaneBlock block;
    private final PlanRequest request;
    private final Design design;
    private final Pace pace;

    /**
     * @param block without margin
     * @param request with the pins that the plan is made with
     * @param design of the main pass
     */
    PassPlan(PlaneBlock block, PlanRequest request, Design design) {
        this.block = block;
        this.request = request;
        this.design = design;
        this.pace = new Pace(
                request.aircraft(),
                PlannedWind.over(block, request, design.scale().heightM()),
                request.patterns().turns().rounded());
    }

    /** How fast, and in what wind. */
    Pace pace() {
        return pace;
    }

    /** The main pass as it is asked for. */
    Pass main() {
        Task task = new Task(
                design.spacingM(), design.baseM(), design.scale().heightM(), design.speedMps(), request.camera());
        return new Pass(pattern(), task);
    }

    /** The main pass as it was flown with another margin, but that a corridor and cells grow with theirs. */
    Pass main(Pass flown) {
        boolean grows = request.patterns().corridor().isPresent() || flown.pattern() instanceof CellGrid;
        return grows ? main() : flown;
    }

    private Pattern pattern() {
        Gaze gaze = request.patterns()
                .heading()
                .map(held -> Gaze.NADIR.holding(held.si()))
                .orElse(Gaze.NADIR);
        if (request.patterns().corridor().isPresent()) {
            Corridor corridor = request.patterns().corridor().get();
            double margin = design.marginM();
            return new CorridorStrips(
                    corridor.in(block.plane()),
                    corridor.left().si() + margin,
                    corridor.right().si() + margin,
                    margin,
                    gaze);
        }
        OptionalDouble fixed = request.pins().si(Quantity.DIRECTION);
        return fixed.isPresent() ? StripGrid.towards(fixed.getAsDouble()).looking(gaze) : new QuickestGrid(gaze);
    }

    /**
     * All passes over level ground, changes by hand laid upon them.
     *
     * @param covered the block widened by the margin
     */
    Passes flown(PlaneBlock covered, Pass main) {
        return flownWithin(turning(covered), main);
    }

    /** Where a wing turns inside the outline, lines end as far before its edge as a turn reaches beyond them. */
    private PlaneBlock turning(PlaneBlock covered) {
        boolean inside = request.patterns().turns().inside()
                && request.aircraft().kind().wing()
                && request.patterns().corridor().isEmpty();
        if (!inside) {
            return covered;
        }
        double beyondM = Turn.beyondM(request.aircraft(), design.speedMps());
        PlaneBlock within = covered.narrowed(beyondM);
        if (within.rings().length == 0) {
            throw new InputFault(
                    "inside",
                    "%.0f m".formatted(beyondM),
                    "Turns reach %.0f m beyond the lines, and nothing of the block is left within that. Turn outside it, or fly slower."
                            .formatted(beyondM));
        }
        return within;
    }

    private Passes flownWithin(PlaneBlock covered, Pass main) {
        double loweringM = KnownGround.loweringM(request, block);
        List<Passes.Added> added = request.patterns().added().stream()
                .map(wanted -> new Passes.Added(wanted, AddedDesign.setting(wanted, request, design, loweringM)))
                .toList();
        Detour detour = detour(main, added);
        Optional<PlanePoint> launch = request.launch().map(block.plane()::toPlane);
        Passes planned = Passes.flown(
                covered, main, added, pace, launch, detour, request.patterns().start());
        Passes edited = StripEdits.laid(planned, request.patterns().edits(), block.plane(), pace, detour);
        return request.patterns().added().stream()
                .flatMap(wanted -> wanted.alignment().stream())
                .findFirst()
                .map(alignment -> edited.with(alignment.round(edited.flight(), pace, detour)))
                .orElse(edited);
    }

    /** Round the keep-out zones that reach down to the highest of the passes: ways between them change height. */
    private Detour detour(Pass main, List<Passes.Added> added) {
        double highest = DoubleStream.concat(
                        DoubleStream.of(main.task().heightM()),
                        added.stream().mapToDouble(one -> one.setting().task().heightM()))
                .max()
                .orElseThrow();
        return request.ground()
                .map(ground -> Detour.of(block.plane(), ground.zones(), highest))
                .orElse(Detour.NONE);
    }
}
