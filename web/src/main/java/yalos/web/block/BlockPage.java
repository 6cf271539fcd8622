package yalos.web.block;

import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.fault.InputFault;
import yalos.core.finding.Finding;
import yalos.core.units.UnitChoice;
import yalos.web.shell.Htmx;
import yalos.web.shell.Preferences;

/** What every stage's page of a block shares: who it is, how the stages stand, what is found, what can be undone. */
@Component
public class BlockPage {
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm");

    private final PlanDesk desk;
    private final Preferences preferences;
    private final List<StageBook> books;
    private final SheetSource sheet;

    BlockPage(PlanDesk desk, Preferences preferences, List<StageBook> books, SheetSource sheet) {
        this.sheet = sheet;
        this.desk = desk;
        this.preferences = preferences;
        this.books = books;
    }

    /**
     * The whole page of a stage.
     *
     * @param why key of the quantity whose reason is open; empty for none
     */
    public String show(OpenBlock block, Stage stage, String why, Model model) {
        fill(block, stage, why, model);
        Object view = model.getAttribute("view");
        if (stage != Stage.FIELD_PACK && (view == null || view.equals("map"))) {
            bring(block, model);
            model.addAttribute("still", sheet.still(block, desk.plan(block.facts()), preferences.units()));
        }
        return "block/page";
    }

    /** The answer to a change: the parts of the page that follow from it, or a way back to the page without script. */
    public String changed(OpenBlock block, Visit visit) {
        if (!Htmx.asked(visit.request())) {
            return "redirect:/blocks/" + block.id() + "/" + visit.stage().key();
        }
        String why = visit.request().getParameter("why");
        fill(block, visit.stage(), why == null ? "" : why, visit.model());
        bring(block, visit.model());
        visit.response().setHeader(Htmx.TRIGGER, "sheet-changed");
        return "block/changed";
    }

    /** What the sheet draws comes with the book. */
    private void bring(OpenBlock block, Model model) {
        model.addAttribute("sheetNow", sheet.json(block, desk.plan(block.facts()), preferences.units()));
    }

    /** How the stages stand, for an answer that brings nothing else of the page. */
    public void stages(OpenBlock block, Stage here, Model model) {
        UnitChoice units = preferences.units();
        model.addAttribute("stages", standings(block, desk.plan(block.facts()), here, units));
    }

    /** How every stage of a block stands, seen from none of them. */
    public List<StageView> standings(OpenBlock block, Planned planned, UnitChoice units) {
        return standings(block, planned, null, units);
    }

    private List<StageView> standings(OpenBlock block, Planned planned, Stage here, UnitChoice units) {
        return StageView.all(block, planned, findings(block, planned, units), here, units, books);
    }

    /** The remedies of one finding, tried; nothing where the block went on since. */
    String mends(OpenBlock block, String key, Visit visit) {
        UnitChoice units = preferences.units();
        Planned planned = desk.plan(block.facts());
        Optional<Finding> finding = findings(block, planned, units).stream()
                .filter(one -> one.key().equals(key) && block.version() == visit.version())
                .findFirst();
        Model model = visit.model();
        model.addAttribute("block", block);
        model.addAttribute("stage", visit.stage());
        model.addAttribute(
                "mends",
                finding.map(one -> FindingView.MendView.all(planned, one, units))
                        .orElse(List.of()));
        model.addAttribute("tried", finding.map(one -> one.remedies().size()).orElse(0));
        return "block/mends";
    }

    private void fill(OpenBlock block, Stage stage, String why, Model model) {
        UnitChoice units = preferences.units();
        Planned planned = desk.plan(block.facts());
        model.addAttribute("block", block);
        model.addAttribute("stage", stage);
        model.addAttribute("editable", stage == Stage.GROUND || stage == Stage.STRIPS);
        // The page may judge more finely than was judged before; findings and tabs follow it.
        books.stream()
                .filter(book -> book.stage() == stage)
                .forEach(book -> book.fill(new StageBook.Opened(block, planned, units, why), model));
        List<Finding> findings = findings(block, planned, units);
        model.addAttribute("saved", block.savedAt().format(CLOCK));
        List<FindingView> views = FindingView.all(findings, planned);
        String note = Finding.Level.NOTE.word();
        model.addAttribute(
                "findings",
                views.stream().filter(view -> !view.level().equals(note)).toList());
        model.addAttribute(
                "notes",
                views.stream().filter(view -> view.level().equals(note)).toList());
        model.addAttribute("fault", planned.fault().map(InputFault::getMessage).orElse(""));
        model.addAttribute("empty", block.facts().outline().isEmpty());
        model.addAttribute("stages", StageView.all(block, planned, findings, stage, units, books));
    }

    /** Findings of a plan in the operator's units; none without a plan. */
    public List<Finding> findings(OpenBlock block, Planned planned, UnitChoice units) {
        return planned.whole().map(whole -> whole.findings(units)).orElse(List.of());
    }
}
