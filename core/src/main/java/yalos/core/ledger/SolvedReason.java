package yalos.core.ledger;

import static yalos.core.pins.Quantity.*;

import java.util.List;
import java.util.Locale;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Noise;
import yalos.core.reason.Reason;
import yalos.core.units.Unit;

/** Why a figure is what it is that was solved for: the costs, or the accuracy, that were pinned. */
final class SolvedReason {
    private SolvedReason() {}

    private static Reason accurate(BlockPlan plan, Reason.Builder reason) {
        List.of(POSITIONS_TO, HEIGHTS_TO)
                .forEach(accuracy -> plan.request()
                        .pins()
                        .of(accuracy)
                        .ifPresent(pin -> reason.with("", accuracy.label().toLowerCase(Locale.ROOT), pin.asTyped())));
        return reason.with(
                        "",
                        "positions",
                        plan.solution()
                                .reachable()
                                .orElse(plan.request().able())
                                .words())
                .with("", "measured in an image to", Noise.USUAL_IMAGE_PX, Unit.PIXEL)
                .source(
                        "the worse of: all rays that see the worst point inside a level block (Kraus, Photogrammetry, from memory); 1 GSD in position, 1.5 in height (common practice)");
    }

    /** What gave way says to what. */
    static Reason of(BlockPlan plan, Quantity quantity) {
        Reason.Builder reason = Reason.formula(
                quantity == GSD
                        ? plan.request().pins().costs().isEmpty()
                                ? byAccuracy(plan)
                                : "the finest that the pinned cost allows"
                        : "the greatest that the pinned cost allows");
        plan.request()
                .pins()
                .costs()
                .forEach(cost -> reason.with(
                        "",
                        cost.label().toLowerCase(Locale.ROOT) + ", at most",
                        plan.request().pins().of(cost).orElseThrow().asTyped()));
        if (plan.request().pins().costs().isEmpty()) {
            return accurate(plan, reason);
        }
        return reason.source("search over true plans of this block, to the last digit shown");
    }

    private static String byAccuracy(BlockPlan plan) {
        if (plan.solution().holds()) {
            return "the coarsest that the pinned accuracy allows";
        }
        return plan.solution()
                .reachable()
                .map(mode ->
                        "the coarsest that allows it with " + mode.words() + "; not reached with positions as they are")
                .orElse("pixels and positions err alike; the pinned accuracy is not reached");
    }
}
