package yalos.core.pattern;

import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/**
 * A change to the strips of the main pass that the operator made by hand. It is kept by place, so that it finds its strip again when the block is planned
 * anew; where no strip lies near any more it waits.
 *
 * @param kind of change
 * @param at a place on the strip; for {@link Kind#REACH} near the end that is changed, for {@link Kind#ADD} where the strip begins
 * @param to where an added strip ends; empty otherwise
 * @param photos by which a strip reaches further; fewer where negative
 */
public record StripEdit(Kind kind, LonLat at, Optional<LonLat> to, int photos) {
    private static final int MOST_PHOTOS = 500;

    /** What is done. */
    public enum Kind {
        DROP,
        REACH,
        ADD
    }

    public StripEdit {
        if (kind == Kind.ADD && (to.isEmpty() || to.get().equals(at))) {
            throw new InputFault("strip", "a point", "An added strip needs two different ends.");
        }
        if (kind == Kind.REACH && (photos == 0 || Math.abs(photos) > MOST_PHOTOS)) {
            throw new InputFault(
                    "photos", photos, "A strip is made longer or shorter by 1 to %d photos.".formatted(MOST_PHOTOS));
        }
    }

    public static StripEdit drop(LonLat at) {
        return new StripEdit(Kind.DROP, at, Optional.empty(), 0);
    }

    public static StripEdit reach(LonLat end, int photos) {
        return new StripEdit(Kind.REACH, end, Optional.empty(), photos);
    }

    public static StripEdit add(LonLat from, LonLat to) {
        return new StripEdit(Kind.ADD, from, Optional.of(to), 0);
    }

    /** What was done, in a few words. */
    public String words() {
        return switch (kind) {
            case DROP -> "a strip dropped";
            case ADD -> "a strip added";
            case REACH ->
                "a strip %s by %d %s"
                        .formatted(
                                photos > 0 ? "longer" : "shorter",
                                Math.abs(photos),
                                Math.abs(photos) == 1 ? "photo" : "photos");
        };
    }
}
