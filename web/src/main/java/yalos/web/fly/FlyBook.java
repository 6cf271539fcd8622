package yalos.web.fly;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.fault.InputFault;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Fault;
import yalos.core.sortie.Sorties;
import yalos.core.units.Times;
import yalos.web.block.OpenBlock;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.sorties.SortieDesk;
import yalos.web.store.FlyMapper;
import yalos.web.store.Unreadable;

/** The field book's page of the Fly stage: where it is and whether it comes home, what can be pressed; or what to begin with. */
@Component
class FlyBook implements StageBook {
    private static final List<Command.Kind> BUTTONS = List.of(
            Command.Kind.START,
            Command.Kind.PAUSE,
            Command.Kind.RESUME,
            Command.Kind.RETURN,
            Command.Kind.LAND,
            Command.Kind.SINK,
            Command.Kind.MOTORS_OFF);
    private static final List<Command.Kind> OTHERS =
            List.of(Command.Kind.TEST, Command.Kind.CAMERA, Command.Kind.BASE, Command.Kind.CALL);

    private final FlyDesk desk;
    private final FlyMapper rows;
    private final SortieDesk sorties;

    FlyBook(FlyDesk desk, FlyMapper rows, SortieDesk sorties) {
        this.desk = desk;
        this.rows = rows;
        this.sorties = sorties;
    }

    /** Something that can be pressed. */
    public record Button(String kind, String words, String effect) {
        static List<Button> of(List<Command.Kind> kinds) {
            return kinds.stream()
                    .map(kind -> new Button(kind.name(), kind.words(), kind.effect()))
                    .toList();
        }
    }

    @Override
    public Stage stage() {
        return Stage.FLY;
    }

    @Override
    public Optional<Standing> standing(OpenBlock block, Planned planned) {
        return Optional.of(rows.lastEnded(block.id())
                .map(ended -> ended ? new Standing("rehearsed", "done") : new Standing("rehearsal on", "mind"))
                .orElse(new Standing("not rehearsed", "")));
    }

    @Override
    public void fill(Opened opened, Model model) {
        OpenBlock block = opened.block();
        model.addAttribute("faults", Fault.values());
        model.addAttribute("person", Person.present());
        model.addAttribute("buttons", Button.of(BUTTONS));
        model.addAttribute("others", Button.of(OTHERS));
        model.addAttribute("speeds", LiveRun.SPEEDS);
        model.addAttribute("whyNot", "");
        try {
            desk.last(block.id()).ifPresent(run -> run(run, opened, model));
        } catch (InputFault | NotThere | Unreadable lost) {
            // What it was flown over may be gone; another can be begun all the same.
            model.addAttribute("lostRun", "The last rehearsal cannot be shown any more: " + lost.getMessage());
        }
        choices(opened, model);
    }

    private void run(LiveRun run, Opened opened, Model model) {
        model.addAttribute("run", run.id());
        model.addAttribute("ended", run.ended());
        FlyState state = run.state(opened.units(), Integer.MAX_VALUE, Integer.MAX_VALUE);
        model.addAttribute("now", state);
        model.addAttribute("first", run.ask(flight -> flight.sortie().start() + 1));
        model.addAttribute("lastStation", run.ask(flight -> flight.sortie().to() + 1));
    }

    private void choices(Opened opened, Model model) {
        OpenBlock block = opened.block();
        List<String> choices = new ArrayList<>();
        opened.planned().whole().ifPresent(whole -> {
            SortieDesk.Found found = sorties.of(block.id(), block.facts(), whole.plan());
            model.addAttribute("whyNot", found.fault());
            found.sorties()
                    .map(Sorties::all)
                    .ifPresent(all -> all.forEach(sortie -> choices.add("%d: stations %d to %d, %s"
                            .formatted(
                                    sortie.number(),
                                    sortie.start() + 1,
                                    sortie.to() + 1,
                                    Times.minutes(sortie.seconds())))));
        });
        model.addAttribute("choices", choices);
    }
}
