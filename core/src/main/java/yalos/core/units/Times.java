package yalos.core.units;

import java.util.Locale;

/** Spans of time as they are read where no unit is chosen for them. */
public final class Times {
    /** What is never done takes no time. */
    private static final String NEVER = "–";

    private Times() {}

    /** To the minute, above an hour with hours: 42 min, 1 h 10 min. */
    public static String minutes(double seconds) {
        if (!Double.isFinite(seconds)) {
            return NEVER;
        }
        long minutes = Math.round(seconds / 60);
        return minutes < 60 ? minutes + " min" : "%d h %02d min".formatted(minutes / 60, minutes % 60);
    }

    /** With seconds below an hour, rounded down: what is left is never told longer than it is. */
    public static String pause(double seconds) {
        if (!Double.isFinite(seconds)) {
            return NEVER;
        }
        long whole = (long) Math.floor(seconds);
        long minutes = whole / 60;
        return minutes < 60
                ? "%d:%02d min".formatted(minutes, whole % 60)
                : "%d h %02d min".formatted(minutes / 60, minutes % 60);
    }

    /** How much longer it takes than before: +3.0 min, or the same; from what cannot be flown, what it takes in all. */
    public static String more(double beforeS, double afterS) {
        if (!Double.isFinite(afterS)) {
            return "still not to be flown";
        }
        if (!Double.isFinite(beforeS)) {
            return minutes(afterS) + " in the air";
        }
        double moreS = afterS - beforeS;
        double tenths = Math.rint(moreS / 6);
        if (Math.abs(tenths) < 600) {
            return tenths == 0 ? "same time" : String.format(Locale.ROOT, "%+.1f min", tenths / 10);
        }
        return (moreS < 0 ? "-" : "+") + minutes(Math.abs(moreS));
    }
}
