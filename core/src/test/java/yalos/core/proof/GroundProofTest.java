package yalos.core.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.CancellationException;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.flight.Exposure;
import yalos.core.terrain.GeoTiff;
import yalos.core.terrain.Georeference;
import yalos.core.terrain.HeightGrid;

/** The proof against brute force by independent software, and against the textbook. */
class GroundProofTest {
    @TempDir
    Path folder;

    private GeoTiff raster(String name) throws IOException {
        Path copy = folder.resolve(name);
        Files.write(copy, Reference.bytes(name));
        return GeoTiff.open(copy);
    }

    private float[] cells(String name) throws IOException {
        try (GeoTiff tiff = raster(name)) {
            return tiff.window(0, 0, tiff.columns(), tiff.rows());
        }
    }

    private HeightGrid ground() throws IOException {
        try (GeoTiff tiff = raster("coverage_dem_utm.tif")) {
            Georeference geo = tiff.georeference();
            return new HeightGrid(geo.originX(), geo.originY(), 2, 2, 400, 400, tiff.window(0, 0, 400, 400));
        }
    }

    private static Lens lens() {
        Reference.Row row = Reference.rows("coverage_camera.csv").findFirst().orElseThrow();
        double focal = row.number("focal_mm") * 1000 / row.number("pixel_pitch_um");
        return new Lens(
                row.whole("image_width_px"),
                row.whole("image_height_px"),
                focal,
                focal,
                row.number("cx_px"),
                row.number("cy_px"),
                Lens.Distortion.NONE);
    }

    private static List<Exposure> photos() {
        return Reference.rows("coverage_poses.csv")
                .map(row -> Exposure.of(
                        1,
                        row.whole("line"),
                        new Pose(
                                row.number("e_m"),
                                row.number("n_m"),
                                row.number("h_m"),
                                Math.toRadians(row.number("yaw_grid_deg")),
                                Math.toRadians(row.number("pitch_deg")),
                                Math.toRadians(row.number("roll_deg"))),
                        lens()))
                .toList();
    }

    /** Brute force of every cell against every image, and a second program; coverage_*.tif. */
    @Test
    void countsAndGsdAgreeWithBruteForce() throws IOException {
        GroundProof proof = GroundProof.of(ground(), photos(), Noise.ofImage(0.5));
        float[] without = cells("coverage_count_no_occlusion.tif");
        float[] with = cells("coverage_count_occlusion.tif");
        float[] least = cells("coverage_count_min.tif");
        float[] most = cells("coverage_count_max.tif");
        float[] gsd = cells("coverage_gsd_best.tif");
        int differs = 0;
        for (int i = 0; i < with.length; i++) {
            assertThat((float) proof.counts()[i]).as("cell %d", i).isBetween(least[i], most[i]);
            if (least[i] == most[i]) {
                assertThat((float) proof.counts()[i]).as("cell %d", i).isEqualTo(with[i]);
            }
            differs += proof.countsWithoutOcclusion()[i] == without[i] ? 0 : 1;
            if (!Float.isNaN(gsd[i]) && proof.counts()[i] == with[i]) {
                assertThat(proof.gsdBestM()[i]).isCloseTo(gsd[i], Offset.offset(1e-5f));
            }
        }
        assertThat(differs).isLessThan(5);
        double[] shares = {0.69659, 0.67890, 0.55796, 0.30649, 0.08796};
        int[] times = {1, 2, 3, 5, 9};
        Coverage coverage = Coverage.of(proof, 5);
        for (int i = 0; i < times.length; i++) {
            assertThat(coverage.shareAtLeast(times[i])).isCloseTo(shares[i], Offset.offset(0.001));
        }
    }

    static Stream<Reference.Row> points() {
        return Reference.rows("intersection.csv");
    }

    /** Least squares with full weights, checked by a second system and by simulation; intersection.csv. */
    @ParameterizedTest
    @MethodSource("points")
    void theExpectedAccuracyAgreesWithLeastSquares(Reference.Row row) {
        List<Pose> poses = Reference.rows("intersection_stations.csv")
                .filter(station -> station.text("case").equals(row.text("case")))
                .map(station -> new Pose(
                        station.number("cam_e_m"),
                        station.number("cam_n_m"),
                        station.number("cam_h_m"),
                        Math.toRadians(station.number("yaw_deg")),
                        Math.toRadians(station.number("pitch_deg")),
                        Math.toRadians(station.number("roll_deg"))))
                .toList();
        double focal = row.number("focal_px");
        int width = row.whole("image_width_px");
        int height = row.whole("image_height_px");
        Lens lens = new Lens(width, height, focal, focal, width / 2.0, height / 2.0, Lens.Distortion.NONE);
        Noise noise = new Noise(
                row.number("sigma_pixel_px"),
                row.number("sigma_cam_e_m"),
                row.number("sigma_cam_n_m"),
                row.number("sigma_cam_u_m"),
                0,
                0);
        Optional<Intersection.Covariance> found = Intersection.of(
                row.number("point_e_m"), row.number("point_n_m"), row.number("point_z_m"), poses, lens, noise);
        if (row.isEmpty("sigma_u_m")) {
            assertThat(found).isEmpty();
            return;
        }
        Intersection.Covariance covariance = found.orElseThrow();
        assertThat(covariance.sigmaEastM()).isCloseTo(row.number("sigma_e_m"), Percentage.withPercentage(1e-4));
        assertThat(covariance.sigmaNorthM()).isCloseTo(row.number("sigma_n_m"), Percentage.withPercentage(1e-4));
        assertThat(covariance.sigmaUpM()).isCloseTo(row.number("sigma_u_m"), Percentage.withPercentage(1e-4));
        assertThat(covariance.sigmaUpM()).isCloseTo(row.number("mc_sigma_u_m"), Percentage.withPercentage(2.0));
    }

