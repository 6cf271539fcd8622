package yalos.core.proof;

import java.util.Locale;

/** Shares of a block in words: one rounding for tab, page, print and service. */
public final class Shares {
    private Shares() {}

    /** In percent, one digit; a share near a whole or nothing gets a second digit and is never rounded to it. */
    public static String percent(double share) {
        double percent = share * 100;
        if (percent <= 0 || percent >= 100) {
            return percent <= 0 ? "0 %" : "100 %";
        }
        boolean near = percent > 99 || percent < 1;
        return String.format(Locale.ROOT, near ? "%.2f %%" : "%.1f %%", Math.min(Math.max(percent, 0.01), 99.99));
    }
}
