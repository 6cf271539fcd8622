package yalos.web.store;

import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.camera.Camera;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.ledger.Pins;
import yalos.core.ledger.PlanRequest;

/**
 * Everything the operator decided about a block, and nothing that follows from it.
 *
 * @param outline may be empty while none is drawn
 * @param launch launch point, if given
 * @param epsg the grid asked for; UTM where empty
 * @param cameraId the catalogue's camera this one was taken from
 * @param camera as it was when taken, so that a change in the catalogue changes no plan unasked
 * @param aircraft that carries it
 * @param pins of the ledger
 * @param brief what must be delivered
 */
public record BlockFacts(
        Outline outline,
        Optional<LonLat> launch,
        OptionalInt epsg,
        OptionalLong cameraId,
        Camera camera,
        Aircraft aircraft,
        Pins pins,
        Brief brief) {

    public PlanRequest request() {
        return new PlanRequest(camera, aircraft, pins, outline, launch, epsg);
    }

    /** The job's grid; empty while there is neither a code nor a place. */
    public Optional<Grid> grid() {
        if (epsg.isPresent()) {
            return Optional.of(Grid.ofEpsg(epsg.getAsInt()));
        }
        return outline.isEmpty() ? launch.map(Grid::utmAt) : Optional.of(Grid.utmAt(outline.middle()));
    }

    public BlockFacts with(Pins other) {
        return new BlockFacts(outline, launch, epsg, cameraId, camera, aircraft, other, brief);
    }

    public BlockFacts with(Outline other) {
        return new BlockFacts(other, launch, epsg, cameraId, camera, aircraft, pins, brief);
    }

    public BlockFacts withLaunch(Optional<LonLat> other) {
        return new BlockFacts(outline, other, epsg, cameraId, camera, aircraft, pins, brief);
    }

    public BlockFacts withEpsg(OptionalInt other) {
        return new BlockFacts(outline, launch, other, cameraId, camera, aircraft, pins, brief);
    }

    public BlockFacts with(Brief other) {
        return new BlockFacts(outline, launch, epsg, cameraId, camera, aircraft, pins, other);
    }

    public BlockFacts withAircraft(Aircraft other) {
        return new BlockFacts(outline, launch, epsg, cameraId, camera, other, pins, brief);
    }

    public BlockFacts withCamera(long id, Camera other) {
        return new BlockFacts(outline, launch, epsg, OptionalLong.of(id), other, aircraft, pins, brief);
    }
}
