package yalos.core.flight;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;

/** The shortest forward path that turns no tighter than a radius. */
class DubinsTest {
    static Stream<Reference.Row> paths() {
        return Reference.rows("dubins.csv");
    }

    /** Independent reference: closed forms, tangent geometry and blind minimisation agree; the first 16 rows just touch. */
    @ParameterizedTest
    @MethodSource("paths")
    void isAsShortAsTheReference(Reference.Row row) {
        Dubins path = Dubins.shortest(
                row.number("end_e_m") - row.number("start_e_m"),
                row.number("end_n_m") - row.number("start_n_m"),
                Math.toRadians(row.number("start_heading_deg")),
                Math.toRadians(row.number("end_heading_deg")),
                row.number("radius_m"));
        assertThat(path.lengthM()).isCloseTo(row.number("length_m"), Offset.offset(1e-6));
    }

    /** Hand figures: lines 2 r apart a half circle, far apart two quarters and the rest, 0 apart the bulb of 7/3 half circles. */
    @Test
    void theHandFiguresOfATurn() {
        assertThat(across(40)).isCloseTo(Math.PI * 20, Offset.offset(1e-9));
        assertThat(across(100)).isCloseTo(Math.PI * 20 + 60, Offset.offset(1e-9));
        assertThat(across(0)).isCloseTo(20 * (Math.PI + 4 * Math.PI / 3), Offset.offset(1e-9));
    }

    private static double across(double eastM) {
        return Dubins.shortest(eastM, 0, 0, Math.PI, 20).lengthM();
    }
}
