package yalos.web.strips;

import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;

/** The field book's page of the Strips stage. */
@Component
class StripsBook implements StageBook {
    @Override
    public Stage stage() {
        return Stage.STRIPS;
    }

    @Override
    public void fill(Opened opened, Model model) {
        model.addAttribute(
                "ledger", LedgerView.of(opened.block().facts().pins(), opened.planned(), opened.units(), opened.why()));
        model.addAttribute("why", opened.why());
    }
}
