package yalos.web.log;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.fault.InputFault;
import yalos.core.fault.TypedDay;
import yalos.core.logbook.Totals;
import yalos.core.logbook.Totals.Sum;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.shell.Download;
import yalos.web.shell.Preferences;
import yalos.web.store.LogMapper.Wanted;

/** All flights: found, added up, handed out; and the service that falls due. */
@Controller
class LogPages {
    private static final int A_PAGE = 50;
    private static final int MOST = 100_000;

    private final FlightLog log;
    private final LogFiles files;
    private final Preferences preferences;

    LogPages(FlightLog log, LogFiles files, Preferences preferences) {
        this.log = log;
        this.files = files;
        this.preferences = preferences;
    }

    /** A line of totals. */
    public record SumView(String name, String hours, int flights, String cycles, String last) {
        static List<SumView> of(Map<String, Sum> sums, UnitChoice units) {
            return sums.entrySet().stream()
                    .map(one -> new SumView(
                            one.getKey(),
                            units.text(UnitKind.DURATION, one.getValue().minutes() * 60),
                            one.getValue().flights(),
                            "%.1f".formatted(one.getValue().cycles()),
                            one.getValue().last().toString()))
                    .toList();
        }
    }

    /** Something that comes round. */
    public record ServiceView(
            long id, String thing, String what, String words, String mood, String done, String note) {}

    @GetMapping("/log")
    String log(@ModelAttribute("search") LogSearch search, @RequestParam(defaultValue = "1") int page, Model model) {
        UnitChoice units = preferences.units();
        model.addAttribute("search", search);
        model.addAttribute("fault", "");
        Wanted wanted;
        try {
            wanted = search.wanted();
        } catch (InputFault fault) {
            model.addAttribute("fault", fault.getMessage());
            // Nothing is found by what cannot be read.
            wanted = Wanted.ofBlock(-1);
        }
        int count = log.count(wanted);
        int pages = Math.max(1, (count + A_PAGE - 1) / A_PAGE);
        int shown = Math.max(1, Math.min(page, pages));
        model.addAttribute("count", count);
        model.addAttribute("page", shown);
        model.addAttribute("pages", pages);
        model.addAttribute(
                "flights",
                log.flights(wanted, (shown - 1) * A_PAGE, A_PAGE).stream()
                        .map(kept -> FlightView.of(kept, units))
                        .toList());
        totals(model, wanted, units);
        model.addAttribute("knownAircraft", log.aircraft());
        model.addAttribute("knownPeople", log.people());
        List<ServiceView> services = new ArrayList<>();
        log.due(LocalDate.now())
                .forEach(one -> services.add(new ServiceView(
                        one.row().id(),
                        one.row().thing(),
                        one.row().what(),
                        one.due().words(),
                        one.due().mood(),
                        one.row().doneOn().toString(),
                        one.row().note())));
        model.addAttribute("services", services);
        model.addAttribute("today", LocalDate.now());
        return "log/log";
    }

    private void totals(Model model, Wanted wanted, UnitChoice units) {
        Totals totals = log.totals(wanted);
        model.addAttribute("totalFlights", totals.flights());
        model.addAttribute("totalHours", units.text(UnitKind.DURATION, totals.minutes() * 60));
        model.addAttribute("totalPhotos", "%,d".formatted(totals.photos()));
        model.addAttribute("byAircraft", SumView.of(totals.aircraft(), units));
        model.addAttribute("byBattery", SumView.of(totals.batteries(), units));
        model.addAttribute("byPerson", SumView.of(totals.people(), units));
    }

    /** On paper: all that were found, with totals. */
    @GetMapping("/log/print")
    String print(@ModelAttribute("search") LogSearch search, Model model) {
        UnitChoice units = preferences.units();
        Wanted wanted = search.wanted();
        model.addAttribute("search", search);
        model.addAttribute(
                "flights",
                log.flights(wanted, 0, MOST).stream()
                        .map(kept -> FlightView.of(kept, units))
                        .toList());
        totals(model, wanted, units);
        model.addAttribute("made", LocalDateTime.now().withNano(0).toString().replace('T', ' '));
        return "log/print";
    }

    @GetMapping("/log.csv")
    void csv(@ModelAttribute("search") LogSearch search, HttpServletResponse response) throws IOException {
        Wanted wanted = search.wanted();
        try (Writer out = writer(response, "text/csv;charset=UTF-8", "flights.csv")) {
            files.csv(wanted, out);
        }
    }

    @GetMapping("/log.geojson")
    void geoJson(@ModelAttribute("search") LogSearch search, HttpServletResponse response) throws IOException {
        Wanted wanted = search.wanted();
        try (Writer out = writer(response, "application/geo+json", "flights.geojson")) {
            files.geoJson(wanted, out);
        }
    }

    private static Writer writer(HttpServletResponse response, String type, String name) throws IOException {
        Download.head(response, type, name);
        return new OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8);
    }

    @PostMapping("/log/service")
    String serviced(
            @RequestParam String thing,
            @RequestParam String what,
            @RequestParam(defaultValue = "") String hours,
            @RequestParam(defaultValue = "") String days,
            @RequestParam String done,
            @RequestParam(defaultValue = "") String note) {
        LocalDate on = TypedDay.needed("done", done);
        if (on.isAfter(LocalDate.now().plusDays(1))) {
            throw new InputFault("done", done, "That day has not come yet.");
        }
        log.serviced(thing, what, figure("hours", hours), days(figure("days", days)), on, note);
        return "redirect:/log#service";
    }

    @PostMapping("/log/service/{id}/end")
    String end(@PathVariable long id) {
        log.dropService(id);
        return "redirect:/log#service";
    }

    private static OptionalDouble figure(String field, String typed) {
        return typed.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(Measure.typed(field, typed, Unit.COUNT).si());
    }

    private static OptionalInt days(OptionalDouble figure) {
        return figure.isPresent() ? OptionalInt.of((int) Math.round(figure.getAsDouble())) : OptionalInt.empty();
    }
}
