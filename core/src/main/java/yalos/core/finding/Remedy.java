package yalos.core.finding;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.height.HeightReference;
import yalos.core.kit.Positioning;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;

/**
 * A mend for a finding, for one press.
 *
 * @param label what the button says
 * @param change that it makes
 */
public record Remedy(String label, Change change) {

    /** What a press changes. */
    public sealed interface Change permits Pin, Several, Finer, Less, Unpin, Heights, Span, Known {}

    /** A figure of the ledger is pinned. */
    public record Pin(Quantity quantity, Measure value) implements Change {}

    /** Figures of the ledger are pinned together, where one alone would not do. */
    public record Several(List<Pin> pins) implements Change {}

    /** A height is pinned so that the ground is seen finer: the GSD that was asked for by its pin is asked for still. */
    public record Finer(Pin pin) implements Change {}

    /** What was asked for by a pin is asked for less strictly: the last resort. */
    public record Less(Pin pin) implements Change {}

    /** A figure of the ledger is let go. */
    public record Unpin(Quantity quantity) implements Change {}

    /** Heights are flown otherwise. */
    public record Heights(HeightReference reference) implements Change {}

    /** Holes of the model up to so wide are spanned from their rims. */
    public record Span(double widestM) implements Change {}

    /**
     * The positions of photos are known otherwise.
     *
     * @param finer what is pinned with it, where better positions alone would not do; empty for nothing
     */
    public record Known(Positioning mode, Optional<Finer> finer) implements Change {}

    Remedy(String label, Quantity quantity, Measure value) {
        this(label, new Pin(quantity, value));
    }

    /** A pin is let go: without it the program chooses, or what it displaced comes back. */
    static Remedy letGo(Quantity pinned) {
        return new Remedy("Let " + pinned.label().toLowerCase(Locale.ROOT) + " go", new Unpin(pinned));
    }
}
