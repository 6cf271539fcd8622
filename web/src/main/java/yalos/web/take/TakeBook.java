package yalos.web.take;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.core.units.UnitChoice;
import yalos.web.block.OpenBlock;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.control.MeasuredPoints;
import yalos.web.store.TakeMapper;
import yalos.web.store.TakeMapper.DecisionRow;
import yalos.web.store.TakeMapper.FileRow;
import yalos.web.take.TakeDesk.Found;

/** The field book's page of the Take stage: complete or not first, then what is wrong, what to fly again, what is still missing before leaving. */
@Component
class TakeBook implements StageBook {
    private final TakeDesk desk;
    private final TakeReading reading;
    private final TakeMapper rows;
    private final MeasuredPoints measured;
    private final TakeCopy copy;

    TakeBook(TakeDesk desk, TakeReading reading, TakeMapper rows, MeasuredPoints measured, TakeCopy copy) {
        this.desk = desk;
        this.reading = reading;
        this.rows = rows;
        this.measured = measured;
        this.copy = copy;
    }

    /** A file that came with the photos. */
    public record FileView(long id, String kind, String name, String words, List<String> doubts) {}

    @Override
    public Stage stage() {
        return Stage.TAKE;
    }

    @Override
    public Optional<Standing> standing(OpenBlock block, Planned planned) {
        int photos = rows.count(block.id());
        if (photos == 0) {
            return Optional.of(new Standing("no photos yet", ""));
        }
        return Optional.of(desk.known(block)
                .map(found -> {
                    List<DecisionRow> decisions = rows.decisions(block.id());
                    int lacking = Decisions.open(found, decisions).size();
                    return lacking == 0 ? new Standing("complete", "done") : new Standing(lacking + " missing", "stop");
                })
                .orElse(new Standing("%,d photos".formatted(photos), "mind")));
    }

    @Override
    public void fill(Opened opened, Model model) {
        OpenBlock block = opened.block();
        model.addAttribute("zeros", Zero.values());
        model.addAttribute("kinds", Decisions.Kind.values());
        model.addAttribute("folderWhere", reading.where());
        model.addAttribute("reading", reading.of(block.id()).orElse(null));
        model.addAttribute("photoCount", rows.count(block.id()));
        List<FileRow> files = rows.files(block.id());
        model.addAttribute(
                "files",
                files.stream().filter(TakeWords::told).map(TakeWords::of).toList());
        model.addAttribute(
                "copying",
                copy.progress(block.id())
                        .map(share -> (int) Math.round(100 * share))
                        .orElse(null));
        model.addAttribute("copyFault", copy.fault(block.id()));
        model.addAttribute("events", rows.events(block.id()));
        Optional<Found> found = desk.of(block);
        model.addAttribute("matched", found.isPresent());
        found.ifPresent(known -> found(known, opened, files, model));
    }

    private void found(Found found, Opened opened, List<FileRow> files, Model model) {
        UnitChoice units = opened.units();
        OpenBlock block = opened.block();
        List<DecisionRow> decisions = rows.decisions(block.id());
        model.addAttribute("headline", TakeView.headline(found, decisions));
        model.addAttribute("estimates", TakeView.estimates(found.take(), Optional.of(found), units));
        model.addAttribute("told", TakeView.findings(found.take(), units));
        model.addAttribute(
                "causes",
                found.take().causes().entrySet().stream()
                        .map(cause -> cause.getValue() + " " + cause.getKey())
                        .collect(Collectors.joining(", ")));
        int open = Decisions.open(found, decisions).size();
        Completeness.Known known = new Completeness.Known(
                block.facts().brief(), block.facts().control(), measured.counts(block.id()), measured.base(block.id()));
        model.addAttribute("items", Completeness.of(known, found.take(), files, open));
        model.addAttribute(
                "again", TakeView.again(found, decisions).map(TakeView::again).orElse(""));
        model.addAttribute("gaps", TakeView.gaps(found, decisions, units));
        model.addAttribute("decisions", Decisions.shown(decisions));
        model.addAttribute("provingTake", found.running());
        model.addAttribute("proofFailed", found.failed());
        model.addAttribute("progress", (int) Math.round(100 * found.progress()));
        model.addAttribute("shareTaken", TakeView.share(found.taken()));
        model.addAttribute("sharePlanned", TakeView.share(found.planned()));
        model.addAttribute("lowered", Math.abs(found.take().flown().loweredM()) > 0.005);
        model.addAttribute("proved", found.taken().isPresent());
    }
}
