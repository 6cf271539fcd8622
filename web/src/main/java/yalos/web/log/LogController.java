package yalos.web.log;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.ModelAndView;
import yalos.core.fault.InputFault;
import yalos.core.logbook.Difference;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.FlightRecord.Figures;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.fly.FlownRuns;
import yalos.web.log.FlightLog.From;
import yalos.web.log.FlightLog.Kept;
import yalos.web.log.FlightLog.Source;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.sorties.SortieDesk;
import yalos.web.take.FlownTake;

/** A flight taken into the log, from a rehearsal, from the photos, or typed; and mended. */
@Controller
class LogController {
    private final Blocks blocks;
    private final FlightLog log;
    private final FlownRuns runs;
    private final FlownTake takes;
    private final Preferences preferences;

    LogController(Blocks blocks, FlightLog log, FlownRuns runs, FlownTake takes, Preferences preferences) {
        this.blocks = blocks;
        this.log = log;
        this.runs = runs;
        this.takes = takes;
        this.preferences = preferences;
    }

    /** What a form begins with. */
    private record Begun(FlightRecord flight, From from) {}

    /**
     * @param source {@code run}, {@code take:2} for its second sortie, or {@code typed}
     */
    private Optional<Begun> begun(OpenBlock block, String source) {
        if (source.equals("run")) {
            return Optional.of(runs.last(block)
                    .map(draft -> new Begun(draft.flight(), new From(Source.RUN, draft.run(), false, draft.facts())))
                    .orElseThrow(() -> new NotThere("Nothing was rehearsed yet that could be taken into the log.")));
        }
        if (source.startsWith("take:")) {
            return Optional.of(takes.flights(block).stream()
                    .filter(flight -> source.equals("take:" + flight.sortie()))
                    .findFirst()
                    .map(flight -> new Begun(flight, new From(Source.TAKE, flight.sortie(), true, "")))
                    .orElseThrow(() -> new NotThere("The take has no photos of that sortie with a time.")));
        }
        return Optional.empty();
    }

    @GetMapping("/blocks/{id}/log/new")
    ModelAndView form(@PathVariable long id, @RequestParam(defaultValue = "typed") String source) {
        OpenBlock block = blocks.open(id);
        Optional<Begun> begun = begun(block, source);
        FlightForm form = begun.map(one -> FlightForm.of(one.flight(), preferences.units()))
                .orElseGet(() -> FlightForm.of(block.facts()));
        boolean counted = begun.map(one -> one.from().counted()).orElse(true);
        ModelAndView page = page(HttpStatus.OK, form, counted, null);
        page.addObject("block", block);
        page.addObject("source", source);
        page.addObject("heading", title(source));
        begun.ifPresent(one -> page.addObject("planned", differences(one.flight())));
        return page;
    }

    private static String title(String source) {
        return source.equals("run")
                ? "The rehearsal, for the log"
                : source.startsWith("take:") ? "From the photos, for the log" : "A flight for the log";
    }

    /** Planned beside flown; nothing where nothing was planned. */
    private List<Difference> differences(FlightRecord flight) {
        return flight.planned().equals(Figures.NONE)
                ? List.of()
                : Difference.of(flight.planned(), flight.flown(), preferences.units());
    }

    private ModelAndView page(HttpStatus status, FlightForm form, boolean counted, InputFault fault) {
        ModelAndView page = new ModelAndView("log/flight", status);
        page.addObject("form", form);
        page.addObject("counted", counted);
        page.addObject("fault", fault == null ? "" : fault.getMessage());
        page.addObject("faultField", fault == null ? "" : fault.field());
        page.addObject("planned", List.of());
        page.addObject("kept", null);
        page.addObject("source", "typed");
        return page;
    }

