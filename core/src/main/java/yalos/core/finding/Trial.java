package yalos.core.finding;

import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;

/** Plans a remedy to the end, with the pins and the ground that a press on it leaves behind. */
final class Trial {
    private Trial() {}

    /** The plan that a remedy leads to; empty where it cannot be planned. */
    static Optional<BlockPlan> of(BlockPlan plan, Remedy.Change change) {
        try {
            return changed(plan.request(), change).map(request -> BlockPlan.over(plan.block(), request));
        } catch (InputFault cannotBePlanned) {
            return Optional.empty();
        }
    }

    private static Optional<PlanRequest> changed(PlanRequest request, Remedy.Change change) {
        if (change instanceof Remedy.Pin pin) {
            return Optional.of(pinned(request, pin));
        }
        if (change instanceof Remedy.Several several) {
            PlanRequest all = request;
            for (Remedy.Pin pin : several.pins()) {
                all = pinned(all, pin);
            }
            return Optional.of(all);
        }
        if (change instanceof Remedy.Less less) {
            return Optional.of(pinned(request, less.pin()));
        }
        if (change instanceof Remedy.Finer finer) {
            return Optional.of(finer(request, finer));
        }
        if (change instanceof Remedy.Unpin unpin) {
            return request.pins().released(unpin.quantity()).map(request::with);
        }
        if (change instanceof Remedy.Known known) {
            PlanRequest better = request.with(known.mode());
            return Optional.of(known.finer().map(finer -> finer(better, finer)).orElse(better));
        }
        GroundRequest ground = request.ground().orElseThrow();
        return Optional.of(request.over(
                change instanceof Remedy.Heights heights
                        ? ground.with(ground.choice().with(heights.reference()))
                        : ground.spanning(((Remedy.Span) change).widestM())));
    }

    private static PlanRequest pinned(PlanRequest request, Remedy.Pin pin) {
        return request.with(request.pins().pinned(pin.quantity(), pin.value()));
    }

    private static PlanRequest finer(PlanRequest request, Remedy.Finer finer) {
        return request.with(
                request.pins().pinnedFiner(finer.pin().quantity(), finer.pin().value()));
    }
}
