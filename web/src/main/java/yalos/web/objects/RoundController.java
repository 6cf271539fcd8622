package yalos.web.objects;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.fault.InputFault;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pins.Defaults;
import yalos.core.pins.Quantity;
import yalos.core.trial.FaceRemedies;
import yalos.core.trial.RoundTable;
import yalos.core.units.Measure;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.PlanDesk;
import yalos.web.block.Visit;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.work.PageWork;

/** What is flown round objects: passes added, changed and taken away, and remedies taken. */
@Controller
class RoundController {
    private final Blocks blocks;
    private final BlockPage page;
    private final Preferences preferences;
    private final PlanDesk desk;
    private final PageWork work;

    RoundController(Blocks blocks, BlockPage page, Preferences preferences, PlanDesk desk, PageWork work) {
        this.blocks = blocks;
        this.page = page;
        this.preferences = preferences;
        this.desk = desk;
        this.work = work;
    }

    private String changed(long id, Visit visit, String label, UnaryOperator<Structures> change) {
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        label,
                        facts -> facts.with(facts.patterns()
                                .with(change.apply(facts.patterns().structures())))),
                visit);
    }

    private StructurePass pass(long id, int number) {
        return pass(blocks.open(id).facts().patterns().structures(), number);
    }

    /** Another pass in the place of the one with a number. */
    private String changed(long id, Visit visit, int number, StructurePass now) {
        return changed(id, visit, now.words(), structures -> {
            pass(structures, number);
            List<StructurePass> passes = new ArrayList<>(structures.passes());
            passes.set(number - 1, now);
            return structures.with(passes);
        });
    }

    @PostMapping("/blocks/{id}/rounds/add")
    String addPass(
            @PathVariable long id,
            @RequestParam String pattern,
            @RequestParam(defaultValue = "") String object,
            Visit visit) {
        BlockFacts facts = blocks.open(id).facts();
        double height = facts.pins().siOr(Quantity.HEIGHT, Defaults.CEILING_M / 3);
        StructurePass pass = RoundForm.usual(pattern, object, height, preferences.typed());
        return changed(id, visit, pass.words() + " added", structures -> structures.adding(pass));
    }

    /** @param number of the pass among those round objects, from 1 */
    @PostMapping("/blocks/{id}/rounds/{number}")
    String changePass(
            @PathVariable long id, @PathVariable int number, @RequestParam Map<String, String> fields, Visit visit) {
        StructurePass now = new RoundForm(fields, preferences.typed()).changed(pass(id, number));
        return changed(id, visit, number, now);
    }

    /** Takes a stand-off, or a radius of circles, out of the comparison. */
    @PostMapping("/blocks/{id}/rounds/{number}/size")
    String size(@PathVariable long id, @PathVariable int number, @RequestParam String value, Visit visit) {
        Measure to = Measure.typed("size", value, preferences.typed().unit(UnitKind.DISTANCE));
        return changed(id, visit, number, RoundTable.sized(pass(id, number), to));
    }

    /** Makes a change that was tried and helps; tried again, for the plan may have gone on. */
    @PostMapping("/blocks/{id}/objects/remedy")
    String remedy(@PathVariable long id, @RequestParam String key, Visit visit) {
        BlockFacts facts = blocks.open(id).facts();
        FaceRemedies.Remedy remedy =
                work
                        .answer(
                                "The remedies",
                                () -> FaceRemedies.of(
                                        desk.needed(facts), facts.brief().accuracy()))
                        .stream()
                        .filter(one -> one.key().equals(key))
                        .findFirst()
                        .orElseThrow(() -> new InputFault(
                                "key",
                                key,
                                "That does not help any more; the plan has changed. Look at the page again."));
        return changed(id, visit, remedy.words(), structures -> remedy.structures());
    }

    @PostMapping("/blocks/{id}/rounds/{number}/remove")
    String removePass(@PathVariable long id, @PathVariable int number, Visit visit) {
        return changed(id, visit, pass(id, number).words() + " taken away", structures -> {
            pass(structures, number);
            List<StructurePass> passes = new ArrayList<>(structures.passes());
            passes.remove(number - 1);
            return structures.with(passes);
        });
    }

    private static StructurePass pass(Structures structures, int number) {
        if (number < 1 || number > structures.passes().size()) {
            throw new InputFault("pass", number, "There is no such pass any more.");
        }
        return structures.passes().get(number - 1);
    }
}
