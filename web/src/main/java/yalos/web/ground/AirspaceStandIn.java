package yalos.web.ground;

import java.util.List;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import yalos.core.block.Outline;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.site.Zone;

/**
 * Stands in for an airspace service, so that zones can be tried without a network. Its zones round the demo site are invented
 * and have no meaning for any flight.
 */
@Component
class AirspaceStandIn {
    private static final double REACH_M = 15_000;
    private static final Grid GRID = Grid.ofEpsg(32630);
    private static final double[] NESTING = {
        412_940, 6_041_560, 413_160, 6_041_600, 413_190, 6_041_430, 412_990, 6_041_380
    };
    private static final double[] APPROACH = {
        411_000, 6_042_100, 415_000, 6_042_900, 415_000, 6_044_500, 411_000, 6_043_700
    };

    List<Zone> near(LonLat place) {
        LonLat site = GRID.toLonLat(new EastNorth(412_700, 6_041_550));
        if (Geodesics.distanceM(place, site) > REACH_M) {
            return List.of();
        }
        return List.of(
                new Zone("Nesting crag (invented)", Zone.Kind.CAUTION, outline(NESTING), 0, 90),
                new Zone(
                        "Low approach (invented)",
                        Zone.Kind.KEEP_OUT,
                        outline(APPROACH),
                        60,
                        Double.POSITIVE_INFINITY));
    }

    private static Outline outline(double[] positions) {
        return Outline.ofRing(IntStream.range(0, positions.length / 2)
                .mapToObj(i -> GRID.toLonLat(new EastNorth(positions[2 * i], positions[2 * i + 1])))
                .toList());
    }
}
