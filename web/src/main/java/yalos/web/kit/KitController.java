package yalos.web.kit;

import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.kit.Aircraft;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.Visit;
import yalos.web.shell.NotThere;
import yalos.web.store.CameraMapper;
import yalos.web.store.CameraRow;

/** Puts a camera of the catalogue on the block's aircraft. */
@Controller
class KitController {
    private final Blocks blocks;
    private final BlockPage page;
    private final CameraMapper cameras;

    KitController(Blocks blocks, BlockPage page, CameraMapper cameras) {
        this.blocks = blocks;
        this.page = page;
        this.cameras = cameras;
    }

    @PostMapping("/blocks/{id}/camera")
    String camera(@PathVariable long id, @RequestParam long camera, Visit visit) {
        CameraRow row = cameras.byId(camera).orElseThrow(() -> new NotThere("There is no such camera any more."));
        return page.changed(
                blocks.change(id, visit.version(), row.name(), facts -> facts.withCamera(row.id(), row.camera())),
                visit);
    }

    /** Changes the aircraft's figures, all fields together. */
    @PostMapping("/blocks/{id}/aircraft")
    String aircraft(@PathVariable long id, @RequestParam Map<String, String> form, Visit visit) {
        Aircraft aircraft = AircraftForm.read(form);
        return page.changed(
                blocks.change(id, visit.version(), "aircraft's figures", facts -> facts.withAircraft(aircraft)), visit);
    }
}
