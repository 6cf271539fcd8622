package yalos.web.fly;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import javax.imageio.ImageIO;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Fault;
import yalos.core.rehearsal.Script;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.sortie.Consumption;
import yalos.core.sortie.Packs;
import yalos.core.sortie.Sorties;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.elevation.Pictures;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.sorties.Charged;
import yalos.web.sorties.SortieDesk;
import yalos.web.store.BlockFacts;
import yalos.web.store.FactsJson;
import yalos.web.store.FlyMapper;
import yalos.web.store.FlyMapper.CommandRow;
import yalos.web.store.FlyMapper.RunRow;

/** What is kept of runs, and the flights and photos that follow from it. */
@Component
class Runs {
    private static final Logger LOG = LoggerFactory.getLogger(Runs.class);
    private static final double GUSTS_MPS = 0.5;
    private static final double ROUND_M = 100;
    private static final double MOST_PIXELS = 4_000_000;
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final FlyMapper rows;
    private final PlanDesk plans;
    private final SortieDesk sorties;
    private final Pictures pictures;

    Runs(FlyMapper rows, PlanDesk plans, SortieDesk sorties, Pictures pictures) {
        this.rows = rows;
        this.plans = plans;
        this.sorties = sorties;
        this.pictures = pictures;
    }

    /**
     * What a rehearsal that begins now is kept as.
     *
     * @throws InputFault where no sortie can be flown, or there is none of that number
     */
    RunRow row(OpenBlock block, FlyDesk.Asked asked) {
        SortieDesk.Means means = sorties.means(block.facts());
        Sorties cut = sorties.cut(block.facts(), plans.needed(block.facts()), means);
        Script calm = charged(cut, means, asked.sortie(), asked.seed(), List.of());
        Script script = asked.chance()
                ? calm.byChance()
                : asked.faults().isEmpty() ? calm : calm.with(EnumSet.copyOf(asked.faults()));
        RunRow row = new RunRow();
        row.blockId = block.id();
        row.sortie = asked.sortie();
        row.seed = asked.seed();
        row.facts = FactsJson.write(block.facts());
        row.faults = faults(script);
        row.packs = JSON.writeValueAsString(means.packs());
        row.flights = JSON.writeValueAsString(means.flights());
        row.begunAt = LocalDateTime.now().withNano(0);
        row.begunBy = Person.present();
        row.speed = 1;
        return row;
    }

    /** How many sorties a block is flown in. */
    int sorties(OpenBlock block) {
        return sorties.cut(block.facts(), plans.needed(block.facts()), sorties.means(block.facts()))
                .all()
                .size();
    }

    /** The flight of a run, before anything was pressed. */
    SimulatedFlight flight(RunRow row) {
        BlockFacts facts = FactsJson.read(row.facts);
        SortieDesk.Means means = new SortieDesk.Means(
                JSON.readValue(row.packs, new TypeReference<List<Packs.Pack>>() {}),
                JSON.readValue(row.flights, new TypeReference<List<Consumption>>() {}));
        Sorties cut = sorties.cut(facts, plans.needed(facts), means);
        return new SimulatedFlight(cut, row.sortie, charged(cut, means, row.sortie, row.seed, faults(row.faults)));
    }

    /** Flies a run again to where it was: what was pressed is pressed at the same step. */
    SimulatedFlight flownAgain(RunRow row) {
        SimulatedFlight flight = flight(row);
        for (CommandRow pressed : rows.commands(row.id)) {
            flyTo(flight, pressed.tick());
            try {
                flight.press(Command.read(pressed.command()), pressed.person(), pressed.note());
            } catch (InputFault notAnyMore) {
                LOG.warn(
                        "run {}: {} could not be pressed again: {}",
                        row.id,
                        pressed.command(),
                        notAnyMore.getMessage());
            }
        }
        flyTo(flight, row.ticks);
        return flight;
    }