    /** σ_Z = (H / B)(H / f) σ_parallax for a normal stereo pair (Kraus, Photogrammetry, from memory). */
    @Test
    void aNormalStereoPairMeasuresHeightAsTheTextbookSays() {
        Lens lens = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
        List<Pose> pair = List.of(Pose.vertical(-15, 0, 100, 0), Pose.vertical(15, 0, 100, 0));
        double sigma = Intersection.of(0, 0, 0, pair, lens, Noise.ofImage(0.5))
                .orElseThrow()
                .sigmaUpM();
        double parallax = 0.5 * Math.sqrt(2);
        assertThat(sigma).isCloseTo(100.0 / 30 * 100 / 3000 * parallax, Percentage.withPercentage(1e-6));
    }

    private static List<Exposure> regular(
            Lens lens, int strips, int inStrip, double spacing, double base, double height) {
        return IntStream.range(0, strips * inStrip)
                .mapToObj(i -> Exposure.of(
                        i + 1,
                        i / inStrip,
                        Pose.vertical((i % inStrip) * base, (i / inStrip) * spacing, height, Math.PI / 2),
                        lens))
                .toList();
    }

    /** Inside a block over level ground the mean is 1 / ((1 − o)(1 − q)); wolf and others, from memory. */
    @Test
    void theMeanCountInsideIsTheTextbooks() {
        Lens lens = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
        double height = 75;
        double across = 4000 * height / 3000;
        double along = 3000 * height / 3000;
        HeightGrid level = HeightGrid.level(300, 520, 0.5, 360, 360, 0);
        GroundProof proof =
                GroundProof.of(level, regular(lens, 30, 60, across * 0.3, along * 0.2, height), Noise.ofImage(0.5));
        double mean = 0;
        for (short count : proof.counts()) {
            mean += count;
        }
        assertThat(mean / proof.counts().length).isCloseTo(1 / (0.2 * 0.3), Percentage.withPercentage(1));
        assertThat(proof.counts()).isEqualTo(proof.countsWithoutOcclusion());
        assertThat(proof.gsdBestM()[1000]).isCloseTo(0.025f, Offset.offset(1e-6f));
    }

    /** A wall hides what lies behind it, and only that: the shadow of a wall h high seen from H is h d / (H − h) long. */
    @Test
    void aWallHidesWhatLiesBehindIt() {
        HeightGrid flat = HeightGrid.level(0, 100, 0.25, 400, 400, 0);
        for (int row = 0; row < 400; row++) {
            flat.heights()[row * 400 + 200] = 10;
        }
        Lens lens = new Lens(4000, 3000, 1500, 1500, 2000, 1500, Lens.Distortion.NONE);
        GroundProof proof = GroundProof.of(
                flat, List.of(Exposure.of(1, 1, Pose.vertical(25, 50, 40, 0), lens)), Noise.ofImage(0.5));
        double wall = flat.x(200);
        double shadow = 10 * (wall - 25) / (40 - 10);
        int row = 200;
        for (int column = 0; column < 400; column++) {
            double beyond = flat.x(column) - wall;
            int seen = proof.counts()[row * 400 + column];
            if (beyond > 0.5 && beyond < shadow - 0.5) {
                assertThat(seen).as("x %.2f", flat.x(column)).isZero();
            } else if (beyond < -0.5 || beyond > shadow + 0.5 && beyond < 20) {
                assertThat(seen)
                        .as("x %.2f", flat.x(column))
                        .isEqualTo(proof.countsWithoutOcclusion()[row * 400 + column]);
            }
        }
    }

