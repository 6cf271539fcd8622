package yalos.web.sorties;

import java.util.Locale;

/** Shares and minutes as they are read on the stage. */
public final class Percent {
    private Percent() {}

    public static String of(double share) {
        return Double.isFinite(share) ? String.format(Locale.ROOT, "%.0f %%", 100 * share) : "–";
    }

    /** Rounded towards what is safe: a margin never looks larger than it is. */
    public static String margin(double share) {
        return Double.isFinite(share) ? String.format(Locale.ROOT, "%.0f %%", Math.floor(100 * share + 1e-6)) : "–";
    }

    public static String minutes(double seconds) {
        long minutes = Math.round(seconds / 60);
        return minutes < 60 ? minutes + " min" : "%d h %02d min".formatted(minutes / 60, minutes % 60);
    }

    /** Minutes and seconds of a pause, rounded down. */
    public static String pause(double seconds) {
        long whole = (long) Math.floor(seconds);
        return "%d:%02d min".formatted(whole / 60, whole % 60);
    }
}
