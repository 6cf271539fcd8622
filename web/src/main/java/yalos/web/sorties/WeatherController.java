package yalos.web.sorties;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalDouble;
import java.util.function.UnaryOperator;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import yalos.core.day.DaySettings;
import yalos.core.exchange.WeatherTable;
import yalos.core.fault.InputFault;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;
import yalos.core.weather.Limits;
import yalos.core.weather.SimulatedStation;
import yalos.core.weather.WeatherHour;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.Visit;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;

/** Weather by the hour: typed, from a table, simulated; the limits it is judged by, and the wind to plan for. */
@Controller
class WeatherController {
    private final Blocks blocks;
    private final BlockPage page;
    private final Preferences preferences;

    WeatherController(Blocks blocks, BlockPage page, Preferences preferences) {
        this.blocks = blocks;
        this.page = page;
        this.preferences = preferences;
    }

    private String change(long id, Visit visit, String label, UnaryOperator<DaySettings> change) {
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        label,
                        facts -> facts.with(change.apply(facts.field().day()))),
                visit);
    }

    /** The wind of an hour is pinned as the wind to plan for: times, energy and crab follow it, and so does a direction asked of the wind. */
    @PostMapping("/blocks/{id}/sorties/wind")
    String wind(@PathVariable long id, @RequestParam String at, Visit visit) {
        return page.changed(
                blocks.change(id, visit.version(), "planned for the wind at " + at, facts -> {
                    WeatherHour hour = facts.field().day().weather().stream()
                            .filter(one -> one.at().toString().equals(at))
                            .filter(one -> one.windMps().isPresent())
                            .findFirst()
                            .orElseThrow(() -> new InputFault("at", at, "That hour is gone; reload the page."));
                    Pins pins = facts.pins()
                            .with(Quantity.WIND, Measure.of(hour.windMps().getAsDouble(), Unit.METRE_PER_SECOND))
                            .with(Quantity.WIND_AT, Measure.of(WeatherHour.STATION_M, Unit.METRE));
                    return facts.with(
                            hour.windFromRad().isPresent()
                                    ? pins.with(
                                            Quantity.WIND_FROM,
                                            Measure.of(
                                                    Math.toDegrees(
                                                            hour.windFromRad().getAsDouble()),
                                                    Unit.DEGREE))
                                    : pins);
                }),
                visit);
    }

    @PostMapping("/blocks/{id}/sorties/limits")
    String limits(
            @PathVariable long id,
            @RequestParam String wind,
            @RequestParam String gust,
            @RequestParam String cold,
            @RequestParam String visibility,
            Visit visit) {
        Limits limits = new Limits(
                si("windLimit", wind, UnitKind.SPEED),
                si("gustLimit", gust, UnitKind.SPEED),
                si("cold", cold, UnitKind.TEMPERATURE),
                si("visibility", visibility, UnitKind.LENGTH),
                0);
        return change(
                id,
                visit,
                "weather limits",
                day -> new DaySettings(
                        day.date(),
                        day.zone(),
                        day.startMin(),
                        day.notBefore(),
                        day.changeMin(),
                        day.panelMin(),
                        day.chargers(),
                        day.chargeMin(),
                        limits,
                        day.weather(),
                        day.earlier(),
                        day.papers()));
    }

    private double si(String field, String text, UnitKind kind) {
        return Measure.typed(field, text, preferences.typed().unit(kind)).si();
    }

    private OptionalDouble known(String field, String text, UnitKind kind) {
        return text.isBlank() ? OptionalDouble.empty() : OptionalDouble.of(si(field, text, kind));
    }

    /** One hour, typed; it takes the place of another at the same time. */
    @PostMapping("/blocks/{id}/sorties/weather")
    String hour(
            @PathVariable long id,
            @RequestParam String at,
            @RequestParam String wind,
            @RequestParam(defaultValue = "") String gust,
            @RequestParam(defaultValue = "") String from,
            @RequestParam(defaultValue = "") String rain,
            @RequestParam(defaultValue = "") String air,
            @RequestParam(defaultValue = "") String cloud,
            @RequestParam(defaultValue = "") String sight,
            Visit visit) {
        BlockFacts facts = blocks.open(id).facts();
        OptionalDouble fallen = rain.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(Measure.typed("rain", rain, Unit.MILLIMETRE).si() * 1000);
        OptionalDouble sky = cloud.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(Measure.typed("cloud", cloud, Unit.PERCENT).si());
        OptionalDouble bearing = from.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(Measure.typed("from", from, Unit.DEGREE).si());
        WeatherHour hour = new WeatherHour(
                WeatherTable.time(at.strip(), SortieDesk.date(facts), SortieDesk.clock(facts)),
                known("wind", wind, UnitKind.SPEED),
                known("gust", gust, UnitKind.SPEED),
                bearing,
                fallen,
                known("air", air, UnitKind.TEMPERATURE),
                sky,
                known("sight", sight, UnitKind.LENGTH));
        return change(id, visit, "weather at " + at, day -> {
            List<WeatherHour> hours = new ArrayList<>(day.weather());
            hours.removeIf(one -> one.at().equals(hour.at()));
            hours.add(hour);
            hours.sort(Comparator.comparing(WeatherHour::at));
            return day.with(hours);
        });
    }

    @PostMapping("/blocks/{id}/sorties/weather/remove")
    String remove(@PathVariable long id, @RequestParam int at, Visit visit) {
        return change(id, visit, "an hour of weather taken away", day -> {
            List<WeatherHour> hours = new ArrayList<>(day.weather());
            Listed.at(hours, at, "at");
            hours.remove(at);
            return day.with(hours);
        });
    }

    @PostMapping("/blocks/{id}/sorties/weather/clear")
    String clear(@PathVariable long id, Visit visit) {
        return change(id, visit, "weather taken away", day -> day.with(List.of()));
    }

    /** Weather from a table; what was taken for granted is told beside it. */
    @PostMapping("/blocks/{id}/sorties/weather/file")
    String file(@PathVariable long id, @RequestParam MultipartFile file, Visit visit) throws IOException {
        BlockFacts facts = blocks.open(id).facts();
        WeatherTable table = WeatherTable.read(file.getBytes(), SortieDesk.date(facts), SortieDesk.clock(facts));
        visit.model().addAttribute("weatherRemarks", table.remarks());
        return change(id, visit, table.hours().size() + " hours of weather brought", day -> day.with(table.hours()));
    }

    /** The simulated station's day: made up, to try things with. */
    @PostMapping("/blocks/{id}/sorties/weather/simulated")
    String simulated(@PathVariable long id, Visit visit) {
        LocalDate date = SortieDesk.date(blocks.open(id).facts());
        return change(id, visit, "a simulated day of weather", day -> day.with(SimulatedStation.day(date)));
    }

    @GetMapping("/blocks/{id}/export/weather-example.csv")
    ResponseEntity<byte[]> example(@PathVariable long id) {
        LocalDate date = SortieDesk.date(blocks.open(id).facts());
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("weather-example.csv")
                                .build()
                                .toString())
                .body(SimulatedStation.csv(date).getBytes(StandardCharsets.UTF_8));
    }
}
