package yalos.web.exchange;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import yalos.core.exchange.PlanSheetData;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.shell.Download;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;

/** Hands the plan out in open files. */
@Controller
class ExportController {
    private final Blocks blocks;
    private final PlanDesk desk;
    private final Preferences preferences;

    ExportController(Blocks blocks, PlanDesk desk, Preferences preferences) {
        this.blocks = blocks;
        this.desk = desk;
        this.preferences = preferences;
    }

    @GetMapping("/blocks/{id}/export/plan.{format}")
    void export(@PathVariable long id, @PathVariable String format, HttpServletResponse response) throws IOException {
        OpenBlock block = blocks.open(id);
        Planned planned = desk.plan(block.facts());
        Planned.Whole whole = planned.whole()
                .orElseThrow(() -> planned.fault().orElse(new InputFault("plan", "none", "There is no plan yet.")));
        PlanSheetData data = whole.sheet(block, preferences.units());
        PlanFile file = PlanFile.ofKey(format)
                .orElseThrow(() -> new NotThere(
                        "Plans are written as geojson, kml, kmz, gpx, csv and gpkg, not as " + format + "."));
        head(response, file.type(), block, format);
        file.write(data, response.getOutputStream());
    }

    private static void head(HttpServletResponse response, String type, OpenBlock block, String format) {
        Download.head(
                response, type, Names.ofFile(block.jobName() + "-" + block.name() + "-plan", "plan") + "." + format);
    }
}
