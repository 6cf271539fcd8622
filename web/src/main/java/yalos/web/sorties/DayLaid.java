package yalos.web.sorties;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.springframework.ui.Model;
import yalos.core.day.DayLight;
import yalos.core.day.DayPlan;
import yalos.core.day.Slot;
import yalos.core.day.Window;
import yalos.core.light.SameSun;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.core.weather.WeatherHour;
import yalos.web.store.BlockFacts;

/** The day of a block as its sorties, its light and its settings lay it. */
public final class DayLaid {
    private DayLaid() {}

    static DayPlan.Given given(BlockFacts facts, SortieDesk.Found found, List<Slot> slots) {
        List<Double> minutes = found.sorties().orElseThrow().all().stream()
                .map(sortie -> sortie.seconds() / 60)
                .toList();
        int sets = found.sorties().orElseThrow().batteries();
        return new DayPlan.Given(
                facts.brief().day(), facts.field().day(), SortieDesk.needs(facts), minutes, sets, slots);
    }

    /** As set; else so that flying lies as near to solar noon, or to the sun of an earlier flight that is wanted again, as the best window lets it. */
    static int start(BlockFacts facts, SortieDesk.Found found, DayPlan.Given given) {
        DayLight light = found.light().orElseThrow();
        double flying = DayPlan.flyingMin(given);
        double wanted = facts.field()
                .day()
                .earlier()
                .flatMap(then -> SameSun.of(
                        facts.outline().middle(), then.atZone(light.zone()).toInstant(), light.date()))
                .map(same -> light.minute(same.at()))
                .orElseGet(() -> light.minute(light.sun().noon()));
        double middle = Window.best(given.slots(), flying).stream()
                .findFirst()
                .filter(Window::fits)
                .map(window -> Math.max(
                        window.from() + flying / 2 + Slot.MINUTES,
                        Math.min(window.to() - flying / 2 - Slot.MINUTES, wanted)))
                .orElse(wanted);
        return facts.field().day().startMin().orElseGet(() -> DayPlan.startRound(given, (int) Math.round(middle)));
    }

    /** The hour with most wind of those in which a sortie is in the air. */
    static Optional<WeatherHour> windiest(DayPlan day, BlockFacts facts) {
        LocalDate date = SortieDesk.date(facts);
        return facts.field().day().weather().stream()
                .filter(hour -> hour.windMps().isPresent())
                .filter(hour -> day.entries().stream()
                        .filter(entry -> entry.kind() == DayPlan.Kind.SORTIE)
                        .anyMatch(entry -> {
                            LocalDateTime from = date.atStartOfDay().plusSeconds(Math.round(entry.from() * 60));
                            LocalDateTime to = date.atStartOfDay().plusSeconds(Math.round(entry.to() * 60));
                            return hour.at().isBefore(to)
                                    && hour.at().plusHours(1).isAfter(from);
                        }))
                .max(Comparator.comparingDouble(hour -> hour.windMps().getAsDouble()));
    }

    /** The chart of the day, and what it says in words. */
    public static void show(BlockFacts facts, BlockPlan plan, SortieDesk.Found found, UnitChoice units, Model model) {
        List<Slot> slots = SortieDesk.slots(facts, plan, found, units);
        DayPlan.Given given = given(facts, found, slots);
        int start = start(facts, found, given);
        DayPlan laid = DayPlan.of(given, start);
        model.addAttribute("chart", DayChart.svg(laid, slots, units.unit(UnitKind.SPEED)));
        model.addAttribute("flown", laid.flown());
        model.addAttribute("missing", laid.missing());
        model.addAttribute("start", DayPlan.clock(start));
        model.addAttribute("date", SortieDesk.date(facts));
        model.addAttribute("zone", found.light().orElseThrow().zone().getId());
        model.addAttribute(
                "end",
                DayPlan.clock(laid.entries().stream()
                        .filter(entry -> entry.kind() != DayPlan.Kind.CHARGE)
                        .mapToDouble(DayPlan.Entry::to)
                        .max()
                        .orElse(start)));
        model.addAttribute(
                "latest",
                laid.latestStart().isPresent()
                        ? "latest leaving that still works "
                                + DayPlan.clock(laid.latestStart().getAsInt())
                        : "no time of leaving works on this day");
        laid.entries().stream()
                .filter(entry -> entry.kind() == DayPlan.Kind.WAIT)
                .findFirst()
                .ifPresent(wait -> model.addAttribute(
                        "waits",
                        "%s: sortie %d goes at %s.".formatted(wait.words(), wait.sortie(), DayPlan.clock(wait.to()))));
    }
}
