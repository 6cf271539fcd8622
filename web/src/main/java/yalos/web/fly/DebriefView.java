package yalos.web.fly;

import java.util.List;
import java.util.stream.Collectors;
import org.springframework.ui.Model;
import yalos.core.rehearsal.Debrief;
import yalos.core.rehearsal.Event;
import yalos.core.rehearsal.Phase;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.web.sorties.Percent;

/** A debrief as its page shows it. */
final class DebriefView {
    private DebriefView() {}

    /** A fault: what came, what was done, what is better. */
    public record Row(String clock, String what, String done, String better, String mood) {}

    static void fill(SimulatedFlight flight, UnitChoice units, Model model) {
        Debrief debrief = Debrief.of(flight);
        int photos = flight.sortie().photos();
        int missing = debrief.missing().size();
        model.addAttribute("sortie", flight.sortie().number());
        model.addAttribute("photos", photos);
        model.addAttribute("missing", missing);
        model.addAttribute("over", flight.over());
        model.addAttribute("phase", flight.phase().words());
        model.addAttribute("lost", flight.phase() == Phase.LOST);
        model.addAttribute("flownFor", FlyState.clock(flight.seconds()));
        model.addAttribute("charge", Percent.of(flight.charge()));
        model.addAttribute(
                "rows",
                debrief.lines().stream()
                        .map(line -> new Row(
                                FlyState.clock(line.began()),
                                line.fault().words(),
                                line.words(),
                                line.better(),
                                line.good() ? "done" : "mind"))
                        .toList());
        model.addAttribute(
                "causes",
                debrief.causes().entrySet().stream()
                        .map(cause -> cause.getValue() + " " + cause.getKey())
                        .collect(Collectors.joining(", ")));
        model.addAttribute("strips", debrief.strips());
        model.addAttribute(
                "again",
                debrief.again()
                        .map(plan -> "%,d photos on %d pieces of strips, %s in the air"
                                .formatted(
                                        plan.flight().exposures().size(),
                                        plan.flight().lines().size(),
                                        Times.minutes(debrief.againS())))
                        .orElse(""));
        List<Event> events = flight.events();
        model.addAttribute(
                "events",
                events.stream()
                        .map(event -> new FlyState.Told(FlyState.clock(event.seconds()), event.words(), event.who()))
                        .toList());
        model.addAttribute("chart", FlyCharts.svg(flight, units));
    }
}
