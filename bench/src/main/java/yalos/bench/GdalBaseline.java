package yalos.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;
import java.util.StringJoiner;
import yalos.core.camera.View;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.Bounds;
import yalos.core.plan.BlockPlan;

/** How long reference software takes to burn the same footprints; the best of three runs, its start included. */
final class GdalBaseline {
    private static final Path PROGRAM = Path.of("/usr/bin/gdal_rasterize");

    private GdalBaseline() {}

    static Optional<Double> milliseconds() throws IOException, InterruptedException {
        if (!Files.isExecutable(PROGRAM)) {
            return Optional.empty();
        }
        BlockPlan plan = Samples.squareKilometre().plan();
        Path folder = Files.createTempDirectory("yalos-bench");
        Path footprints = folder.resolve("footprints.geojson");
        Files.writeString(footprints, geoJson(plan));
        Bounds bounds = plan.block().bounds();
        double best = Double.MAX_VALUE;
        for (int i = 0; i < 3; i++) {
            Path raster = folder.resolve("count" + i + ".tif");
            long start = System.nanoTime();
            Process process = new ProcessBuilder(
                            PROGRAM.toString(),
                            "-q",
                            "-add",
                            "-burn",
                            "1",
                            "-ot",
                            "UInt16",
                            "-tr",
                            "0.5",
                            "0.5",
                            "-te",
                            String.valueOf(bounds.west()),
                            String.valueOf(bounds.south()),
                            String.valueOf(bounds.east()),
                            String.valueOf(bounds.north()),
                            footprints.toString(),
                            raster.toString())
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            if (process.waitFor() != 0) {
                return Optional.empty();
            }
            best = Math.min(best, (System.nanoTime() - start) / 1e6);
        }
        return Optional.of(best);
    }

    private static String geoJson(BlockPlan plan) {
        StringJoiner features = new StringJoiner(",", "{\"type\":\"FeatureCollection\",\"features\":[", "]}");
        for (Exposure photo : plan.flight().exposures()) {
            double[] c = new View(photo.lens(), photo.pose()).footprint(0);
            features.add(String.format(
                    Locale.ROOT,
                    "{\"type\":\"Feature\",\"properties\":{},\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[%f,%f],[%f,%f],[%f,%f],[%f,%f],[%f,%f]]]}}",
                    c[0],
                    c[1],
                    c[2],
                    c[3],
                    c[4],
                    c[5],
                    c[6],
                    c[7],
                    c[0],
                    c[1]));
        }
        return features.toString();
    }
}
