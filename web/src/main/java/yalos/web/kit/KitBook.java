package yalos.web.kit;

import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.camera.Camera;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.store.BlockFacts;
import yalos.web.store.CameraMapper;
import yalos.web.store.CameraRow;

/** The field book's page of the Kit stage: the block's camera, and the catalogue to choose from. */
@Component
class KitBook implements StageBook {
    private final CameraMapper rows;

    KitBook(CameraMapper rows) {
        this.rows = rows;
    }

    @Override
    public Stage stage() {
        return Stage.KIT;
    }

    @Override
    public void fill(Opened opened, Model model) {
        BlockFacts facts = opened.block().facts();
        long id = facts.cameraId().orElse(0);
        List<CameraRow> catalogue = rows.all();
        Camera camera = facts.camera();
        boolean outdated =
                catalogue.stream().filter(row -> row.id() == id).anyMatch(row -> !row.equals(CameraRow.of(id, camera)));
        model.addAttribute("camera", CameraView.of(id, camera, opened.units()));
        model.addAttribute("outdated", outdated);
        model.addAttribute("aircraft", AircraftForm.fields(facts.aircraft()));
        model.addAttribute(
                "usable",
                String.format(Locale.ROOT, "%.1f", facts.aircraft().battery().usableMinutes()));
        model.addAttribute(
                "catalogue",
                catalogue.stream()
                        .map(row -> CameraView.of(row, opened.units()))
                        .toList());
    }
}
