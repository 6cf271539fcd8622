package yalos.core.finding;

import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;

/**
 * A remedy planned to the end, as a press on it would, before it is offered.
 *
 * @param plan that it leads to; empty where it cannot be planned
 */
record Trial(Optional<BlockPlan> plan) {

    static Trial of(BlockPlan plan, Remedy.Change change) {
        try {
            return new Trial(Optional.of(BlockPlan.over(plan.block(), changed(plan.request(), change))));
        } catch (InputFault cannotBePlanned) {
            return new Trial(Optional.empty());
        }
    }

    private static PlanRequest changed(PlanRequest request, Remedy.Change change) {
        if (change instanceof Remedy.Pin pin) {
            return request.with(request.pins().with(pin.quantity(), pin.value()));
        }
        if (change instanceof Remedy.Unpin unpin) {
            return request.with(request.pins().without(unpin.quantity()));
        }
        GroundRequest ground = request.ground().orElseThrow();
        return change instanceof Remedy.Heights heights
                ? request.over(new GroundRequest(
                        ground.source(),
                        ground.choice().with(heights.reference()),
                        ground.obstacles(),
                        ground.zones(),
                        ground.takeOffLevelM()))
                : request.over(new GroundRequest(
                        ground.source().spanning(((Remedy.Span) change).widestM()),
                        ground.choice(),
                        ground.obstacles(),
                        ground.zones(),
                        ground.takeOffLevelM()));
    }
}
