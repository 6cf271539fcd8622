package yalos.core.plan;

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
import yalos.core.pins.Pins;

/**
 * Everything decided about a block that a plan needs.
 *
 * @param kit aircraft and payload
 * @param pins what is fixed
 * @param outline of the block; must not be empty
 * @param launch launch point, if known
 * @param epsg the job's grid; UTM where empty
 * @param ground the real ground; level where empty
 */
public record PlanRequest(
        Kit kit,
        Pins pins,
        Outline outline,
        Optional<LonLat> launch,
        OptionalInt epsg,
        Optional<GroundRequest> ground) {

    /** Over level ground. */
    public PlanRequest(Kit kit, Pins pins, Outline outline, Optional<LonLat> launch, OptionalInt epsg) {
        this(kit, pins, outline, launch, epsg, Optional.empty());
    }

    /** The same over real ground. */
    public PlanRequest over(GroundRequest real) {
        return new PlanRequest(kit, pins, outline, launch, epsg, Optional.of(real));
    }

    /** The leading camera. */
    public Camera camera() {
        return kit.camera();
    }

    /** What is flown. */
    public Aircraft aircraft() {
        return kit.aircraft();
    }

    /** The request with another kit. */
    public PlanRequest with(Kit other) {
        return new PlanRequest(other, pins, outline, launch, epsg, ground);
    }

    /** The job's grid: the one asked for, or the UTM zone of the block's middle. */
    public Grid grid() {
        return epsg.isPresent() ? Grid.ofEpsg(epsg.getAsInt()) : Grid.utmAt(outline.middle());
    }

    /** The request with other pins. */
    public PlanRequest with(Pins other) {
        return new PlanRequest(kit, other, outline, launch, epsg, ground);
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
