package yalos.web.sorties;

import java.util.List;
import yalos.core.fault.InputFault;
import yalos.web.store.BlockFacts;

/** Things of a list by their number, as forms and sorties name them. */
public final class Listed {
    private Listed() {}

    /** The name of a launch point: the block's own comes first. */
    public static String launchName(BlockFacts facts, int index) {
        boolean own = facts.launch().isPresent();
        if (own && index == 0) {
            return "launch point";
        }
        return facts.field().sorties().launches().get(index - (own ? 1 : 0)).name();
    }

    /** Refuses in a sentence what is no number of the list. */
    public static <T> T at(List<T> list, int index, String field) {
        if (index < 0 || index >= list.size()) {
            throw new InputFault(field, index, "It is gone already; reload the page.");
        }
        return list.get(index);
    }
}
