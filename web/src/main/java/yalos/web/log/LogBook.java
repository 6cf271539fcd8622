package yalos.web.log;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.Totals;
import yalos.core.units.UnitKind;
import yalos.web.block.OpenBlock;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.store.FlyMapper;
import yalos.web.store.LogMapper;
import yalos.web.store.LogMapper.Wanted;
import yalos.web.take.FlownTake;

/** The field book's page of the Log stage: what was flown and how it differs from the plan; the same again. */
@Component
class LogBook implements StageBook {
    private static final int SHOWN = 50;

    private final FlightLog log;
    private final LogMapper rows;
    private final FlyMapper runs;
    private final FlownTake takes;
    private final RepeatBook repeats;

    LogBook(FlightLog log, LogMapper rows, FlyMapper runs, FlownTake takes, RepeatBook repeats) {
        this.log = log;
        this.rows = rows;
        this.runs = runs;
        this.takes = takes;
        this.repeats = repeats;
    }

    /** A sortie of the take that may be taken into the log. */
    public record Sortie(int number, String words, boolean kept) {}

    @Override
    public Stage stage() {
        return Stage.LOG;
    }

    @Override
    public Optional<Standing> standing(OpenBlock block, Planned planned) {
        int flights = rows.count(Wanted.ofBlock(block.id()).thatCount());
        return Optional.of(
                flights == 0
                        ? new Standing("not flown", "")
                        : new Standing(flights + (flights == 1 ? " flight" : " flights"), "done"));
    }

    @Override
    public void fill(Opened opened, Model model) {
        OpenBlock block = opened.block();
        Wanted own = Wanted.ofBlock(block.id());
        List<FlightView> flights = log.flights(own, 0, SHOWN).stream()
                .map(kept -> FlightView.of(kept, opened.units()))
                .toList();
        Totals totals = log.totals(own);
        model.addAttribute("flights", flights);
        model.addAttribute("flightCount", log.count(own));
        model.addAttribute("hours", opened.units().text(UnitKind.DURATION, totals.minutes() * 60));
        model.addAttribute("counted", totals.flights());
        model.addAttribute(
                "lastFlown",
                log.flights(own.thatCount(), 0, 1).stream()
                        .map(kept -> kept.flight().start().toLocalDate().toString())
                        .findFirst()
                        .orElse(""));
        model.addAttribute("flownPhotos", "%,d".formatted(totals.photos()));
        model.addAttribute(
                "canRun", runs.last(block.id()).filter(run -> run.ticks > 0).isPresent());
        model.addAttribute(
                "runKept",
                runs.last(block.id())
                        .filter(run -> rows.taken(block.id(), FlightLog.Source.RUN.name(), run.id))
                        .isPresent());
        model.addAttribute("takenSorties", takes.any(block.id()) ? sorties(opened) : List.of());
        repeats.fill(opened, model);
    }

    private List<Sortie> sorties(Opened opened) {
        long block = opened.block().id();
        return takes.flights(opened.block()).stream()
                .map(flight -> new Sortie(
                        flight.sortie(),
                        words(flight, opened),
                        rows.taken(block, FlightLog.Source.TAKE.name(), flight.sortie())))
                .toList();
    }

    private static String words(FlightRecord flight, Opened opened) {
        return "sortie %d: %s, %,d photos, %s"
                .formatted(
                        flight.sortie(),
                        flight.start().toString().replace('T', ' '),
                        flight.flown().photos().orElse(0),
                        opened.units().text(UnitKind.DURATION, flight.minutes() * 60));
    }
}
