package yalos.web.log;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.logbook.Totals;
import yalos.core.logbook.Totals.Sum;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.shell.Preferences;
import yalos.web.store.LogMapper.Wanted;

/** All flights: found, added up, handed out; and the service that falls due. */
@Controller
class LogPages {
    private static final int A_PAGE = 50;
    private static final int MOST = 100_000;
    private static final double M_A_DEGREE = 111_320;
    private static final double USUAL_KM = 5;

    private final Logbook log;
    private final LogFiles files;
    private final Preferences preferences;

    LogPages(Logbook log, LogFiles files, Preferences preferences) {
        this.log = log;
        this.files = files;
        this.preferences = preferences;
    }

    /** What is looked for, as typed. */
    public static final class Search {
        private Long block;
        private String text = "";
        private String aircraft = "";
        private String person = "";
        private String battery = "";
        private String from = "";
        private String to = "";
        private String place = "";
        private String km = "";

        public Long getBlock() {
            return block;
        }

        public void setBlock(Long id) {
            block = id;
        }

        public String getText() {
            return text;
        }

        public void setText(String typed) {
            text = typed;
        }

        public String getAircraft() {
            return aircraft;
        }

        public void setAircraft(String typed) {
            aircraft = typed;
        }

        public String getPerson() {
            return person;
        }

        public void setPerson(String typed) {
            person = typed;
        }

        public String getBattery() {
            return battery;
        }

        public void setBattery(String typed) {
            battery = typed;
        }

        public String getFrom() {
            return from;
        }

        public void setFrom(String typed) {
            from = typed;
        }

        public String getTo() {
            return to;
        }

        public void setTo(String typed) {
            to = typed;
        }

        public String getPlace() {
            return place;
        }

        public void setPlace(String typed) {
            place = typed;
        }

        public String getKm() {
            return km;
        }

        public void setKm(String typed) {
            km = typed;
        }

        /** The same as an address goes on with it. */
        public String query() {
            StringBuilder query = new StringBuilder();
            Map<String, String> all = Map.of(
                    "text",
                    text,
                    "aircraft",
                    aircraft,
                    "person",
                    person,
                    "battery",
                    battery,
                    "from",
                    from,
                    "to",
                    to,
                    "place",
                    place,
                    "km",
                    km);
            all.entrySet().stream()
                    .filter(one -> !one.getValue().isBlank())
                    .sorted(Map.Entry.comparingByKey())
                    .forEach(one -> query.append('&')
                            .append(one.getKey())
                            .append('=')
                            .append(URLEncoder.encode(one.getValue(), StandardCharsets.UTF_8)));
            if (block != null) {
                query.append("&block=").append(block);
            }
            return query.toString();
        }

        Wanted wanted() {
            Double[] box = box();
            return new Wanted(
                    block,
                    or(aircraft),
                    or(person),
                    or(battery),
                    day("from", from).map(LocalDate::atStartOfDay).orElse(null),
                    day("to", to).map(last -> last.plusDays(1).atStartOfDay()).orElse(null),
                    box[0],
                    box[1],
                    box[2],
                    box[3],
                    or(text));
        }

        private Double[] box() {
            if (place.isBlank()) {
                return new Double[4];
            }
            LonLat at = TypedPosition.read(place, Optional.empty());
            double around = (km.isBlank() ? USUAL_KM : figure("km", km)) * 1000;
            InputFault.within("km", around / 1000, 0.01, 20_000, "km");
            double north = around / M_A_DEGREE;
            double east = north / Math.max(0.01, Math.cos(Math.toRadians(at.latDeg())));
            return new Double[] {at.lonDeg() - east, at.latDeg() - north, at.lonDeg() + east, at.latDeg() + north};
        }

        private static String or(String typed) {
            return typed == null || typed.isBlank() ? null : typed.strip();
        }
    }

    private static Optional<LocalDate> day(String field, String typed) {
        try {
            return typed.isBlank() ? Optional.empty() : Optional.of(LocalDate.parse(typed.strip()));
        } catch (DateTimeException none) {
            throw new InputFault(field, typed, "“%s” is no day such as 2026-05-14.".formatted(typed));
        }
    }

    private static double figure(String field, String typed) {
        try {
            return Double.parseDouble(typed.strip().replace(',', '.'));
        } catch (NumberFormatException none) {
            throw new InputFault(field, typed, "“%s” is no figure.".formatted(typed));
        }
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
    String log(@ModelAttribute Search search, @RequestParam(defaultValue = "1") int page, Model model) {
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
    String print(@ModelAttribute Search search, Model model) {
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
    void csv(@ModelAttribute Search search, HttpServletResponse response) throws IOException {
        Wanted wanted = search.wanted();
        try (Writer out = writer(response, "text/csv;charset=UTF-8", "flights.csv")) {
            files.csv(wanted, out);
        }
    }

    @GetMapping("/log.geojson")
    void geoJson(@ModelAttribute Search search, HttpServletResponse response) throws IOException {
        Wanted wanted = search.wanted();
        try (Writer out = writer(response, "application/geo+json", "flights.geojson")) {
            files.geoJson(wanted, out);
        }
    }

    private static Writer writer(HttpServletResponse response, String type, String name) throws IOException {
        response.setContentType(type);
        response.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment().filename(name).build().toString());
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
        LocalDate on =
                day("done", done).orElseThrow(() -> new InputFault("done", done, "Say on which day it was done."));
        if (on.isAfter(LocalDate.now().plusDays(1))) {
            throw new InputFault("done", done, "That day has not come yet.");
        }
        log.serviced(
                thing,
                what,
                hours.isBlank() ? OptionalDouble.empty() : OptionalDouble.of(figure("hours", hours)),
                days.isBlank() ? OptionalInt.empty() : OptionalInt.of((int) Math.round(figure("days", days))),
                on,
                note);
        return "redirect:/log#service";
    }

    @PostMapping("/log/service/{id}/end")
    String end(@PathVariable long id) {
        log.dropService(id);
        return "redirect:/log#service";
    }
}
