package yalos.core.take;

import java.util.OptionalDouble;
import yalos.core.geodesy.LonLat;

/**
 * Where a photo was taken and how it hung, as well as that is known.
 *
 * @param upM above the geoid
 * @param yawDeg of the image's top, clockwise from true north
 * @param pitchDeg of the optical axis above the horizon, straight down -90
 * @param rollDeg clockwise as seen from behind the camera
 * @param horizontalM accuracy, one standard deviation
 * @param verticalM the same of its height
 * @param source where that comes from
 */
public record Fix(
        LonLat place,
        OptionalDouble upM,
        OptionalDouble yawDeg,
        OptionalDouble pitchDeg,
        OptionalDouble rollDeg,
        OptionalDouble horizontalM,
        OptionalDouble verticalM,
        Source source) {

    /** Where a position comes from. */
    public enum Source {
        FILE("in the photo"),
        TABLE("from the table of positions"),
        LOG("from the flight log");

        private final String words;

        Source(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
