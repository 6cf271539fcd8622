package yalos.web.accuracy;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import yalos.core.accuracy.Statement;
import yalos.core.units.UnitChoice;
import yalos.web.block.OpenBlock;
import yalos.web.store.AccuracyMapper.NoteRow;

/** What can be said of a block's delivered map, for papers beyond its own stage. */
@Component
public class AccuracySaid {
    private final AccuracyDesk desk;

    AccuracySaid(AccuracyDesk desk) {
        this.desk = desk;
    }

    /**
     * @param headline passes or fails, with the figure
     * @param axes check points by axis, as rows of a table
     * @param note processing note
     */
    public record Said(
            AccuracyView.Line headline,
            Optional<Statement> checks,
            List<AccuracyView.AxisRow> axes,
            List<AccuracyView.Line> says,
            NoteRow note) {}

    /** Empty where nothing was checked. */
    public Optional<Said> of(OpenBlock block, UnitChoice units) {
        if (!desk.any(block.id())) {
            return Optional.empty();
        }
        AccuracyDesk.Found found = desk.figures(block);
        return Optional.of(new Said(
                AccuracyView.headline(found, units),
                found.checks(),
                found.checks().map(one -> AccuracyView.axes(one, units)).orElse(List.of()),
                AccuracyView.says(found, units),
                found.note()));
    }

    /** The processing note, also where nothing was checked. */
    public NoteRow note(OpenBlock block) {
        return desk.figures(block).note();
    }
}
