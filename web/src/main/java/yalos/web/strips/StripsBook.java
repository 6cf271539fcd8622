package yalos.web.strips;

import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.work.PageWork;

/** The field book's page of the Strips stage. */
@Component
class StripsBook implements StageBook {
    /** Opened like a reason, so that it stays open while figures change, and has an address. */
    private static final String WHAT_IF = "what-if";

    private final PageWork work;

    StripsBook(PageWork work) {
        this.work = work;
    }

    @Override
    public Stage stage() {
        return Stage.STRIPS;
    }

    @Override
    public void fill(Opened opened, Model model) {
        model.addAttribute(
                "ledger", LedgerView.of(opened.block().facts(), opened.planned(), opened.units(), opened.why()));
        model.addAttribute("why", opened.why());
        model.addAttribute(
                "passes",
                PassesView.of(
                        opened.block().facts().patterns(),
                        opened.planned().whole().map(Planned.Whole::plan),
                        opened.units()));
        model.addAttribute(
                "groundWords",
                opened.planned()
                        .whole()
                        .flatMap(whole -> whole.plan().heights())
                        .map(heights -> heights.choice().reference().words())
                        .orElse("level ground"));
        opened.planned()
                .whole()
                .filter(whole -> opened.why().equals(WHAT_IF))
                .ifPresent(whole -> model.addAttribute(
                        "whatIf", work.answer("The comparison", () -> WhatIfView.of(whole.plan(), opened.units()))));
    }
}
