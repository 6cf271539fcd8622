package yalos.web.api;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;
import yalos.core.fault.InputFault;
import yalos.core.proof.FaceLook;
import yalos.core.surface.Face;
import yalos.core.surface.SolidOccluder;
import yalos.web.work.WorkQueue;

/** Answers how often, how finely and how squarely photos see each bit of a structure, for a script. Keeps nothing. */
@RestController
class FacesController {
    private static final int MOST_BYTES = 20_000_000;
    private static final long BYTES = 300_000_000;
    private static final Duration DEADLINE = Duration.ofSeconds(120);
    /** Cells whose middle is nearer to the ground are its rim and left out. */
    private static final double CLEAR_M = 0.05;

    private final WorkQueue queue;

    FacesController(WorkQueue queue) {
        this.queue = queue;
    }

    /** The answer: a row for each cell, object by object. */
    record Answer(List<Row> cells) {}

    /**
     * A cell.
     *
     * @param centre east, north, up
     * @param gsdM null where no photo sees it, as {@code incidenceDeg}; {@code rayAngleDeg} where fewer than two do
     */
    record Row(
            String object,
            String face,
            int column,
            int row,
            double[] centre,
            double[] normal,
            int photos,
            int photosNoOcclusion,
            Double gsdM,
            Double incidenceDeg,
            Double rayAngleDeg) {
        static Row of(String object, Face face, FaceLook.Cell cell) {
            return new Row(
                    object,
                    face.side().name().toLowerCase(Locale.ROOT),
                    cell.column(),
                    cell.row(),
                    cell.centre(),
                    cell.normal(),
                    cell.photos(),
                    cell.photosNoOcclusion(),
                    cell.gsdM().isPresent() ? cell.gsdM().getAsDouble() : null,
                    degrees(cell.incidenceRad()),
                    degrees(cell.rayAngleRad()));
        }

        private static Double degrees(OptionalDouble angle) {
            return angle.isPresent() ? Math.toDegrees(angle.getAsDouble()) : null;
        }
    }

    @PostMapping(path = "/api/faces", consumes = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<Answer> faces(HttpServletRequest request) throws IOException {
        byte[] content = request.getInputStream().readNBytes(MOST_BYTES + 1);
        if (content.length > MOST_BYTES) {
            throw new InputFault("body", "over 20 MB", "The body may have up to 20 MB.");
        }
        FacesReader read = FacesReader.of(content);
        return queue.answer(request, "The faces", BYTES, DEADLINE, work -> {
            SolidOccluder occluder = new SolidOccluder(
                    read.structures().stream().map(FacesReader.Structure::solid).toList());
            List<Row> rows = new ArrayList<>();
            for (FacesReader.Structure structure : read.structures()) {
                for (Face face : structure.faces(read.cellM())) {
                    work.check();
                    FaceLook.of(face, occluder, read.photos(), read.ground(), CLEAR_M)
                            .forEach(cell -> rows.add(Row.of(structure.id(), face, cell)));
                }
            }
            return ResponseEntity.ok(new Answer(rows));
        });
    }
}
