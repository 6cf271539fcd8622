package yalos.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Optional;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/** Positions written as lettered grid references. */
class LetteredPositionTest {
    /** The digits are those of the UTM grid within its square of 100 km: held against the projection of another library, which differs by 2 cm. */
    @ParameterizedTest
    @CsvSource({
        "30U VF 12717 41822, 32630, 12717, 41822",
        "30UVF1271741822, 32630, 12717, 41822",
        "30uvf 1271 4182, 32630, 12710, 41820",
        "32T PT 24, 32632, 20000, 40000",
        "55H FA 12345 67890, 32755, 12345, 67890",
        "1C DM 00100 00200, 32701, 100, 200",
    })
    void digitsAreThoseOfTheGrid(String text, int epsg, double east, double north) {
        LonLat at = TypedPosition.read(text, Optional.empty());
        EastNorth grid = Grid.ofEpsg(epsg).toGrid(at);
        assertThat(grid.east() % 100_000).isCloseTo(east, Offset.offset(0.05));
        assertThat(grid.north() % 100_000).isCloseTo(north, Offset.offset(0.05));
    }

    @Test
    void whatIsNoSquareIsRefusedInWords() {
        assertThatThrownBy(() -> TypedPosition.read("30U VF 123", Optional.empty()))
                .isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> TypedPosition.read("30I VF 1234", Optional.empty()))
                .isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> TypedPosition.read("99U VF 1234", Optional.empty()))
                .isInstanceOf(InputFault.class);
    }

    @Test
    void degreesWithLettersStayDegrees() {
        LonLat at = TypedPosition.read("54 30.803 N 4 20.935 W", Optional.empty());
        assertThat(at.latDeg()).isCloseTo(54.5133833, Offset.offset(1e-6));
    }
}
