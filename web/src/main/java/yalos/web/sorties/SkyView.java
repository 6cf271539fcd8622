package yalos.web.sorties;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.ui.Model;
import yalos.core.day.DayLight;
import yalos.core.day.DayPlan;
import yalos.core.day.Slot;
import yalos.core.day.Window;
import yalos.core.geodesy.LonLat;
import yalos.core.light.Daylight;
import yalos.core.light.SameSun;
import yalos.core.light.SunDay;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.core.weather.Limits;
import yalos.core.weather.Limits.Verdict;
import yalos.core.weather.WeatherHour;
import yalos.core.wind.Wind;
import yalos.web.store.BlockFacts;

/** Light and weather of the day as the page shows them: the sun, shadows, windows, hours judged. */
final class SkyView {
    /** A wind that differs by more is worth planning for. */
    private static final double WIND_OFF_MPS = 1;

    private SkyView() {}

    /** An hour of weather as it is shown. */
    public record HourRow(
            int at, String time, String wind, String aloft, String rest, String verdict, String mood, String why) {}

    /** An hour of light. */
    public record LightRow(int minute, String time, String sun, String shaded, String photos) {}

    static void light(
            SortieDesk.Found found, BlockFacts facts, BlockPlan plan, List<Slot> slots, UnitChoice units, Model model) {
        Optional<DayLight> light = found.light();
        if (light.isEmpty()) {
            return;
        }
        DayLight day = light.get();
        ZoneId zone = day.zone();
        LonLat place = plan.request().outline().middle();
        model.addAttribute("sunWords", upAndDown(day) + Daylight.words(place, day.date(), zone));
        model.addAttribute("shades", day.hours().stream().map(SkyView::lightRow).toList());
        double needed = found.sorties()
                .map(sorties -> sorties.seconds() / 60
                        + facts.field().day().changeMin() * (sorties.all().size() - 1))
                .orElse(30.0);
        List<Window> windows = Window.best(slots, needed);
        model.addAttribute(
                "windows", windows.stream().map(one -> window(one, units)).toList());
        model.addAttribute(
                "bestWindow",
                windows.isEmpty()
                        ? "no hour of this day serves"
                        : "best %s to %s"
                                .formatted(
                                        DayPlan.clock(windows.get(0).from()),
                                        DayPlan.clock(windows.get(0).to())));
        facts.field().day().earlier().ifPresent(earlier -> {
            Instant then = earlier.atZone(zone).toInstant();
            model.addAttribute(
                    "sameSun",
                    SameSun.of(place, then, day.date())
                            .map(same -> sameSun(same, zone))
                            .orElse("The sun was down on that flight, or stays down on this day."));
        });
    }

    /** Sunrise, sunset and how long the sun is high enough; nothing where it does not rise. */
    private static String upAndDown(DayLight day) {
        SunDay sun = day.sun();
        if (sun.alwaysDown()) {
            return "";
        }
        String up = sun.alwaysUp()
                ? "the sun does not set; "
                : String.format(
                        Locale.ROOT,
                        "sunrise %s, sunset %s; ",
                        sun.rise().map(at -> DayPlan.clock(day.minute(at))).orElse("–"),
                        sun.set().map(at -> DayPlan.clock(day.minute(at))).orElse("–"));
        return up;
    }

    private static String sameSun(SameSun same, ZoneId zone) {
        String at = String.format(Locale.ROOT, "%tR", same.at().atZone(zone));
        String stood = String.format(
                Locale.ROOT,
                "%.0f° high in %03.0f°",
                Math.toDegrees(same.before().elevationRad()),
                Math.toDegrees(same.before().azimuthRad()));
        return same.asHigh()
                ? String.format(
                        Locale.ROOT,
                        "The same sun at %s: it stood %s, then stands as high, %.0f° further %s.",
                        at,
                        stood,
                        Math.abs(Math.toDegrees(same.turnedRad())),
                        same.turnedRad() >= 0 ? "to the right" : "to the left")
                : String.format(
                        Locale.ROOT,
                        "The sun stood %s; on this day it gets no higher than %.0f°, at %s.",
                        stood,
                        Math.toDegrees(same.then().elevationRad()),
                        at);
    }

    private static LightRow lightRow(DayLight.Hour hour) {
        return new LightRow(
                hour.minute(),
                DayPlan.clock(hour.minute()),
                String.format(Locale.ROOT, "%.0f°", Math.toDegrees(hour.sun().elevationRad())),
                Percent.of(hour.shaded()),
                hour.photos().hotSpots() + hour.photos().glints() == 0
                        ? "–"
                        : Percent.of(hour.photos().hotSpots()) + " / "
                                + Percent.of(hour.photos().glints()));
    }

