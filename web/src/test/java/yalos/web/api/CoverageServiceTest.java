package yalos.web.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.Reference;
import yalos.core.terrain.GeoTiff;
import yalos.web.RunningYalos;

/** The coverage service over HTTP against brute force by independent software; coverage_*.tif. */
@ExtendWith(RunningYalos.class)
class CoverageServiceTest {
    private static final String CAMERA =
            "{\"pixelsAcross\":5472,\"pixelsAlong\":3648,\"sensorAcrossMm\":13.18752,\"sensorAlongMm\":8.79168,\"focalLengthMm\":8.8}";

    @TempDir
    Path folder;

    private static String stations(boolean inGrid) {
        String features = Reference.rows("coverage_poses.csv")
                .map(row ->
                        ("{\"type\":\"Feature\",\"geometry\":{\"type\":\"Point\",\"coordinates\":[%s,%s]},\"properties\":{\"kind\":\"station\","
                                        + (inGrid ? "\"e\":%s,\"n\":%s," : "")
                                        + "\"heightM\":%s,\"yawDeg\":%s,\"pitchDeg\":%s,\"rollDeg\":%s}}")
                                .formatted((Object[])
                                        (inGrid
                                                ? new String[] {
                                                    row.text("lon_deg"),
                                                    row.text("lat_deg"),
                                                    row.text("e_m"),
                                                    row.text("n_m"),
                                                    row.text("h_m"),
                                                    row.text("yaw_grid_deg"),
                                                    row.text("pitch_deg"),
                                                    row.text("roll_deg")
                                                }
                                                : new String[] {
                                                    row.text("lon_deg"), row.text("lat_deg"), row.text("h_m"),
                                                    row.text("yaw_grid_deg"), row.text("pitch_deg"),
                                                            row.text("roll_deg")
                                                })))
                .collect(Collectors.joining(","));
        return "{\"type\":\"FeatureCollection\",\"features\":[" + features + "],\"plan\":{\"camera\":" + CAMERA + "}}";
    }