    private static void flyTo(SimulatedFlight flight, long tick) {
        while (flight.ticks() < tick && !flight.over()) {
            flight.step();
        }
    }

    private static Script charged(
            Sorties cut, SortieDesk.Means means, int sortie, long seed, List<Script.Planned> faults) {
        if (sortie < 1 || sortie > cut.all().size()) {
            throw new InputFault(
                    "sortie",
                    sortie,
                    "There are %d sorties.".formatted(cut.all().size()));
        }
        Charged battery = Charged.of(cut, means.packs()).get(sortie - 1);
        double taken = cut.all().get(sortie - 1).taken();
        double holds = taken / Math.max(1e-9, battery.charge() - battery.left());
        return new Script(seed, GUSTS_MPS, Math.min(1, battery.charge()), holds, faults);
    }

    /** The name of the battery a run began with; empty where it had none. */
    Optional<String> battery(RunRow row) {
        BlockFacts facts = FactsJson.read(row.facts);
        List<Packs.Pack> packs = JSON.readValue(row.packs, new TypeReference<List<Packs.Pack>>() {});
        List<Consumption> flights = JSON.readValue(row.flights, new TypeReference<List<Consumption>>() {});
        Sorties cut = sorties.cut(facts, plans.needed(facts), new SortieDesk.Means(packs, flights));
        return Optional.of(Charged.of(cut, packs).get(row.sortie - 1).name()).filter(name -> !name.isEmpty());
    }

    private static String faults(Script script) {
        StringBuilder text = new StringBuilder();
        script.faults()
                .forEach(one -> text.append(one.fault().name())
                        .append(' ')
                        .append(one.share())
                        .append(';'));
        return text.toString();
    }

    private static List<Script.Planned> faults(String text) {
        List<Script.Planned> planned = new ArrayList<>();
        for (String one : text.split(";")) {
            if (!one.isBlank()) {
                String[] parts = one.split(" ");
                planned.add(new Script.Planned(Fault.valueOf(parts[0]), Double.parseDouble(parts[1])));
            }
        }
        return planned;
    }

    /** The photos of a run as files, with targets where the block's points lie. */
    PhotoFiles photos(OpenBlock block, long run, SimulatedFlight flight) {
        RunRow row = rows.run(run).orElseThrow();
        BlockFacts facts = FactsJson.read(row.facts);
        LocalPlane plane = flight.sorties().given().plan().block().plane();
        List<PlanePoint> targets = facts.control().points().stream()
                .map(point -> plane.toPlane(point.place()))
                .toList();
        return new PhotoFiles(flight, site(facts, flight), targets, row.begunAt, SortieDesk.clock(block.facts()));
    }

    /** The site's own picture round the block, at most so many pixels of it; empty where there is none, or it cannot be read any more. */
    private Optional<SimulatedPhoto.Site> site(BlockFacts facts, SimulatedFlight flight) {
        if (facts.ground().picture().isEmpty()) {
            return Optional.empty();
        }
        BlockPlan plan = flight.sorties().given().plan();
        Bounds bounds = plan.covered().bounds();
        double west = bounds.west() - ROUND_M;
        double north = bounds.north() + ROUND_M;
        double wide = bounds.width() + 2 * ROUND_M;
        double high = bounds.height() + 2 * ROUND_M;
        double cell = Math.max(0.1, Math.sqrt(wide * high / MOST_PIXELS));
        try {
            byte[] png = pictures.over(
                    facts.ground().picture().getAsLong(),
                    plan.block().plane(),
                    west,
                    north,
                    cell,
                    (int) Math.ceil(wide / cell),
                    (int) Math.ceil(high / cell));
            return Optional.of(new SimulatedPhoto.Site(ImageIO.read(new ByteArrayInputStream(png)), west, north, cell));
        } catch (IOException | NotThere gone) {
            LOG.warn("the picture of run's block could not be read", gone);
            return Optional.empty();
        }
    }
}
