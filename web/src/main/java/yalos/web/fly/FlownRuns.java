package yalos.web.fly;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.springframework.stereotype.Component;
import yalos.core.geodesy.LonLat;
import yalos.core.logbook.FlightRecord;
import yalos.core.logbook.FlightRecord.Air;
import yalos.core.logbook.FlightRecord.Crew;
import yalos.core.logbook.FlightRecord.Figures;
import yalos.core.logbook.FlightRecord.Happening;
import yalos.core.logbook.FlightRecord.Kind;
import yalos.core.logbook.FlightRecord.Pack;
import yalos.core.pins.Defaults;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.rehearsal.Debrief;
import yalos.core.rehearsal.Event;
import yalos.core.rehearsal.Sample;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.web.block.OpenBlock;
import yalos.web.sorties.SortieDesk;
import yalos.web.store.BlockFacts;
import yalos.web.store.FactsJson;
import yalos.web.store.FlyMapper;
import yalos.web.store.FlyMapper.RunRow;

/** The last rehearsal of a block, as the log would have it. */
@Component
public class FlownRuns {
    private static final double STILL_MPS = 0.05;

    private final FlyDesk desk;
    private final FlyMapper rows;
    private final Runs runs;

    FlownRuns(FlyDesk desk, FlyMapper rows, Runs runs) {
        this.desk = desk;
        this.rows = rows;
        this.runs = runs;
    }

    /**
     * A flight that may be taken into the log.
     *
     * @param facts as they were when it began, as they are stored
     */
    public record Draft(long run, FlightRecord flight, String facts) {}

    /** The last run, once it has left the ground; what a log asks of it is worked out when it is asked. */
    public Optional<Draft> last(OpenBlock block) {
        return rows.last(block.id())
                .filter(row -> row.ticks > 0)
                .flatMap(row -> desk.last(block.id())
                        .map(run -> new Draft(row.id, run.ask(flight -> record(row, flight)), row.facts)));
    }

    private FlightRecord record(RunRow row, SimulatedFlight flight) {
        BlockFacts facts = FactsJson.read(row.facts);
        Debrief debrief = Debrief.of(flight);
        BlockPlan plan = flight.sorties().given().plan();
        LonLat launch = plan.block().plane().toLonLat(flight.sortie().homing().launch());
        List<Sample> samples = flight.samples();
        int photos = flight.sortie().photos();
        return new FlightRecord(
                row.begunAt,
                SortieDesk.clock(facts),
                Math.max(flight.seconds(), 1) / 60,
                row.sortie,
                facts.aircraft().name(),
                facts.kit().name(),
                Optional.of(launch),
                row.begunBy.isEmpty() ? List.of() : List.of(new Crew(row.begunBy, Crew.PILOT)),
                List.of(new Pack(
                        runs.battery(row).orElse("set " + row.sortie),
                        OptionalDouble.of(flight.script().charge()),
                        OptionalDouble.of(
                                Math.min(flight.charge(), flight.script().charge())))),
                new Figures(
                        OptionalInt.of(photos),
                        OptionalDouble.of(flight.sortie().seconds() / 60),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.of(flight.sortie().taken()),
                        OptionalDouble.empty()),
                new Figures(
                        OptionalInt.of(photos - debrief.missing().size()),
                        OptionalDouble.of(flight.seconds() / 60),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.of(Math.max(0, flight.script().charge() - flight.charge())),
                        OptionalDouble.empty()),
                air(flight, samples, facts),
                samples.stream().mapToInt(Sample::satellites).min(),
                "",
                happenings(flight, debrief),
                "");
    }

    private static Air air(SimulatedFlight flight, List<Sample> samples, BlockFacts facts) {
        double mean = samples.stream().mapToDouble(Sample::windMps).average().orElse(0);
        double most = samples.stream().mapToDouble(Sample::windMps).max().orElse(0);
        return new Air(
                OptionalDouble.of(mean),
                OptionalDouble.of(most),
                mean < STILL_MPS ? OptionalDouble.empty() : OptionalDouble.of(flight.windFromRad()),
                OptionalDouble.of(facts.pins().siOr(Quantity.TEMPERATURE, Defaults.TEMPERATURE_K)),
                "");
    }

    private static List<Happening> happenings(SimulatedFlight flight, Debrief debrief) {
        List<Happening> all = new ArrayList<>();
        debrief.lines()
                .forEach(line -> all.add(new Happening(
                        Kind.INCIDENT,
                        FlyState.clock(line.began()),
                        line.fault().words() + ": " + line.words(),
                        "",
                        "")));
        for (Event event : flight.events()) {
            if (!event.who().isEmpty()) {
                all.add(new Happening(Kind.EVENT, FlyState.clock(event.seconds()), event.words(), "", event.who()));
            }
        }
        return all;
    }
}
