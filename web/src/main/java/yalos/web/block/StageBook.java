package yalos.web.block;

import org.springframework.ui.Model;
import yalos.core.units.UnitChoice;

/** A stage's page of the field book: what it puts beside the sheet. One for each stage that is built. */
public interface StageBook {
    Stage stage();

    void fill(Opened opened, Model model);

    /**
     * What a page is made from.
     *
     * @param why key of the quantity whose reason is open; empty for none
     */
    record Opened(OpenBlock block, Planned planned, UnitChoice units, String why) {}
}
