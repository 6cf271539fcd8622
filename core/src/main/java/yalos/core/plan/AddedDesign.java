package yalos.core.plan;

import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.Task;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;

/** What follows for a pass that is added to the main one: the same pins, but for what it says for itself. */
final class AddedDesign {
    private AddedDesign() {}

    /**
     * @param request with the pins that the plan is made with
     * @param main design of the main pass
     * @throws InputFault for heights and overlaps that cannot be flown
     */
    static AddedPass.Setting setting(AddedPass wanted, PlanRequest request, Design main, double loweringM) {
        Design design = wanted.own().equals(AddedPass.Own.NONE)
                ? main
                : Design.of(
                        pins(request.pins().withoutCosts(), wanted.own()), request.kit(), loweringM, request.usual());
        Task task = new Task(
                design.spacingM(), design.baseM(), design.scale().heightM(), design.speedMps(), request.camera());
        return new AddedPass.Setting(
                task,
                design.coverAcrossM(),
                design.forwardOverlap(),
                design.sideOverlap(),
                !request.aircraft().kind().wing());
    }

    private static Pins pins(Pins pins, AddedPass.Own own) {
        Pins changed = own(pins, Quantity.HEIGHT, own.height());
        changed = own(changed, Quantity.FORWARD_OVERLAP, own.forwardOverlap());
        return own(changed, Quantity.SIDE_OVERLAP, own.sideOverlap());
    }

    private static Pins own(Pins pins, Quantity quantity, Optional<Measure> value) {
        return value.map(measure -> pins.pinned(quantity, measure)).orElse(pins);
    }
}
