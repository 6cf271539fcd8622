package yalos.web.api;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.multipart.MultipartHttpServletRequest;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.proof.GroundProof;
import yalos.core.proof.SurfaceProof;
import yalos.core.terrain.GeoTiff;
import yalos.core.terrain.GeoTiffWriter;
import yalos.core.terrain.Georeference;
import yalos.core.terrain.HeightGrid;
import yalos.web.work.Work;
import yalos.web.work.WorkQueue;

/** Proves stations over a terrain model for a script: one layer, on exactly the model's cells. Keeps nothing. */
@RestController
class CoverageController {
    private static final long MOST_CELLS = 40_000_000;
    /** Heights, what helps lines of sight, the layers, and the answer. */
    private static final long BYTES_A_CELL = 40;

    private static final Duration DEADLINE = Duration.ofMinutes(2);

    private final WorkQueue queue;
    private final Path scratch;

    CoverageController(WorkQueue queue, @Value("${yalos.data}") Path data) {
        this.queue = queue;
        this.scratch = data.resolve("scratch").toAbsolutePath();
    }

    /** What can be asked for. */
    private enum Wanted {
        COUNT("count"),
        COUNT_NO_OCCLUSION("countNoOcclusion", SurfaceProof.Layer.COUNT_WITHOUT_OCCLUSION),
        GSD("gsd", SurfaceProof.Layer.GSD),
        ANGLE("angle", SurfaceProof.Layer.ANGLE),
        SIGMA_Z("sigmaZ", SurfaceProof.Layer.ACCURACY);

        private final String key;
        private final Set<SurfaceProof.Layer> layers;

        Wanted(String key, SurfaceProof.Layer... layers) {
            this.key = key;
            this.layers =
                    layers.length == 0 ? EnumSet.noneOf(SurfaceProof.Layer.class) : EnumSet.copyOf(List.of(layers));
        }

        static Wanted ofKey(String key) {
            for (Wanted wanted : values()) {
                if (wanted.key.equals(key.strip())) {
                    return wanted;
                }
            }
            throw new InputFault("layer", key, "layer must be count, countNoOcclusion, gsd, angle or sigmaZ.");
        }

        float cell(GroundProof proof, int at) {
            return switch (this) {
                case COUNT -> proof.counts()[at];
                case COUNT_NO_OCCLUSION -> proof.countsWithoutOcclusion()[at];
                case GSD -> proof.gsdBestM()[at];
                case ANGLE -> (float) Math.toDegrees(proof.anglesRad()[at]);
                case SIGMA_Z -> proof.sigmaVerticalM()[at];
            };
        }
    }

    @PostMapping(path = "/api/coverage", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ResponseEntity<byte[]> coverage(MultipartHttpServletRequest request) throws IOException {
        byte[] plan = part(request, "plan");
        Wanted wanted = Wanted.ofKey(new String(part(request, "layer"), StandardCharsets.UTF_8));
        MultipartFile terrain = request.getFile("terrain");
        if (terrain == null || terrain.isEmpty()) {
            throw new InputFault("terrain", "missing", "The part “terrain” must be an elevation GeoTIFF.");
        }
        Path copy = Files.createTempFile(scratch, "terrain", ".tif");
        try {
            terrain.transferTo(copy);
            byte[] tiff = queue.answer(
                    request, "The proof", bytes(copy, plan), DEADLINE, work -> layer(copy, plan, wanted, work));
            return ResponseEntity.ok()
                    .contentType(MediaType.valueOf("image/tiff"))
                    .body(tiff);
        } finally {
            Files.deleteIfExists(copy);
        }
    }

    /** What the proof takes at the most: by the model's own figures, before a cell of it is read. */
    private static long bytes(Path terrain, byte[] plan) {
        try (GeoTiff model = GeoTiff.open(terrain)) {
            return checkedCells(model) * BYTES_A_CELL + 20L * plan.length;
        } catch (InputFault fault) {
            throw named(fault);
        }
    }

    private static InputFault named(InputFault fault) {
        return fault.field().equals("file") ? fault.at("terrain") : fault;
    }

    /** A part may come as a file or as a plain field. */
    private static byte[] part(MultipartHttpServletRequest request, String name) throws IOException {
        MultipartFile file = request.getFile(name);
        if (file != null && !file.isEmpty()) {
            return file.getBytes();
        }
        String text = request.getParameter(name);
        if (text != null && !text.isBlank()) {
            return text.getBytes(StandardCharsets.UTF_8);
        }
        throw new InputFault(name, "missing", "The part “%s” is missing.".formatted(name));
    }

    private static byte[] layer(Path terrain, byte[] plan, Wanted wanted, Work<?> work) throws IOException {
        try (GeoTiff model = GeoTiff.open(terrain)) {
            Grid grid = grid(model);
            HeightGrid ground = ground(model, grid.unitM());
            StationReader stations = StationReader.read(plan, grid);
            GroundProof proof = GroundProof.of(
                    ground,
                    new boolean[0],
                    stations.photos(),
                    stations.noise(),
                    new SurfaceProof.Scope(wanted.layers),
                    work::goOn);
            return written(model, ground, proof, wanted);
        } catch (InputFault fault) {
            throw named(fault);
        }
    }

    private static Grid grid(GeoTiff model) {
        if (model.epsg().isEmpty()) {
            throw new InputFault(
                    "terrain", "no EPSG code", "The terrain model does not name its grid by an EPSG code.");
        }
        try {
            return Grid.ofEpsg(model.epsg().getAsInt());
        } catch (InputFault fault) {
            throw new InputFault(
                    "terrain",
                    "EPSG:" + model.epsg().getAsInt(),
                    "The terrain model must lie in a projected grid, so that its cells are lengths. "
                            + fault.getMessage());
        }
    }

    private static HeightGrid ground(GeoTiff model, double unitM) {
        Georeference geo = model.georeference();
        if (!geo.isNorthUp()) {
            throw new InputFault("terrain", "rotated", "The terrain model is rotated. Resample it north up first.");
        }
        checkedCells(model);
        return new HeightGrid(
                geo.originX() * unitM,
                geo.originY() * unitM,
                geo.xPerColumn() * unitM,
                -geo.yPerRow() * unitM,
                model.columns(),
                model.rows(),
                model.window(0, 0, model.columns(), model.rows()));
    }

    private static long checkedCells(GeoTiff model) {
        long cells = (long) model.columns() * model.rows();
        if (cells > MOST_CELLS) {
            throw new InputFault(
                    "terrain",
                    model.columns() + " × " + model.rows(),
                    String.format(
                            Locale.ROOT,
                            "The model has %,d × %,d cells; this service proves up to %,d.",
                            model.columns(),
                            model.rows(),
                            MOST_CELLS));
        }
        return cells;
    }

    private static byte[] written(GeoTiff model, HeightGrid ground, GroundProof proof, Wanted wanted)
            throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        int columns = model.columns();
        GeoTiffWriter.write(out, columns, model.rows(), model.georeference(), model.epsg(), row -> {
            float[] line = new float[columns];
            for (int column = 0; column < columns; column++) {
                int at = row * columns + column;
                line[column] = Float.isNaN(ground.heights()[at]) ? Float.NaN : wanted.cell(proof, at);
            }
            return line;
        });
        return out.toByteArray();
    }
}
