package yalos.web.sheet;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.height.HeightPlan;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.KnownGround;
import yalos.core.terrain.HeightGrid;
import yalos.web.block.Blocks;
import yalos.web.block.PlanDesk;
import yalos.web.elevation.Pictures;
import yalos.web.sheet.GroundKeys.Drawn;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.work.Order;
import yalos.web.work.Recent;
import yalos.web.work.WorkQueue;

/** What the sheet shows of the ground: light and shade, contours, long sections. */
@RestController
class GroundSheetController {
    private static final int MOST_DRAWN = 8;

    private final Blocks blocks;
    private final PlanDesk desk;
    private final Preferences preferences;
    private final Pictures pictures;
    private final WorkQueue queue;
    /** Asked for whenever a stage is opened, and the same for all of them. */
    private final Map<Drawn, byte[]> reliefs = Recent.map(MOST_DRAWN);

    /** As they are written: to write them takes longer than all else of the answer. */
    private final Map<Drawn, byte[]> contours = Recent.map(MOST_DRAWN);

    private final JsonMapper json;
    private final GroundKeys keys;

    GroundSheetController(
            Blocks blocks,
            PlanDesk desk,
            Preferences preferences,
            Pictures pictures,
            WorkQueue queue,
            JsonMapper json,
            GroundKeys keys) {
        this.json = json;
        this.keys = keys;
        this.queue = queue;
        this.pictures = pictures;
        this.blocks = blocks;
        this.desk = desk;
        this.preferences = preferences;
    }

    /** Kept by the browser where it asks for what is drawn now by its name. */
    private CacheControl kept(Drawn drawn, String of) {
        return keys.of(drawn).equals(of)
                ? CacheControl.maxAge(Duration.ofDays(1)).cachePrivate().immutable()
                : CacheControl.noStore();
    }

    private BlockPlan plan(long id) {
        return desk.needed(blocks.open(id).facts());
    }

    private static KnownGround ground(BlockPlan plan) {
        return plan.overGround().orElseThrow(() -> new NotThere("The block stands on level ground."));
    }

    @GetMapping("/blocks/{id}/relief.png")
    ResponseEntity<byte[]> relief(@PathVariable long id, @RequestParam(defaultValue = "") String of) {
        BlockFacts facts = blocks.open(id).facts();
        HeightGrid grid = ground(desk.needed(facts)).grid();
        Drawn drawn = keys.drawn(facts, grid);
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(kept(drawn, of))
                .body(Recent.once(reliefs, drawn, () -> GroundSheet.picture(grid)));
    }

    /** The picture that lies under the plan, laid into the job's grid. */
    @GetMapping("/blocks/{id}/picture.png")
    ResponseEntity<byte[]> picture(@PathVariable long id, HttpServletRequest request) {
        long picture = blocks.open(id)
                .facts()
                .ground()
                .picture()
                .orElseThrow(() -> new NotThere("No picture lies under this plan."));
        BlockPlan plan = plan(id);
        PictureFrame frame = PictureFrame.of(plan);
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(CacheControl.noStore())
                .body(queue.answer(
                        request,
                        "The picture",
                        pictures.bytes(picture, frame.columns(), frame.rows()),
                        Order.USUAL,
                        work -> pictures.over(
                                picture,
                                plan.block().plane(),
                                frame.west(),
                                frame.north(),
                                frame.cell(),
                                frame.columns(),
                                frame.rows())));
    }

    @GetMapping("/blocks/{id}/contours.json")
    ResponseEntity<byte[]> contours(@PathVariable long id, @RequestParam(defaultValue = "") String of) {
        BlockFacts facts = blocks.open(id).facts();
        BlockPlan plan = desk.needed(facts);
        HeightGrid grid = ground(plan).grid();
        Drawn drawn = keys.drawn(facts, grid);
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .cacheControl(kept(drawn, of))
                .body(Recent.once(
                        contours,
                        drawn,
                        () -> json.writeValueAsBytes(
                                GroundSheet.lines(grid, plan.block().plane(), drawn.heightUnitM()))));
    }

    /** The section of a strip by its number, or of the whole path for 0. */
    @GetMapping("/blocks/{id}/section.json")
    ResponseEntity<SectionView> section(@PathVariable long id, @RequestParam(defaultValue = "0") int strip) {
        BlockPlan plan = plan(id);
        Optional<HeightPlan> heights = plan.heights();
        if (heights.isEmpty() || strip < 0 || strip > plan.flight().lines().size()) {
            throw new NotThere("There is no such section.");
        }
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noStore())
                .body(SectionView.of(plan, heights.get(), strip, preferences.units()));
    }
}