    private static Warned window(Window window, UnitChoice units) {
        String sun = String.format(
                Locale.ROOT,
                "sun %.0f° to %.0f°",
                Math.max(0, Math.toDegrees(window.lowestRad())),
                Math.toDegrees(window.highestRad()));
        String wind = Double.isNaN(window.windMps())
                ? "weather not known"
                : "wind up to " + units.text(UnitKind.SPEED, window.windMps());
        return new Warned(
                window.verdict() == Verdict.GO ? "done" : "mind",
                "%s to %s%s: %s, %s%s"
                        .formatted(
                                DayPlan.clock(window.from()),
                                DayPlan.clock(window.to()),
                                window.fits() ? "" : ", too short for all of it",
                                sun,
                                wind,
                                window.reasons().isEmpty() ? "" : "; mind " + String.join(", ", window.reasons())));
    }

    /** The strongest wind of the hours in which sorties are flown, beside the one that is planned for. */
    static void windOfDay(
            SortieDesk.Found found, BlockFacts facts, BlockPlan plan, List<Slot> slots, UnitChoice units, Model model) {
        if (found.light().isEmpty() || found.sorties().isEmpty()) {
            return;
        }
        DayPlan.Given given = DayLaid.given(facts, found, slots);
        DayLaid.windiest(DayPlan.laid(given, DayLaid.start(facts, found, given)), facts)
                .ifPresent(hour -> {
                    double aloft = hour.aloftMps(SortieDesk.limits(facts, plan).heightM())
                            .orElse(0);
                    double planned =
                            plan.timeline().pace().wind().map(Wind::speedMps).orElse(0.0);
                    if (Math.abs(aloft - planned) > WIND_OFF_MPS && aloft >= Wind.NEGLIGIBLE_MPS) {
                        model.addAttribute(
                                "windHour",
                                "Of the hours flown %s has most wind, %s at flying height; the plan stands for %s."
                                        .formatted(
                                                String.format(Locale.ROOT, "%tR", hour.at()),
                                                units.text(UnitKind.SPEED, aloft),
                                                planned == 0 ? "still air" : units.text(UnitKind.SPEED, planned)));
                        model.addAttribute("windHourAt", hour.at().toString());
                    }
                });
    }

    static void weather(BlockFacts facts, BlockPlan plan, UnitChoice units, Model model) {
        Limits limits = SortieDesk.limits(facts, plan);
        List<HourRow> rows = new ArrayList<>();
        List<WeatherHour> hours = facts.field().day().weather();
        for (int i = 0; i < hours.size(); i++) {
            WeatherHour hour = hours.get(i);
            if (!hour.at().toLocalDate().equals(SortieDesk.date(facts))) {
                continue;
            }
            Limits.Judged judged = limits.judge(hour, SortieDesk.needs(facts).sky(), units);
            rows.add(new HourRow(
                    i,
                    String.format(Locale.ROOT, "%tR", hour.at()),
                    shown(hour.windMps(), UnitKind.SPEED, units)
                            + (hour.gustMps().isPresent()
                                    ? " / "
                                            + units.figure(
                                                    UnitKind.SPEED,
                                                    hour.gustMps().getAsDouble())
                                    : ""),
                    shown(hour.aloftMps(limits.heightM()), UnitKind.SPEED, units),
                    shown(hour.airK(), UnitKind.TEMPERATURE, units)
                            + (hour.cloud().isPresent()
                                    ? ", " + Percent.of(hour.cloud().getAsDouble())
                                    : ""),
                    judged.verdict().words(),
                    judged.verdict().name().toLowerCase(Locale.ROOT),
                    String.join(", ", judged.reasons())));
        }
        model.addAttribute("hours", rows);
        model.addAttribute("otherDays", hours.size() - rows.size());
        model.addAttribute(
                "limitWords",
                "Limits: wind %s, gusts %s, no colder than %s, sight %s; the aircraft's own %s."
                        .formatted(
                                units.text(UnitKind.SPEED, limits.windMps()),
                                units.text(UnitKind.SPEED, limits.gustMps()),
                                units.text(UnitKind.TEMPERATURE, limits.coldK()),
                                units.text(UnitKind.LENGTH, limits.visibilityM()),
                                units.text(UnitKind.SPEED, facts.aircraft().windLimitMps())));
    }

    private static String shown(OptionalDouble figure, UnitKind kind, UnitChoice units) {
        return figure.isPresent() ? units.text(kind, figure.getAsDouble()) : "–";
    }
}
