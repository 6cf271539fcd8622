package yalos.core.ledger;

import java.util.Optional;
import java.util.OptionalInt;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.camera.Camera;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;

/**
 * Everything decided about a block that a plan needs.
 *
 * @param kit aircraft and payload
 * @param pins what is fixed
 * @param outline of the block; must not be empty
 * @param launch launch point, if known
 * @param epsg the job's grid; UTM where empty
 */
public record PlanRequest(Kit kit, Pins pins, Outline outline, Optional<LonLat> launch, OptionalInt epsg) {

    /** The leading camera. */
    public Camera camera() {
        return kit.camera();
    }

    public Aircraft aircraft() {
        return kit.aircraft();
    }

    /** The request with another kit. */
    public PlanRequest with(Kit other) {
        return new PlanRequest(other, pins, outline, launch, epsg);
    }

    /** The job's grid: the one asked for, or the UTM zone of the block's middle. */
    public Grid grid() {
        return epsg.isPresent() ? Grid.ofEpsg(epsg.getAsInt()) : Grid.utmAt(outline.middle());
    }

    /** The request with other pins. */
    public PlanRequest with(Pins other) {
        return new PlanRequest(kit, other, outline, launch, epsg);
    }

    /**
     * The plan.
     *
     * @throws InputFault for an outline, grid or pins that give none; see {@link OutlineCheck}
     */
    public BlockPlan plan() {
        return BlockPlan.of(this);
    }
}
