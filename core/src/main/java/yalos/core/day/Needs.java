package yalos.core.day;

import java.util.Optional;
import yalos.core.brief.Purpose;
import yalos.core.brief.Surface;
import yalos.core.weather.Limits.Sky;

/**
 * What light a product wants (common practice).
 *
 * @param light whether the sun matters at all
 * @param sky how the sky must be
 * @param calmWater whether mirrored sun spoils it
 * @param evenAngle whether the hot spot spoils it
 * @param panel whether a reflectance panel is photographed before and after
 */
public record Needs(boolean light, Sky sky, boolean calmWater, boolean evenAngle, boolean panel) {

    /** What a job's purpose and surface want. */
    public static Needs of(Optional<Purpose> purpose, Surface surface) {
        boolean index = purpose.filter(one -> one == Purpose.CROP_INDEX).isPresent();
        boolean dark = purpose.filter(one -> one == Purpose.LIDAR || one == Purpose.UNDER_DECK)
                .isPresent();
        boolean soft = purpose.filter(one -> one == Purpose.STRUCTURE).isPresent();
        Sky sky = index ? Sky.EVEN : soft ? Sky.SOFT : Sky.ANY;
        return new Needs(!dark, sky, surface == Surface.SAND_SNOW_WATER, index, index);
    }
}
