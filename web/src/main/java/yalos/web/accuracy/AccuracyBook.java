package yalos.web.accuracy;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.web.accuracy.AccuracyDesk.Found;
import yalos.web.block.OpenBlock;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;

/** The field book's page of the Accuracy stage: passes or fails first, then what the figures are, what their pattern suggests, and the points. */
@Component
class AccuracyBook implements StageBook {
    private final AccuracyDesk desk;
    private final Differences differences;

    AccuracyBook(AccuracyDesk desk, Differences differences) {
        this.desk = desk;
        this.differences = differences;
    }

    @Override
    public Stage stage() {
        return Stage.ACCURACY;
    }

    @Override
    public Optional<Standing> standing(OpenBlock block, Planned planned) {
        if (!desk.any(block.id())) {
            return Optional.of(new Standing("not checked", ""));
        }
        AccuracyView.Line line = AccuracyView.headline(desk.figures(block), UnitChoice.METRIC);
        return Optional.of(new Standing(
                switch (line.mood()) {
                    case "done" -> "passes";
                    case "stop" -> line.words().startsWith("Fails") ? "fails" : "no check";
                    default -> "measured";
                },
                line.mood()));
    }

    @Override
    public void fill(Opened opened, Model model) {
        OpenBlock block = opened.block();
        UnitChoice units = opened.units();
        Found found = desk.of(block);
        model.addAttribute("headline", AccuracyView.headline(found, units));
        model.addAttribute("none", found.empty());
        model.addAttribute("says", AccuracyView.says(found, units));
        model.addAttribute(
                "axes", found.checks().map(one -> AccuracyView.axes(one, units)).orElse(List.of()));
        model.addAttribute("threefold", AccuracyView.threefold(found));
        model.addAttribute("suspicions", found.suspicions());
        model.addAttribute("points", AccuracyView.points(found, units));
        model.addAttribute("surfaces", AccuracyView.surfaces(found.bySurface(), units));
        model.addAttribute("note", found.note());
        model.addAttribute("differences", differences.views(block.id(), units));
        model.addAttribute(
                "lengths", new Unit[] {Unit.METRE, Unit.FOOT, Unit.US_SURVEY_FOOT, Unit.MILLIMETRE, Unit.CENTIMETRE});
        model.addAttribute("surveyLevelMm", Math.round(found.note().surveyLevel() * 1000));
        model.addAttribute("surveyUpMm", Math.round(found.note().surveyUp() * 1000));
    }
}
