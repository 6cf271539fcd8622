package yalos.core.finding;

import yalos.core.ledger.Quantity;
import yalos.core.units.Measure;

/**
 * A mend for a finding: one pin to set.
 *
 * @param label what the button says
 * @param quantity to pin
 * @param value to pin it at
 */
public record Remedy(String label, Quantity quantity, Measure value) {}
