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
import yalos.core.kit.Positioning;
import yalos.core.pattern.Patterns;
import yalos.core.pins.Defaults;
import yalos.core.pins.Overlaps;
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
 * @param wanted how positions of photos are to be known; as the aircraft can where empty
 * @param patterns which fly it
 */
public record PlanRequest(
        Kit kit,
        Pins pins,
        Outline outline,
        Optional<LonLat> launch,
        OptionalInt epsg,
        Optional<GroundRequest> ground,
        Optional<Positioning> wanted,
        Patterns patterns) {

    /** Over level ground. */
    public PlanRequest(Kit kit, Pins pins, Outline outline, Optional<LonLat> launch, OptionalInt epsg) {
        this(kit, pins, outline, launch, epsg, Optional.empty(), Optional.empty(), Patterns.SINGLE);
    }

    /** The same with positions to be known otherwise. */
    public PlanRequest with(Positioning mode) {
        return new PlanRequest(kit, pins, outline, launch, epsg, ground, Optional.of(mode), patterns);
    }

    /** How positions are really known: as wanted, unless the aircraft knows them less well. Control points do not ask it. */
    public Positioning able() {
        return able(wanted.orElse(aircraft().positioning()));
    }

    /** As wanted, unless the aircraft knows them less well. */
    public Positioning able(Positioning mode) {
        Positioning able = aircraft().positioning();
        boolean beyond = mode != Positioning.CONTROL && mode.horizontalM() < able.horizontalM() - 1e-9;
        return beyond ? able : mode;
    }

    /** The same over real ground. */
    public PlanRequest over(GroundRequest real) {
        return new PlanRequest(kit, pins, outline, launch, epsg, Optional.of(real), wanted, patterns);
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
        return new PlanRequest(other, pins, outline, launch, epsg, ground, wanted, patterns);
    }

    /** The job's grid: the one asked for, or the UTM zone of the block's middle. */
    public Grid grid() {
        return epsg.isPresent() ? Grid.ofEpsg(epsg.getAsInt()) : Grid.utmAt(outline.middle());
    }

    /** The request with other patterns. */
    public PlanRequest with(Patterns other) {
        return new PlanRequest(kit, pins, outline, launch, epsg, ground, wanted, other);
    }

    /** Overlaps where none is pinned. */
    public Overlaps usual() {
        return Defaults.usual(patterns.corridor().isPresent());
    }

    /** The request with other pins. */
    public PlanRequest with(Pins other) {
        return new PlanRequest(kit, other, outline, launch, epsg, ground, wanted, patterns);
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
