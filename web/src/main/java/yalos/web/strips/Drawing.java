package yalos.web.strips;

import java.util.Optional;
import yalos.core.pins.Quantity;

/** The drawings that stand beside a reason; {@code strips/drawings.html} draws each. */
public enum Drawing {
    SCALE("From the side: sensor, lens, height H and the footprint on the ground"),
    FORWARD("Two photos of one strip, one air base apart, share the hatched ground"),
    SIDE("Photos of two neighbouring strips, one strip spacing apart, share the hatched ground"),
    DIRECTION("Strips of a block, their direction counted clockwise from north"),
    MARGIN("Strips that begin outside the block: the margin is how far"),
    PACE("Photos along a strip: the air base is speed times interval"),
    BLUR("A pixel, and how far it moves over the ground while the shutter is open"),
    COST("A flight from take-off to landing: what one battery set carries, and its reserve"),
    WIND("Way through the air and wind add up to the way over ground");

    private final String words;

    Drawing(String words) {
        this.words = words;
    }

    /** What it shows, for those who do not see it. */
    public String words() {
        return words;
    }

    /** The drawing of a quantity; empty where words say more. */
    static Optional<Drawing> of(Quantity quantity) {
        return Optional.ofNullable(
                switch (quantity) {
                    case GSD, HEIGHT, FOOTPRINT_ACROSS, FOOTPRINT_ALONG, BRIEF_GSD -> SCALE;
                    case FORWARD_OVERLAP, AIR_BASE -> FORWARD;
                    case SIDE_OVERLAP, STRIP_SPACING -> SIDE;
                    case DIRECTION -> DIRECTION;
                    case MARGIN, MARGIN_STRIPS -> MARGIN;
                    case SPEED, INTERVAL, PHOTOS -> PACE;
                    case SHUTTER_TIME, BLUR -> BLUR;
                    case FLIGHT_TIME, BATTERY_SETS -> COST;
                    case WIND, WIND_FROM, WIND_AT -> WIND;
                    default -> null;
                });
    }
}
