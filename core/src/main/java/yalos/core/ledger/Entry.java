package yalos.core.ledger;

import java.util.Map;
import java.util.Optional;
import yalos.core.pins.Quantity;
import yalos.core.reason.Reason;
import yalos.core.units.Measure;

/**
 * One row of the ledger.
 *
 * @param quantity which
 * @param si its figure, SI
 * @param pin what was typed, where it is pinned
 * @param reason why the figure is what it is
 */
public record Entry(Quantity quantity, double si, Optional<Measure> pin, Reason reason) {
    /** The same with what follows from it told, where its reason is the operator alone. */
    Entry implying(Map<Quantity, Entry> others) {
        return reason.equals(Reason.decided()) ? new Entry(quantity, si, pin, Implied.of(quantity, others)) : this;
    }

    /** Whether the operator fixed it. */
    public boolean pinned() {
        return pin.isPresent();
    }
}
