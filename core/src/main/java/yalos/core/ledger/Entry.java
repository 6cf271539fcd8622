package yalos.core.ledger;

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
    /** Whether the operator fixed it. */
    public boolean pinned() {
        return pin.isPresent();
    }
}
