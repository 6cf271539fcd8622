package yalos.web.store;

import java.util.List;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import yalos.core.height.HeightChoice;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.terrain.VerticalDatum;

/**
 * What the operator decided about a block's ground.
 *
 * @param models used for it, the one that counts first in front; level ground where there are none
 * @param choice of the flying height over them
 * @param obstacles on the site
 * @param zones over it
 * @param takeOffLevelM height of the take-off point above the geoid as measured, to check the models by
 * @param picture that lies under the plan
 * @param spanM holes of the models up to so wide are spanned from their rims, by the operator's consent; none where empty
 */
public record GroundFacts(
        List<ModelUse> models,
        HeightChoice choice,
        List<Obstacle> obstacles,
        List<Zone> zones,
        OptionalDouble takeOffLevelM,
        OptionalLong picture,
        OptionalDouble spanM) {
    /** Holes wider than this are never spanned. */
    public static final double WIDEST_SPAN_M = 200;

    /** Level ground, nothing on it. */
    public static final GroundFacts LEVEL = new GroundFacts(
            List.of(),
            HeightChoice.USUAL,
            List.of(),
            List.of(),
            OptionalDouble.empty(),
            OptionalLong.empty(),
            OptionalDouble.empty());

    /**
     * A model and how the operator says it is to be read.
     *
     * @param epsg of its coordinate system
     */
    public record ModelUse(long id, int epsg, VerticalDatum datum) {}

    public GroundFacts {
        models = List.copyOf(models);
        obstacles = List.copyOf(obstacles);
        zones = List.copyOf(zones);
    }

    public GroundFacts withModels(List<ModelUse> other) {
        return new GroundFacts(other, choice, obstacles, zones, takeOffLevelM, picture, spanM);
    }

    public GroundFacts with(HeightChoice other) {
        return new GroundFacts(models, other, obstacles, zones, takeOffLevelM, picture, spanM);
    }

    public GroundFacts withObstacles(List<Obstacle> other) {
        return new GroundFacts(models, choice, other, zones, takeOffLevelM, picture, spanM);
    }

    public GroundFacts withZones(List<Zone> other) {
        return new GroundFacts(models, choice, obstacles, other, takeOffLevelM, picture, spanM);
    }

    public GroundFacts withTakeOffLevel(OptionalDouble other) {
        return new GroundFacts(models, choice, obstacles, zones, other, picture, spanM);
    }

    public GroundFacts withPicture(OptionalLong other) {
        return new GroundFacts(models, choice, obstacles, zones, takeOffLevelM, other, spanM);
    }

    public GroundFacts withSpan(OptionalDouble other) {
        return new GroundFacts(models, choice, obstacles, zones, takeOffLevelM, picture, other);
    }
}
