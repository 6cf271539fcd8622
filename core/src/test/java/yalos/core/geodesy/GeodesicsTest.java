package yalos.core.geodesy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.fault.InputFault;

/** Against GeographicLib's own tools and pyproj, see the reference README. */
class GeodesicsTest {
    static Stream<Reference.Row> lines() {
        return Reference.rows("geodesic.csv");
    }

    static Stream<Reference.Row> polygons() {
        return Reference.rows("polygon_area.csv");
    }

    @ParameterizedTest
    @MethodSource("lines")
    void measuresDistanceAndAzimuth(Reference.Row row) {
        Geodesics.Line line = Geodesics.between(
                LonLat.of(row.number("lon1_deg"), row.number("lat1_deg")),
                LonLat.of(row.number("lon2_deg"), row.number("lat2_deg")));
        assertThat(line.distanceM()).isCloseTo(row.number("distance_m"), Offset.offset(1e-3));
        if (line.distanceM() > 0) {
            double tolerance = line.distanceM() > 100 ? 1e-6 : 1e-4;
            assertThat(turn(line.azimuthAtStartDeg() - row.number("azimuth1_deg")))
                    .isLessThan(tolerance);
            assertThat(turn(line.azimuthAtEndDeg() - row.number("azimuth2_deg")))
                    .isLessThan(tolerance);
        }
    }

    private static double turn(double degrees) {
        double turned = Math.abs(degrees) % 360;
        return Math.min(turned, 360 - turned);
    }

    @ParameterizedTest
    @MethodSource("polygons")
    void measuresAreaAndPerimeter(Reference.Row row) {
        List<LonLat> corners = Arrays.stream(row.text("wkt_lon_lat")
                        .replaceAll("[^-0-9., ]", "")
                        .strip()
                        .split(","))
                .map(pair -> pair.strip().split(" "))
                .map(pair -> LonLat.of(Double.parseDouble(pair[0]), Double.parseDouble(pair[1])))
                .toList();
        Geodesics.RingSize size = Geodesics.sizeOf(corners.subList(0, corners.size() - 1));
        assertThat(size.areaM2()).isCloseTo(row.number("area_m2"), Percentage.withPercentage(1e-4));
        double perimeter = row.number("perimeter_m");
        assertThat(size.perimeterM()).isCloseTo(perimeter, Offset.offset(1e-3 + 1e-7 * perimeter));
    }

    @Test
    void refusesPositionsThatAreNone() {
        assertThatThrownBy(() -> LonLat.of(11.3, 97))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("swapped");
        assertThatThrownBy(() -> LonLat.of(674_000, 5_254_000))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("projected grid");
        assertThatThrownBy(() -> LonLat.of(Double.NaN, 3))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("finite");
    }
}
