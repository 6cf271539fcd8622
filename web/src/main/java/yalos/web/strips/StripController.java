package yalos.web.strips;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.pattern.StripEdit;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.Visit;

/** Changes strips by hand from the sheet: drops them, makes them longer or shorter, adds some; and takes such changes back. */
@Controller
class StripController {
    private final Blocks blocks;
    private final BlockPage page;

    StripController(Blocks blocks, BlockPage page) {
        this.blocks = blocks;
        this.page = page;
    }

    /**
     * @param kind of change
     * @param positions easting, northing in turn, in the job's grid: a place on the strip, or both ends of an added one
     * @param photos by which a strip reaches further at the end that lies there
     */
    @PostMapping("/blocks/{id}/strips/edit")
    String edit(
            @PathVariable long id,
            @RequestParam StripEdit.Kind kind,
            @RequestParam List<Double> positions,
            @RequestParam(defaultValue = "0") int photos,
            Visit visit) {
        if (positions.size() != (kind == StripEdit.Kind.ADD ? 4 : 2)) {
            throw new InputFault("strip", positions.size() / 2, "A change needs the place of its strip.");
        }
        Grid grid = blocks.open(id)
                .facts()
                .grid()
                .orElseThrow(() -> new InputFault("strip", "no place", "The block has no place yet."));
        LonLat at = grid.toLonLat(new EastNorth(positions.get(0), positions.get(1)));
        StripEdit edit = switch (kind) {
            case DROP -> StripEdit.drop(at);
            case REACH -> StripEdit.reach(at, photos);
            case ADD -> StripEdit.add(at, grid.toLonLat(new EastNorth(positions.get(2), positions.get(3))));
        };
        return changed(id, visit, edit.words(), edits -> {
            List<StripEdit> more = new ArrayList<>(edits);
            more.add(edit);
            return more;
        });
    }

    /** @param number of the change, from 1 */
    @PostMapping("/blocks/{id}/strips/edit/{number}/remove")
    String remove(@PathVariable long id, @PathVariable int number, Visit visit) {
        return changed(id, visit, "change to a strip taken back", edits -> {
            if (number < 1 || number > edits.size()) {
                throw new InputFault("strip", number, "There is no such change any more.");
            }
            List<StripEdit> others = new ArrayList<>(edits);
            others.remove(number - 1);
            return others;
        });
    }

    private String changed(long id, Visit visit, String label, UnaryOperator<List<StripEdit>> change) {
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        label,
                        facts -> facts.with(facts.patterns()
                                .edited(change.apply(facts.patterns().edits())))),
                visit);
    }
}
