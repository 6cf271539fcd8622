package yalos.core.site;

import static yalos.core.fault.InputFault.within;

import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;

/**
 * Air over a place that must not be flown, or only with care, or that must not be left. Figures are the operator's; the law of the place decides.
 *
 * @param name of it
 * @param kind of it
 * @param outline where it is
 * @param floorM above ground, where it begins
 * @param ceilingM above ground, where it ends; infinite for no end
 */
public record Zone(String name, Kind kind, Outline outline, double floorM, double ceilingM) {
    /** How much it forbids. */
    public enum Kind {
        KEEP_OUT("keep out"),
        CAUTION("caution"),
        /** The other way round: only there may be flown. */
        KEEP_IN("keep in");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }
    }

    public Zone {
        name = Names.given(name, "zone");
        within("floorM", floorM, 0, 10_000, "m");
        if (!(ceilingM > floorM)) {
            throw new InputFault("ceilingM", ceilingM, "The ceiling of a zone lies above its floor.");
        }
    }

    /** Whether it matters to a place within its outline, or beyond it, at a height above ground. */
    boolean concerns(boolean within, double aboveGroundM) {
        return kind == Kind.KEEP_IN ? !(within && aboveGroundM <= ceilingM) : within && holds(aboveGroundM);
    }

    /** Whether a height above ground lies in it. */
    public boolean holds(double aboveGroundM) {
        return aboveGroundM >= floorM && aboveGroundM <= ceilingM;
    }
}