    static HttpResponse<byte[]> ask(String plan, byte[] terrain, String layer) {
        try {
            ByteArrayOutputStream body = new ByteArrayOutputStream();
            part(body, "plan", "plan.geojson", plan.getBytes(StandardCharsets.UTF_8));
            part(body, "terrain", "terrain.tif", terrain);
            part(body, "layer", "", layer.getBytes(StandardCharsets.UTF_8));
            body.write("--x--\r\n".getBytes(StandardCharsets.UTF_8));
            return HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(RunningYalos.url() + "/api/coverage"))
                                    .header("Content-Type", "multipart/form-data; boundary=x")
                                    .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray()))
                                    .build(),
                            HttpResponse.BodyHandlers.ofByteArray());
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void part(ByteArrayOutputStream body, String name, String file, byte[] content) throws IOException {
        String head = "--x\r\nContent-Disposition: form-data; name=\"" + name + "\""
                + (file.isEmpty() ? "" : "; filename=\"" + file + "\"") + "\r\n\r\n";
        body.write(head.getBytes(StandardCharsets.UTF_8));
        body.write(content);
        body.write("\r\n".getBytes(StandardCharsets.UTF_8));
    }

    private float[] cells(byte[] tiff, String name) throws IOException {
        Path file = folder.resolve(name);
        Files.write(file, tiff);
        try (GeoTiff read = GeoTiff.open(file)) {
            assertThat(read.columns()).isEqualTo(400);
            assertThat(read.epsg()).hasValue(32632);
            assertThat(read.georeference().originX()).isEqualTo(565001 - 1.0);
            return read.window(0, 0, 400, 400);
        }
    }

    @ParameterizedTest
    @CsvSource({
        "count, coverage_count_occlusion.tif, 0",
        "countNoOcclusion, coverage_count_no_occlusion.tif, 0",
        "gsd, coverage_gsd_best.tif, 0.00001",
    })
    void agreesWithBruteForceCellByCell(String layer, String reference, float tolerance) throws IOException {
        HttpResponse<byte[]> answer = ask(stations(true), Reference.bytes("coverage_dem_utm.tif"), layer);
        assertThat(answer.statusCode()).isEqualTo(200);
        Path theirs = folder.resolve("theirs.tif");
        Files.write(theirs, Reference.bytes(reference));
        float[] ours = cells(answer.body(), "ours.tif");
        int differs = 0;
        try (GeoTiff read = GeoTiff.open(theirs)) {
            float[] expected = read.window(0, 0, 400, 400);
            for (int i = 0; i < ours.length; i++) {
                boolean same =
                        Float.isNaN(expected[i]) ? Float.isNaN(ours[i]) : Math.abs(expected[i] - ours[i]) <= tolerance;
                differs += same ? 0 : 1;
            }
        }
        // cells within a pixel of a frame, or of an edge of what hides them
        assertThat(differs).isLessThan(160_000 / 1000);
    }

    @Test
    void positionsMayStandInLongitudeAndLatitudeOnly() throws IOException {
        byte[] terrain = Reference.bytes("coverage_dem_utm.tif");
        float[] byGrid = cells(ask(stations(true), terrain, "count").body(), "a.tif");
        float[] byDegrees = cells(ask(stations(false), terrain, "count").body(), "b.tif");
        int differs = 0;
        for (int i = 0; i < byGrid.length; i++) {
            differs += Math.abs(byGrid[i] - byDegrees[i]) > 1 ? 1 : 0;
        }
        assertThat(differs).isZero();
    }

    @Test
    void angleAndHeightAccuracyAreGivenToo() throws IOException {
        byte[] terrain = Reference.bytes("coverage_dem_utm.tif");
        float[] angles = cells(ask(stations(true), terrain, "angle").body(), "angle.tif");
        float[] sigmas = cells(ask(stations(true), terrain, "sigmaZ").body(), "sigma.tif");
        int both = 0;
        for (int i = 0; i < angles.length; i++) {
            if (!Float.isNaN(angles[i])) {
                assertThat(angles[i]).isBetween(0f, 180f);
                both += Float.isNaN(sigmas[i]) ? 0 : 1;
            }
        }
        assertThat(both).isGreaterThan(50_000);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "depth | coverage_dem_utm.tif | layer",
                "count | coverage_dem_wgs84.tif | terrain",
                "count | raster/rotated_float32.tif | terrain",
                "count | raster/broken_truncated.tif | terrain",
                "count | raster/broken_huge.tif | terrain",
                "count | raster/broken_not_a_tiff.tif | terrain",
                "count | raster/broken_no_georeference.tif | terrain",
            })
    void badPartsAreNamedInAProblem(String layer, String terrain, String field) {
        HttpResponse<byte[]> answer = ask(stations(true), Reference.bytes(terrain), layer);
        assertThat(answer.statusCode()).isEqualTo(400);
        assertThat(answer.headers().firstValue("Content-Type").orElse("")).startsWith("application/problem+json");
        assertThat(new String(answer.body(), StandardCharsets.UTF_8)).contains("\"field\":\"" + field + "\"");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "\"heightM\":600.0 | \"heightM\":\"high\" | heightM",
                "\"pitchDeg\":-90.0 | \"pitchDeg\":-900 | pitchDeg",
                "\"focalLengthMm\":8.8 | \"focalLengthMm\":0 | focalLengthMm",
                "\"kind\":\"station\" | \"kind\":\"post\" | plan.features",
            })
    void aBadStationOrCameraIsNamed(String right, String wrong, String field) {
        String plan = stations(true);
        assertThat(plan).contains(right);
        HttpResponse<byte[]> answer = ask(plan.replace(right, wrong), Reference.bytes("coverage_dem_utm.tif"), "count");
        assertThat(answer.statusCode()).isEqualTo(400);
        assertThat(new String(answer.body(), StandardCharsets.UTF_8)).contains(field);
    }
}
