package yalos.core.units;

/** Spans of time as they are read where no unit is chosen for them. */
public final class Times {
    private Times() {}

    /** To the minute, above an hour with hours: 42 min, 1 h 10 min. */
    public static String minutes(double seconds) {
        long minutes = Math.round(seconds / 60);
        return minutes < 60 ? minutes + " min" : "%d h %02d min".formatted(minutes / 60, minutes % 60);
    }

    /** With seconds below an hour, rounded down: what is left is never told longer than it is. */
    public static String pause(double seconds) {
        long whole = (long) Math.floor(seconds);
        long minutes = whole / 60;
        return minutes < 60
                ? "%d:%02d min".formatted(minutes, whole % 60)
                : "%d h %02d min".formatted(minutes / 60, minutes % 60);
    }
}
