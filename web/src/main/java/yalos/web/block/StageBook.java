package yalos.web.block;

import java.util.Optional;
import org.springframework.ui.Model;
import yalos.core.units.UnitChoice;

/** A stage's page of the field book: what it puts beside the sheet. One for each stage that is built. */
public interface StageBook {
    Stage stage();

    void fill(Opened opened, Model model);

    /** How the stage stands, as far as that is known without working for it; empty where its tab is told otherwise. */
    default Optional<Standing> standing(OpenBlock block, Planned planned) {
        return Optional.empty();
    }

    /**
     * A word or two for the tab.
     *
     * @param mood {@code done}, {@code mind}, {@code stop} or empty
     */
    record Standing(String words, String mood) {}

    /**
     * What a page is made from.
     *
     * @param why key of the quantity whose reason is open; empty for none
     */
    record Opened(OpenBlock block, Planned planned, UnitChoice units, String why) {}
}
