package yalos.web.accuracy;

import java.util.ArrayList;
import java.util.List;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import yalos.core.accuracy.Residual;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.EastNorth;
import yalos.web.accuracy.AccuracyDesk.Found;
import yalos.web.accuracy.AccuracyDesk.Kept;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.control.Shown;
import yalos.web.shell.Preferences;

/** What the Accuracy stage adds to the sheet: residuals at their points, all at one scale. */
@RestController
class AccuracySheet {
    private final Blocks blocks;
    private final AccuracyDesk desk;
    private final Preferences preferences;

    AccuracySheet(Blocks blocks, AccuracyDesk desk, Preferences preferences) {
        this.blocks = blocks;
        this.desk = desk;
        this.preferences = preferences;
    }

    /**
     * @param mostM the largest of all, which is drawn as long as the sheet allows
     * @param legend its figure in words
     */
    record Drawn(List<Mark> points, double mostM, String legend) {}

    /**
     * A point, in the job's grid.
     *
     * @param dE map less ground in metres; 0 without
     * @param out whether it is an outlier
     */
    record Mark(String name, double east, double north, double dE, double dN, double dH, boolean out) {}

    @GetMapping("/blocks/{id}/accuracy.json")
    ResponseEntity<Drawn> drawn(@PathVariable long id) {
        OpenBlock block = blocks.open(id);
        Found found = desk.figures(block);
        List<AccuracyView.PointRow> rows = AccuracyView.points(found, preferences.units());
        List<Mark> marks = new ArrayList<>();
        double most = 0;
        if (block.facts().grid().isPresent() && !block.facts().outline().isEmpty()) {
            LocalPlane plane = LocalPlane.at(
                    block.facts().grid().orElseThrow(), block.facts().outline().middle());
            for (int i = 0; i < found.kept().size(); i++) {
                Kept one = found.kept().get(i);
                Residual residual = one.residual();
                if (residual.at().isPresent() && one.row().leftOut().isEmpty()) {
                    EastNorth at = plane.toGrid(residual.at().orElseThrow());
                    most = Math.max(
                            most,
                            Math.max(
                                    residual.levelM().orElse(0),
                                    Math.abs(residual.upM().orElse(0))));
                    marks.add(new Mark(
                            residual.point(),
                            at.east(),
                            at.north(),
                            residual.eastM().orElse(0),
                            residual.northM().orElse(0),
                            residual.upM().orElse(0),
                            rows.get(i).out()));
                }
            }
        }
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noStore())
                .body(new Drawn(marks, most, Shown.accuracy(preferences.units(), most)));
    }
}
