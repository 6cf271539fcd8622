package yalos.web.kit;

import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.camera.Camera;
import yalos.core.fault.InputFault;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
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
    private final Catalogue catalogue;

    KitController(Blocks blocks, BlockPage page, CameraMapper cameras, Catalogue catalogue) {
        this.catalogue = catalogue;
        this.blocks = blocks;
        this.page = page;
        this.cameras = cameras;
    }

    @PostMapping("/blocks/{id}/camera")
    String camera(@PathVariable long id, @RequestParam String camera, Visit visit) {
        String[] chosen = camera.split("/");
        CameraRow row =
                cameras.byId(number(chosen[0])).orElseThrow(() -> new NotThere("There is no such camera any more."));
        Camera taken = lens(row, chosen);
        return page.changed(
                blocks.change(id, visit.version(), taken.name(), facts -> facts.withCamera(row.id(), taken)), visit);
    }

    private static Camera lens(CameraRow row, String[] chosen) {
        double focal = chosen.length > 1 ? Double.parseDouble(chosen[1]) : row.focalLengthMm();
        if (!row.lensesMm().contains(focal)) {
            throw new InputFault("camera", focal, "The camera has no lens of %s mm any more.".formatted(focal));
        }
        return row.withLens(focal);
    }

    private static long number(String text) {
        try {
            return Long.parseLong(text);
        } catch (NumberFormatException e) {
            throw new InputFault("camera", text, "Choose a camera of the catalogue.");
        }
    }

    /** Takes a whole kit of the catalogue. */
    @PostMapping("/blocks/{id}/kit")
    String kit(@PathVariable long id, @RequestParam long kit, Visit visit) {
        Kit taken = catalogue.gear(GearKind.KIT, kit, Kit.class);
        return page.changed(
                blocks.change(id, visit.version(), "kit: " + taken.name(), facts -> facts.with(taken)), visit);
    }

    /** Changes the aircraft's figures, all fields together. */
    @PostMapping("/blocks/{id}/aircraft")
    String aircraft(@PathVariable long id, @RequestParam Map<String, String> form, Visit visit) {
        Aircraft aircraft = AircraftForm.read(form);
        return page.changed(
                blocks.change(id, visit.version(), "aircraft's figures", facts -> facts.withAircraft(aircraft)), visit);
    }
}
