package yalos.web.brief;

import java.util.ArrayList;
import java.util.List;
import yalos.core.brief.Brief;
import yalos.core.brief.Purpose;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** A brief in words, for papers. */
public final class BriefWords {
    private BriefWords() {}

    /** What was asked, in a line. */
    public static String of(Brief brief, UnitChoice units) {
        List<String> words = new ArrayList<>();
        words.add(brief.purpose().map(Purpose::words).orElse("no purpose asked yet"));
        if (brief.accuracy().positionM().isPresent()) {
            words.add("positions to "
                    + units.text(UnitKind.GSD, brief.accuracy().positionM().getAsDouble()));
        }
        if (brief.accuracy().heightM().isPresent()) {
            words.add("heights to "
                    + units.text(UnitKind.GSD, brief.accuracy().heightM().getAsDouble()));
        }
        words.add(brief.positioning().words());
        brief.due().ifPresent(due -> words.add("due " + due));
        return String.join(", ", words);
    }
}
