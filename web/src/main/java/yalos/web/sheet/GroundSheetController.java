package yalos.web.sheet;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yalos.core.height.HeightPlan;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.KnownGround;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.PlanDesk;
import yalos.web.elevation.Pictures;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.work.Order;
import yalos.web.work.WorkQueue;

/** What the sheet shows of the ground: light and shade, contours, long sections. */
@RestController
class GroundSheetController {
    private final Blocks blocks;
    private final PlanDesk desk;
    private final Preferences preferences;
    private final Pictures pictures;
    private final WorkQueue queue;

    GroundSheetController(Blocks blocks, PlanDesk desk, Preferences preferences, Pictures pictures, WorkQueue queue) {
        this.queue = queue;
        this.pictures = pictures;
        this.blocks = blocks;
        this.desk = desk;
        this.preferences = preferences;
    }

    private BlockPlan plan(long id) {
        return desk.needed(blocks.open(id).facts());
    }

    private static KnownGround ground(BlockPlan plan) {
        return plan.overGround().orElseThrow(() -> new NotThere("The block stands on level ground."));
    }

    @GetMapping("/blocks/{id}/relief.png")
    ResponseEntity<byte[]> relief(@PathVariable long id) {
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(CacheControl.noStore())
                .body(GroundSheet.picture(ground(plan(id)).grid()));
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
    ResponseEntity<GroundSheet.Ground> contours(@PathVariable long id) {
        BlockPlan plan = plan(id);
        UnitChoice units = preferences.units();
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noStore())
                .body(GroundSheet.lines(
                        ground(plan).grid(),
                        plan.block().plane(),
                        units.unit(UnitKind.HEIGHT).size()));
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
