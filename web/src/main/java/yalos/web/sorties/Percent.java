package yalos.web.sorties;

import java.util.Locale;

/** Shares as they are read on the stage. */
public final class Percent {
    private Percent() {}

    public static String of(double share) {
        return Double.isFinite(share) ? String.format(Locale.ROOT, "%.0f %%", 100 * share) : "–";
    }

    /** Rounded towards what is safe: a margin never looks larger than it is. */
    public static String margin(double share) {
        return Double.isFinite(share) ? String.format(Locale.ROOT, "%.0f %%", Math.floor(100 * share + 1e-6)) : "–";
    }
}
