package yalos.core.geodesy;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Coordinate systems told by their description. */
class WktSystemTest {
    private static final String WGS84 =
            "GEOGCS[\"GCS_WGS_1984\",DATUM[\"D_WGS_1984\",SPHEROID[\"WGS_1984\",6378137.0,298.257223563]],PRIMEM[\"Greenwich\",0.0],UNIT[\"Degree\",0.0174532925199433]]";

    private static final String ETRS =
            "GEOGCS[\"GCS_ETRS_1989\",DATUM[\"D_ETRS_1989\",SPHEROID[\"GRS_1980\",6378137.0,298.257222101]],PRIMEM[\"Greenwich\",0.0],UNIT[\"Degree\",0.0174532925199433]]";

    private static String utm(String name, String degrees, int middle, int north) {
        return ("PROJCS[\"%s\",%s,PROJECTION[\"Transverse_Mercator\"],PARAMETER[\"False_Easting\",500000.0],PARAMETER[\"False_Northing\",%d.0],"
                        + "PARAMETER[\"Central_Meridian\",%d.0],PARAMETER[\"Scale_Factor\",0.9996],PARAMETER[\"Latitude_Of_Origin\",0.0],UNIT[\"Meter\",1.0]]")
                .formatted(name, degrees, north, middle);
    }

    @ParameterizedTest
    @CsvSource({
        "WGS_1984_UTM_Zone_32N, W, 9, 0, 32632",
        "WGS_1984_UTM_Zone_30N, W, -3, 0, 32630",
        "WGS_1984_UTM_Zone_55S, W, 147, 10000000, 32755",
        "ETRS_1989_UTM_Zone_32N, E, 9, 0, 25832",
    })
    void namesOfManyProgramsAreUnderstood(String name, String datum, int middle, int north, int epsg) {
        assertThat(WktSystem.epsg(utm(name, datum.equals("W") ? WGS84 : ETRS, middle, north)))
                .hasValue(epsg);
    }

    @Test
    void anAuthorityCountsBeforeEverything() {
        assertThat(WktSystem.epsg("PROJCS[\"x\"," + WGS84 + ",UNIT[\"m\",1],AUTHORITY[\"EPSG\",\"27700\"]]"))
                .hasValue(27700);
        assertThat(WktSystem.epsg(WGS84)).hasValue(4326);
    }

    @Test
    void whatNobodyKnowsIsNotGuessed() {
        assertThat(WktSystem.epsg("")).isEmpty();
        assertThat(WktSystem.epsg("LOCAL_CS[\"quarry\"]")).isEmpty();
        assertThat(WktSystem.epsg(utm("quarry", WGS84, 11, 17))).isEmpty();
        assertThat(WktSystem.epsg("PROJCS[\"x\",SPHEROID[\"y\",6.3.7,8]]")).isEmpty();
    }

    /** Every hundredth grid of the list, its authority taken away, is found again: itself or one with the same figures. */
    @Test
    void gridsAreFoundAgainByTheirFigures() throws IOException {
        List<String> lines;
        try (BufferedReader reader = new BufferedReader(new InputStreamReader(
                WktSystemTest.class.getResourceAsStream("/proj4/wkt/epsg.properties"), StandardCharsets.UTF_8))) {
            lines = reader.lines().filter(line -> line.contains("=PROJCS")).toList();
        }
        int same = 0;
        int asked = 0;
        for (int i = 0; i < lines.size(); i += 100) {
            int equals = lines.get(i).indexOf('=');
            String wkt = lines.get(i)
                    .substring(equals + 1)
                    .replaceFirst(",\\s*AUTHORITY\\[\"EPSG\",\"\\d+\"\\]\\]\\s*$", "]");
            asked++;
            same += WktSystem.epsg(wkt).orElse(0)
                            == Integer.parseInt(
                                    lines.get(i).substring(0, equals).strip())
                    ? 1
                    : 0;
        }
        assertThat(asked).isGreaterThan(30);
        assertThat(same).isGreaterThanOrEqualTo(asked * 9 / 10);
    }
}
