package yalos.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import yalos.core.Reference;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.core.units.Unit;

/** Tables that come with a take or a map: columns in any order, headings as people write them. */
class TakeTablesTest {
    private static final Optional<Grid> GRID = Optional.of(Grid.ofEpsg(32632));

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** Reference section 17: positions worked out afterwards. */
    @Test
    void positionsAreReadAsTheReferenceHasThem() {
        PhotoPositions read = PhotoPositions.read(Reference.bytes("take_positions.csv"), GRID);
        List<Reference.Row> rows = Reference.rows("take_positions.csv").toList();

        assertThat(read.zero()).contains(Zero.ELLIPSOID);
        assertThat(read.rows()).hasSize(rows.size());
        for (int i = 0; i < rows.size(); i++) {
            PhotoPositions.Row row = read.rows().get(i);
            assertThat(row.photo()).isEqualTo(rows.get(i).text("name"));
            assertThat(row.place().latDeg()).isEqualTo(rows.get(i).number("lat_deg"));
            assertThat(row.heightM().orElseThrow()).isEqualTo(rows.get(i).number("height_ellipsoid_m"));
            assertThat(row.yawDeg().orElseThrow()).isEqualTo(rows.get(i).number("yaw_deg"));
            assertThat(row.rollDeg().orElseThrow()).isEqualTo(rows.get(i).number("roll_deg"));
            assertThat(row.horizontalM().orElseThrow()).isEqualTo(rows.get(i).number("accuracy_h_m"));
        }
    }

    @Test
    void columnsMayStandInAnyOrderAndInTheGrid() {
        PhotoPositions read = PhotoPositions.read(
                text("Z (m);Northing;Easting;Image\n120,5;5273000;532000;a.jpg\n121;5273010,5;532000;b.jpg\n"), GRID);

        assertThat(read.rows().get(0).heightM().orElseThrow()).isEqualTo(120.5);
        assertThat(GRID.orElseThrow().toGrid(read.rows().get(1).place()).north())
                .isCloseTo(5_273_010.5, within(1e-4));
        assertThat(read.zero()).isEmpty();
    }

    @Test
    void aTableOfPositionsWithoutNamesIsRefused() {
        assertThatThrownBy(() -> PhotoPositions.read(text("lat,lon,h\n1,2,3\n"), GRID))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("photo's name");
        assertThatThrownBy(() -> PhotoPositions.read(text("name,lat,lon\na.jpg,north,9\n"), GRID))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("Row 2");
    }

    @Test
    void logsTellTheirTimesOrTheirBeginning() {
        List<FlightLog.Moment> timed = FlightLog.csv(
                text(
                        "time,lat,lon,altitude_m\n2026-06-18 08:00:00.5,47.6,9.4,512\n2026-06-18T10:00:01+02:00,47.61,9.4,\n"),
                Optional.empty());

        assertThat(timed.get(0).at()).isEqualTo(Instant.parse("2026-06-18T08:00:00.500Z"));
        assertThat(timed.get(1).at()).isEqualTo(Instant.parse("2026-06-18T08:00:01Z"));
        assertThat(timed.get(1).upM()).isEmpty();
        byte[] counted = text("seconds,latitude,longitude\n0,47.6,9.4\n1.5,47.6,9.5\n");
        assertThatThrownBy(() -> FlightLog.csv(counted, Optional.empty()))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("counts seconds only");
        assertThat(FlightLog.csv(counted, Optional.of(Instant.EPOCH)).get(1).at())
                .isEqualTo(Instant.ofEpochMilli(1500));
    }

    @Test
    void residualsComeAsDifferencesOrAsPlaces() {
        ResidualTable differences = ResidualTable.read(
                text("Point;dH [ft];dE;dN;role;surface\nA;0,1;0,02;-0,03;check;grass\nB;;0;0;;\n"),
                GRID,
                Unit.FOOT,
                true);

        assertThat(differences.differences()).isTrue();
        assertThat(differences.rows().get(0).up().orElseThrow()).isCloseTo(-0.03048, within(1e-9));
        assertThat(differences.rows().get(0).surface()).isEqualTo("grass");
        assertThat(differences.rows().get(1).up()).isEmpty();
        ResidualTable places = ResidualTable.read(
                text("name,easting,northing,height\nA,532000,5273000,412.5\n"), GRID, Unit.METRE, false);
        assertThat(places.differences()).isFalse();
        assertThat(places.rows().get(0).mapPlace()).isPresent();
        assertThatThrownBy(() -> ResidualTable.read(text("name,colour\nA,red\n"), GRID, Unit.METRE, false))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("needs a heading");
    }
}
