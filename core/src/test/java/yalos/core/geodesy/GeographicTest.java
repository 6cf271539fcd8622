package yalos.core.geodesy;

import static org.assertj.core.api.Assertions.assertThat;

import org.assertj.core.data.Offset;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Longitudes and latitudes of other datums. */
class GeographicTest {
    @ParameterizedTest
    @ValueSource(ints = {4326, 4258, 4277, 4269, 4314, 4230})
    void geographicCodesGoThereAndBack(int epsg) {
        Geographic system = Geographic.ofEpsg(epsg).orElseThrow();
        LonLat at = LonLat.of(-2.5, 52.5);
        LonLat back =
                system.toWgs84(system.ofWgs84(at).lonDeg(), system.ofWgs84(at).latDeg());
        assertThat(Geodesics.distanceM(at, back)).isLessThan(0.01);
    }

    /** A code among the geographic ones says nothing: 4647 is a projected grid, 4978 is geocentric, 4999 is none. */
    @ParameterizedTest
    @ValueSource(ints = {4647, 4978, 4999, 32630, 27700, 0, -3})
    void whatIsNotGeographicIsNotTakenForIt(int epsg) {
        assertThat(Geographic.ofEpsg(epsg)).isEmpty();
    }

    /**
     * The same figures in another datum lie elsewhere: about 120 m in the British datum of 1936, 100 to 200 m in the European of 1950, less
     * than a metre in those of today (from memory).
     */
    @ParameterizedTest
    @CsvSource({"4277, 80, 140", "4230, 90, 220", "4258, 0, 0.01", "4326, 0, 0.000001"})
    void aDatumShiftIsAsLongAsItIsKnownToBe(int epsg, double least, double most) {
        LonLat read = Geographic.ofEpsg(epsg).orElseThrow().toWgs84(-2.5, 52.5);
        assertThat(Geodesics.distanceM(LonLat.of(-2.5, 52.5), read)).isBetween(least, most);
    }

    /**
     * Against the national grid, which carries the same shift (independent reference in national_grids.csv holds it to PROJ): the grid's
     * true origin is 49° N 2° W of the British datum, at 400 km E, 100 km S (its definition).
     */
    @ParameterizedTest
    @ValueSource(ints = {4277})
    void theOriginOfTheNationalGridLiesWhereItsDatumSays(int epsg) {
        LonLat origin = Geographic.ofEpsg(epsg).orElseThrow().toWgs84(-2, 49);
        EastNorth grid = Grid.ofEpsg(27700).toGrid(origin);
        assertThat(grid.east()).isCloseTo(400_000, Offset.offset(0.05));
        assertThat(grid.north()).isCloseTo(-100_000, Offset.offset(0.05));
    }
}
