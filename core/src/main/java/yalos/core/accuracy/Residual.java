package yalos.core.accuracy;

import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.PlanePoint;

/**
 * By how much the map is off at a point that was measured on the ground: map less ground.
 *
 * @param eastM along the grid's east; empty for a level alone
 * @param northM along the grid's north
 * @param upM of the height; empty for a position alone
 * @param at where, in the block's plane, as far as that is known
 * @param upThereM height of the point, above the geoid
 * @param surface it lies on, such as short grass; may be empty
 */
public record Residual(
        String point,
        Kind kind,
        OptionalDouble eastM,
        OptionalDouble northM,
        OptionalDouble upM,
        Optional<PlanePoint> at,
        OptionalDouble upThereM,
        String surface) {

    /** What a point was to the adjustment. */
    public enum Kind {
        CHECK("check point"),
        CONTROL("control point"),
        GROUND("ground level"),
        BENCHMARK("benchmark");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** Whether it was never used in the adjustment, so that it can vouch for the result. */
        public boolean independent() {
            return this != CONTROL;
        }
    }

    public Residual {
        if (eastM.isPresent() != northM.isPresent()) {
            throw new InputFault(
                    "residual", point, "Point %s has one of east and north; give both, or neither.".formatted(point));
        }
        if (eastM.isEmpty() && upM.isEmpty()) {
            throw new InputFault("residual", point, "Point %s has no residual at all.".formatted(point));
        }
    }

    /** Level distance; empty for a level alone. */
    public OptionalDouble levelM() {
        return eastM.isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(Math.hypot(eastM.getAsDouble(), northM.getAsDouble()));
    }
}
