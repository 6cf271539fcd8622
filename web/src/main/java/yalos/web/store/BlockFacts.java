package yalos.web.store;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import yalos.core.block.Corridor;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.camera.Camera;
import yalos.core.control.ControlLayout;
import yalos.core.day.DaySettings;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.Structures;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.PlanRequest;
import yalos.core.sortie.SortieSettings;

/**
 * Everything the operator decided about a block, and nothing that follows from it.
 *
 * @param outline may be empty while none is drawn
 * @param launch launch point, if given
 * @param epsg the grid asked for; UTM where empty
 * @param cameraId the catalogue's camera the leading one was taken from
 * @param kit as it was when taken, so that a change in the catalogue changes no plan unasked
 * @param pins of the ledger
 * @param brief what must be delivered
 * @param notes one line why, by the quantity it is about
 * @param ground its terrain, and what stands and hangs there
 * @param patterns which fly it
 * @param field what is decided about working in the field: points, sorties, the day
 */
public record BlockFacts(
        Outline outline,
        Optional<LonLat> launch,
        OptionalInt epsg,
        OptionalLong cameraId,
        Kit kit,
        Pins pins,
        Brief brief,
        Map<Quantity, String> notes,
        GroundFacts ground,
        Patterns patterns,
        Fieldwork field) {
    public BlockFacts {
        notes = Map.copyOf(notes);
    }

    /** A block in which nothing but kit and pins is decided. */
    public static BlockFacts empty(Optional<LonLat> launch, long cameraId, Kit kit, Pins pins) {
        return new BlockFacts(
                Outline.EMPTY,
                launch,
                OptionalInt.empty(),
                OptionalLong.of(cameraId),
                kit,
                pins,
                Brief.EMPTY,
                Map.of(),
                GroundFacts.LEVEL,
                Patterns.SINGLE,
                Fieldwork.NONE);
    }

    /** Points on the ground, and what is taken for granted of them. */
    public ControlLayout control() {
        return field.control();
    }

    /** What the core plans from. With a correction link switched on, batteries last as long as they do with it. */
    public PlanRequest request() {
        Aircraft aircraft = kit.aircraft();
        Kit flown = brief.positioning().link()
                ? kit.with(aircraft.with(aircraft.battery().withLinkOn()))
                : kit;
        return new PlanRequest(flown, pins, outline, launch, epsg)
                .with(brief.positioning())
                .with(patterns);
    }

    /** Where it is, as far as anybody said: the launch point, else the middle of the outline. */
    public Optional<LonLat> place() {
        return launch.or(() -> outline.isEmpty() ? Optional.empty() : Optional.of(outline.middle()));
    }

    /** The leading camera. */
    public Camera camera() {
        return kit.camera();
    }

    public Aircraft aircraft() {
        return kit.aircraft();
    }

    /** The job's grid; empty while there is neither a code nor a place. */
    public Optional<Grid> grid() {
        if (epsg.isPresent()) {
            return Optional.of(Grid.ofEpsg(epsg.getAsInt()));
        }
        return outline.isEmpty() ? launch.map(Grid::utmAt) : Optional.of(Grid.utmAt(outline.middle()));
    }

    public BlockFacts with(Pins other) {
        return new BlockFacts(outline, launch, epsg, cameraId, kit, other, brief, notes, ground, patterns, field);
    }

    /** An area: what was a corridor is one no more. */
    public BlockFacts with(Outline other) {
        Patterns area = patterns.along(Optional.empty());
        return new BlockFacts(other, launch, epsg, cameraId, kit, pins, brief, notes, ground, area, field);
    }

    public BlockFacts withLaunch(Optional<LonLat> other) {
        return new BlockFacts(outline, other, epsg, cameraId, kit, pins, brief, notes, ground, patterns, field);
    }

    public BlockFacts withEpsg(OptionalInt other) {
        return new BlockFacts(outline, launch, other, cameraId, kit, pins, brief, notes, ground, patterns, field);
    }

    public BlockFacts with(Brief other) {
        return new BlockFacts(outline, launch, epsg, cameraId, kit, pins, other, notes, ground, patterns, field);
    }

    public BlockFacts with(Kit other) {
        return new BlockFacts(
                outline, launch, epsg, OptionalLong.empty(), other, pins, brief, notes, ground, patterns, field);
    }

    public BlockFacts withAircraft(Aircraft other) {
        return new BlockFacts(
                outline, launch, epsg, cameraId, kit.with(other), pins, brief, notes, ground, patterns, field);
    }

    /** The leading camera, taken from the catalogue. */
    public BlockFacts withCamera(long id, Camera other) {
        Kit changed = kit.with(kit.payload().withLeading(other));
        return new BlockFacts(
                outline, launch, epsg, OptionalLong.of(id), changed, pins, brief, notes, ground, patterns, field);
    }

    public BlockFacts with(GroundFacts other) {
        return new BlockFacts(outline, launch, epsg, cameraId, kit, pins, brief, notes, other, patterns, field);
    }

    /** The same flown by other patterns. */
    public BlockFacts with(Patterns other) {
        return new BlockFacts(outline, launch, epsg, cameraId, kit, pins, brief, notes, ground, other, field);
    }

    public BlockFacts with(Fieldwork other) {
        return new BlockFacts(outline, launch, epsg, cameraId, kit, pins, brief, notes, ground, patterns, other);
    }

    public BlockFacts with(ControlLayout other) {
        return with(field.with(other));
    }

    public BlockFacts with(SortieSettings other) {
        return with(field.with(other));
    }

    public BlockFacts with(DaySettings other) {
        return with(field.with(other));
    }

    /** What a plan follows from: points on the ground, sorties and the day change none. */
    public BlockFacts planning() {
        return field.equals(Fieldwork.NONE) ? this : with(Fieldwork.NONE);
    }

    /** A corridor along an axis: the outline follows from it. */
    public BlockFacts with(Corridor corridor) {
        return with(corridor.outline()).with(patterns.along(Optional.of(corridor)));
    }

    /** A corridor along another axis, as wide as it was. */
    public BlockFacts withAxis(List<LonLat> axis) {
        return with(patterns.corridor().map(corridor -> corridor.along(axis)).orElseGet(() -> Corridor.usual(axis)));
    }

    /** A line why a quantity is what it is; an empty one takes it away. */
    public BlockFacts withNote(Quantity quantity, String note) {
        Map<Quantity, String> changed = new EnumMap<>(Quantity.class);
        changed.putAll(notes);
        if (note.isBlank()) {
            changed.remove(quantity);
        } else {
            changed.put(quantity, note.strip());
        }
        return new BlockFacts(outline, launch, epsg, cameraId, kit, pins, brief, changed, ground, patterns, field);
    }

    /** The facts of no place: without outline, launch point and grid. */
    public BlockFacts withoutPlace() {
        return new BlockFacts(
                Outline.EMPTY,
                Optional.empty(),
                OptionalInt.empty(),
                cameraId,
                kit,
                pins,
                brief,
                notes,
                GroundFacts.LEVEL,
                patterns.along(Optional.empty()).edited(List.of()).with(Structures.NONE),
                field.habits());
    }

    /** Everything of another block but its place: kit, pins, brief and notes. */
    public BlockFacts withSettingsOf(BlockFacts other) {
        return new BlockFacts(
                outline,
                launch,
                epsg,
                other.cameraId,
                other.kit,
                other.pins,
                other.brief,
                other.notes,
                ground,
                other.patterns
                        .along(patterns.corridor())
                        .edited(patterns.edits())
                        .with(patterns.structures()),
                field.withHabitsOf(other.field));
    }
}
