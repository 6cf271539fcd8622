package yalos.web.elevation;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.Range;
import yalos.core.terrain.ElevationModel;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * How large an elevation model is and where it lies.
 *
 * @param cellM size of a cell on the ground
 * @param lowM least height above the geoid
 * @param highM greatest height above the geoid
 * @param west least longitude of its corners, degrees; east may be more than 180 where it crosses the date line
 */
public record Extent(
        int columns,
        int rows,
        double cellM,
        double lowM,
        double highM,
        double west,
        double east,
        double south,
        double north) {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    static Extent of(ElevationModel model) {
        List<LonLat> corners = model.corners();
        double middle = corners.get(0).lonDeg();
        double[] lons = corners.stream()
                .mapToDouble(corner -> corner.lonNear(middle))
                .sorted()
                .toArray();
        double[] lats = corners.stream().mapToDouble(LonLat::latDeg).sorted().toArray();
        Range range = model.rangeM();
        return new Extent(
                model.raster().columns(),
                model.raster().rows(),
                model.cellM(),
                range.least(),
                range.most(),
                lons[0],
                lons[lons.length - 1],
                lats[0],
                lats[lats.length - 1]);
    }

    /** As stored; empty for a model taken in when none was kept, or a damaged one. */
    static Optional<Extent> read(String stored) {
        try {
            return stored.isEmpty() ? Optional.empty() : Optional.of(JSON.readValue(stored, Extent.class));
        } catch (JacksonException damaged) {
            return Optional.empty();
        }
    }

    String stored() {
        return JSON.writeValueAsString(this);
    }

    boolean holds(LonLat at) {
        double lon = at.lonNear((west + east) / 2);
        return lon >= west && lon <= east && at.latDeg() >= south && at.latDeg() <= north;
    }

    /** Its size in the operator's units. */
    String about(UnitChoice units) {
        return String.format(
                Locale.ROOT,
                "%,d × %,d cells of %s, %s to %s above the geoid",
                columns,
                rows,
                units.text(UnitKind.DISTANCE, cellM),
                units.figure(UnitKind.HEIGHT, lowM),
                units.text(UnitKind.HEIGHT, highM));
    }
}