    @Test
    void nothingIsKnownWhereTheModelKnowsNothingAndWorkCanBeCalledOff() {
        HeightGrid holed = HeightGrid.level(0, 50, 0.5, 100, 100, 0);
        holed.heights()[5050] = Float.NaN;
        Lens lens = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
        GroundProof proof = GroundProof.of(holed, regular(lens, 5, 5, 10, 10, 60), Noise.ofImage(0.5));
        assertThat(proof.counts()[5050]).isZero();
        assertThat(proof.gsdBestM()[5050]).isNaN();
        assertThat(proof.counts()[5051]).isPositive();
        assertThatThrownBy(() -> GroundProof.of(
                        holed,
                        new boolean[0],
                        regular(lens, 5, 5, 10, 10, 60),
                        Noise.ofImage(0.5),
                        new SurfaceProof.Scope(EnumSet.noneOf(SurfaceProof.Layer.class)),
                        share -> false))
                .isInstanceOf(CancellationException.class);
    }

    /** Far obliques look at and above the horizon; what they see is still projected rightly. */
    @Test
    void anObliquePhotoAddsToTheAngle() {
        HeightGrid level = HeightGrid.level(-50, 50, 1, 100, 100, 0);
        Lens lens = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
        Pose nadir = Pose.vertical(0, 0, 60, 0);
        Pose oblique = new Pose(0, -60, 60, 0, Math.toRadians(-45), 0);
        GroundProof proof = GroundProof.of(
                level, List.of(Exposure.of(1, 1, nadir, lens), Exposure.of(2, 2, oblique, lens)), Noise.ofImage(0.5));
        int middle = 50 * 100 + 50;
        assertThat(proof.counts()[middle]).isEqualTo((short) 2);
        assertThat(proof.stripCounts()[middle]).isEqualTo((short) 2);
        assertThat(Math.toDegrees(proof.anglesRad()[middle])).isCloseTo(45, Offset.offset(1.0));
    }

    /** Each photo through its own lens: the longer one sees finer and less. */
    @Test
    void everyPhotoIsSeenThroughItsOwnLens() {
        HeightGrid level = HeightGrid.level(-60, 60, 1, 120, 120, 0);
        Lens wide = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
        Lens narrow = new Lens(4000, 3000, 6000, 6000, 2000, 1500, Lens.Distortion.NONE);
        Pose pose = Pose.vertical(0, 0, 60, 0);
        GroundProof proof = GroundProof.of(
                level, List.of(Exposure.of(1, 1, pose, wide), Exposure.of(2, 2, pose, narrow)), Noise.ofImage(0.5));
        int middle = 60 * 120 + 60;
        int aside = 60 * 120 + 60 + 30;
        assertThat(proof.counts()[middle]).isEqualTo((short) 2);
        assertThat(proof.gsdBestM()[middle]).isCloseTo(60 / 6000f, Offset.offset(1e-6f));
        assertThat(proof.gsdMeanM()[middle]).isCloseTo((60 / 6000f + 60 / 3000f) / 2, Offset.offset(1e-6f));
        assertThat(proof.counts()[aside]).isEqualTo((short) 1);
        assertThat(proof.gsdBestM()[aside]).isCloseTo(60 / 3000f, Offset.offset(1e-6f));
    }

    /** Lines are sets: photos in any order give the same. */
    @Test
    void theOrderOfThePhotosMattersNowhere() {
        HeightGrid level = HeightGrid.level(0, 60, 2, 40, 30, 0);
        Lens lens = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
        List<Exposure> sorted = regular(lens, 4, 6, 20, 12, 60);
        List<Exposure> mixed = new ArrayList<>(sorted);
        Collections.shuffle(mixed, new Random(7));
        GroundProof first = GroundProof.of(level, sorted, Noise.ofImage(0.5));
        GroundProof second = GroundProof.of(level, mixed, Noise.ofImage(0.5));
        assertThat(second.stripCounts()).isEqualTo(first.stripCounts());
        assertThat(second.counts()).isEqualTo(first.counts());
        assertThat(first.stripCounts()[600]).isGreaterThan((short) 1);
    }

    /** The shared error is per axis: √2 of it joins the horizontal figure, once the vertical one, both in quadrature. */
    @Test
    void whatAllPhotosShareIsAddedInQuadrature() {
        HeightGrid level = HeightGrid.level(0, 60, 2, 30, 30, 0);
        Lens lens = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
        List<Exposure> photos = regular(lens, 4, 6, 20, 12, 60);
        GroundProof own = GroundProof.of(level, photos, Noise.of(0.5, 0.02, 0.03, 0, 0));
        GroundProof shared = GroundProof.of(level, photos, Noise.of(0.5, 0.02, 0.03, 0.05, 0.08));
        int cell = 15 * 30 + 15;
        assertThat((double) shared.sigmaHorizontalM()[cell])
                .isCloseTo(Math.sqrt(Math.pow(own.sigmaHorizontalM()[cell], 2) + 2 * 0.05 * 0.05), Offset.offset(1e-6));
        assertThat((double) shared.sigmaVerticalM()[cell])
                .isCloseTo(Math.hypot(own.sigmaVerticalM()[cell], 0.08), Offset.offset(1e-6));
    }
}