    @PostMapping("/blocks/{id}/log/flights")
    ModelAndView keep(
            @PathVariable long id,
            @RequestParam(defaultValue = "typed") String source,
            @RequestParam(defaultValue = "false") boolean counted,
            @ModelAttribute FlightForm form) {
        OpenBlock block = blocks.open(id);
        try {
            Optional<Begun> begun = begun(block, source);
            FlightRecord flight = form.read(
                    begun.map(Begun::flight),
                    SortieDesk.clock(block.facts()),
                    block.facts().place(),
                    preferences.units());
            refuseFuture(flight);
            From with = begun.map(Begun::from).orElse(From.typed());
            log.keep(block, flight, new From(with.source(), with.sourceId(), counted, with.facts()));
            return new ModelAndView("redirect:/blocks/" + id + "/log");
        } catch (InputFault fault) {
            ModelAndView page = page(HttpStatus.BAD_REQUEST, form, counted, fault);
            page.addObject("block", block);
            page.addObject("source", source);
            page.addObject("heading", title(source));
            return page;
        }
    }

    /** A camera's clock may be a year ahead; the log is not. */
    private static void refuseFuture(FlightRecord flight) {
        if (flight.start().isAfter(LocalDateTime.now().plusDays(1))) {
            throw new InputFault(
                    "start",
                    flight.start(),
                    "%s has not come yet. Is the year right?"
                            .formatted(flight.start().toLocalDate()));
        }
    }

    /** A flight with all that is known of it, to be mended. */
    @GetMapping("/log/flights/{id}")
    ModelAndView flight(@PathVariable long id) {
        Kept kept = log.flight(id);
        return flight(HttpStatus.OK, kept, FlightForm.of(kept.flight(), preferences.units()), kept.row().counted, null);
    }

    private ModelAndView flight(HttpStatus status, Kept kept, FlightForm form, boolean counted, InputFault fault) {
        ModelAndView page = page(status, form, counted, fault);
        FlightView view = FlightView.of(kept, preferences.units());
        page.addObject("kept", view);
        page.addObject("heading", "Flight of " + view.start());
        page.addObject("planned", differences(kept.flight()));
        page.addObject("keptAt", said(kept.row().keptAt, kept.row().keptBy));
        return page;
    }

    private static String said(LocalDateTime at, String by) {
        return at.toString().replace('T', ' ').substring(0, 16) + (by.isEmpty() ? "" : ", " + by);
    }

    @PostMapping("/log/flights/{id}")
    ModelAndView change(
            @PathVariable long id,
            @RequestParam(defaultValue = "false") boolean counted,
            @ModelAttribute FlightForm form) {
        Kept kept = log.flight(id);
        try {
            FlightRecord before = kept.flight();
            FlightRecord mended = form.read(Optional.of(before), before.zone(), before.place(), preferences.units());
            refuseFuture(mended);
            log.change(id, mended, counted);
            return new ModelAndView("redirect:/log/flights/" + id);
        } catch (InputFault fault) {
            return flight(HttpStatus.BAD_REQUEST, kept, form, counted, fault);
        }
    }

    @PostMapping("/log/flights/{id}/leave-out")
    ModelAndView leaveOut(
            @PathVariable long id,
            @RequestParam(defaultValue = "true") boolean out,
            @RequestParam(defaultValue = "") String why) {
        return asked(id, () -> log.leaveOut(id, out, why));
    }

    /** What it took of its battery corrects the aircraft's figures. */
    @PostMapping("/log/flights/{id}/consumed")
    ModelAndView consumed(@PathVariable long id) {
        return asked(id, () -> log.consumed(id));
    }

    /** Something asked of a kept flight; what speaks against it stands on its page. */
    private ModelAndView asked(long id, Runnable act) {
        try {
            act.run();
            return new ModelAndView("redirect:/log/flights/" + id);
        } catch (InputFault fault) {
            Kept kept = log.flight(id);
            FlightForm form = FlightForm.of(kept.flight(), preferences.units());
            return flight(HttpStatus.BAD_REQUEST, kept, form, kept.row().counted, fault);
        }
    }
}
