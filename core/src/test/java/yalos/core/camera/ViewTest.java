package yalos.core.camera;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.Samples;

/** Against OpenCV 4.6.0 and 50-digit arithmetic, see the reference README. */
class ViewTest {
    static Stream<Reference.Row> forward() {
        return Reference.rows("projection.csv");
    }

    static Stream<Reference.Row> inverse() {
        return Reference.rows("projection_inverse.csv");
    }

    @ParameterizedTest
    @MethodSource("forward")
    void showsAGroundPointAtTheReferencePixel(Reference.Row row) {
        Optional<View.Sighting> seen = viewOf(row).of(row.number("e_m"), row.number("n_m"), row.number("z_m"));
        assertThat(seen.isPresent()).isEqualTo(row.whole("in_front") == 1);
        if (seen.isPresent()) {
            assertThat(seen.get().depthM()).isCloseTo(row.number("depth_m"), Offset.offset(1e-5));
            assertThat(seen.get().inFrame()).isEqualTo(row.whole("in_frame") == 1);
            if (!row.isEmpty("u_px") && row.whole("folded") == 0) {
                assertThat(seen.get().u()).isCloseTo(row.number("u_px"), Offset.offset(1e-4));
                assertThat(seen.get().v()).isCloseTo(row.number("v_px"), Offset.offset(1e-4));
            }
        }
    }

    @ParameterizedTest
    @MethodSource("inverse")
    void findsTheGroundUnderAPixel(Reference.Row row) {
        Optional<View.GroundHit> hit = viewOf(row).ground(row.number("u_px"), row.number("v_px"), row.number("z0_m"));
        assertThat(hit.isPresent()).isEqualTo(row.whole("hits") == 1);
        if (hit.isPresent()) {
            Offset<Double> tolerance = Offset.offset(Math.max(1e-3, 1e-6 * row.number("slant_range_m")));
            assertThat(hit.get().eastM()).isCloseTo(row.number("e_m"), tolerance);
            assertThat(hit.get().northM()).isCloseTo(row.number("n_m"), tolerance);
            assertThat(hit.get().slantRangeM()).isCloseTo(row.number("slant_range_m"), tolerance);
        }
    }

    @Test
    void footprintCornersEncloseTheFormulasRectangle() {
        Camera camera = Samples.twentyMegapixel();
        GroundScale scale = new GroundScale(camera, 75);
        double[] corners = new View(Lens.of(camera), Pose.vertical(0, 0, 75, 0)).footprint(0);
        assertThat(corners[2] - corners[0]).isCloseTo(scale.footprintAcrossM(), Offset.offset(1e-9));
        assertThat(corners[1] - corners[7]).isCloseTo(scale.footprintAlongM(), Offset.offset(1e-9));
    }

    /** A level camera's lower half sees ground: two corners of the frame, and two where it is cut below the horizon. */
    @Test
    void aFootprintIsCutBelowTheHorizonAndASkyHasNone() {
        Lens lens = Lens.of(Samples.twentyMegapixel());
        double[] cut = new View(lens, new Pose(0, 0, 75, 0, 0, 0)).footprint(0);
        assertThat(cut).hasSize(8);
        double near = Double.MAX_VALUE;
        double far = 0;
        for (int i = 1; i < cut.length; i += 2) {
            near = Math.min(near, cut[i]);
            far = Math.max(far, cut[i]);
        }
        // tan of the half angle of view is half the rows over the focal length in pixels
        assertThat(near).isCloseTo(75 / (lens.height() / 2.0 / lens.fy()), Offset.offset(1e-6));
        assertThat(far).isCloseTo(75_000, Offset.offset(1e-3));
        double[] rolled = new View(lens, new Pose(0, 0, 75, 0, Math.toRadians(-10), 0.9)).footprint(0);
        assertThat(rolled.length).isBetween(6, 10);
        assertThat(new View(lens, new Pose(0, 0, 75, 0, Math.toRadians(60), 0)).footprint(0))
                .isEmpty();
        assertThat(new View(lens, Pose.vertical(0, 0, -5, 0)).footprint(0))
                .as("below the ground")
                .isEmpty();
    }

    private static View viewOf(Reference.Row row) {
        Lens lens = new Lens(
                row.whole("image_width_px"),
                row.whole("image_height_px"),
                row.number("fx_px"),
                row.number("fy_px"),
                row.number("cx_px"),
                row.number("cy_px"),
                new Lens.Distortion(
                        row.number("k1"), row.number("k2"), row.number("k3"), row.number("p1"), row.number("p2")));
        Pose pose = new Pose(
                row.number("cam_e_m"),
                row.number("cam_n_m"),
                row.number("cam_h_m"),
                Math.toRadians(row.number("yaw_deg")),
                Math.toRadians(row.number("pitch_deg")),
                Math.toRadians(row.number("roll_deg")));
        return new View(lens, pose);
    }
}
