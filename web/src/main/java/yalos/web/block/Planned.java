package yalos.web.block;

import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.ledger.Ledger;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Coverage;

/**
 * What follows from a block's facts: a plan, or the fault that keeps it from having one.
 *
 * @param whole the plan with its ledger and coverage
 * @param fault why there is no plan
 */
public record Planned(Optional<Whole> whole, Optional<InputFault> fault) {

    /** A plan with what every page shows of it. */
    public record Whole(BlockPlan plan, Ledger ledger, Coverage coverage) {}

    static Planned of(Whole whole) {
        return new Planned(Optional.of(whole), Optional.empty());
    }

    static Planned not(InputFault fault) {
        return new Planned(Optional.empty(), Optional.of(fault));
    }
}
