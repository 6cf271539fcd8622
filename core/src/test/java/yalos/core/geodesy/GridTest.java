package yalos.core.geodesy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.fault.InputFault;

/** Against PROJ 9.1.1 and GeographicLib 2.1.2, see the reference README. */
class GridTest {
    static Stream<Reference.Row> utm() {
        return Reference.rows("utm.csv");
    }

    /** Rows that start from WGS84; the others start from another datum, which the program does not offer. */
    static Stream<Reference.Row> nationalGrids() {
        return Reference.rows("national_grids.csv")
                .filter(row -> row.text("source_crs").equals("EPSG:4326"));
    }

    private static LonLat position(Reference.Row row) {
        return LonLat.of(row.number("lon_deg"), row.number("lat_deg"));
    }

    @ParameterizedTest
    @MethodSource("utm")
    void agreesWithUtmWithinAMillimetre(Reference.Row row) {
        Grid grid = Grid.ofEpsg(row.whole("epsg"));
        EastNorth at = grid.toGrid(position(row));
        assertThat(at.east()).isCloseTo(row.number("easting_m"), Offset.offset(1e-3));
        assertThat(at.north()).isCloseTo(row.number("northing_m"), Offset.offset(1e-3));
        LonLat back = grid.toLonLat(at);
        assertThat(Geodesics.distanceM(back, position(row))).isLessThan(1e-3);
    }

    @ParameterizedTest
    @MethodSource("utm")
    void knowsConvergenceAndPointScale(Reference.Row row) {
        Grid grid = Grid.ofEpsg(row.whole("epsg"));
        assertThat(Math.toDegrees(grid.convergenceRad(position(row))))
                .isCloseTo(row.number("grid_convergence_deg"), Offset.offset(1e-6));
        assertThat(grid.pointScale(position(row))).isCloseTo(row.number("point_scale"), Offset.offset(1e-8));
    }

    @ParameterizedTest
    @MethodSource("utm")
    void findsTheZoneWithTheExceptionsOfTheNorth(Reference.Row row) {
        assertThat(UtmZone.number(position(row))).isEqualTo(row.whole("zone_with_norway_svalbard"));
    }

    @ParameterizedTest
    @MethodSource("nationalGrids")
    void agreesWithNationalGridsAsFarAsTheDatumShiftAllows(Reference.Row row) {
        Grid grid = Grid.ofEpsg(Integer.parseInt(row.text("crs").replace("EPSG:", "")));
        EastNorth at = grid.toGrid(position(row));
        boolean shifted = row.text("operation").contains("Helmert");
        double toleranceM = shifted ? row.number("declared_accuracy_m") : 5e-3;
        Offset<Double> tolerance = Offset.offset(toleranceM / grid.unitM());
        assertThat(at.east()).isCloseTo(row.number("axis1_easting"), tolerance);
        assertThat(at.north()).isCloseTo(row.number("axis2_northing"), tolerance);
    }

    @Test
    void keepsTheTwoFeetApart() {
        assertThat(Grid.ofEpsg(2253).unitM()).isCloseTo(0.3048, Offset.offset(1e-12));
        assertThat(Grid.ofEpsg(2263).unitM()).isCloseTo(1200.0 / 3937.0, Offset.offset(1e-12));
    }

    @Test
    void refusesCodesThatAreNoGrid() {
        assertThatThrownBy(() -> Grid.ofEpsg(4326))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("not a projected grid");
        assertThatThrownBy(() -> Grid.ofEpsg(999_999))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("999999");
    }
}
