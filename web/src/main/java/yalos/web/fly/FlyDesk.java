package yalos.web.fly;

import jakarta.annotation.PreDestroy;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import javax.imageio.ImageIO;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
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
import yalos.core.units.UnitChoice;
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
import yalos.web.work.Busy;

/**
 * Simulated flights under way. Each goes on five times a second as fast as it is told, for everybody who looks. What was begun and pressed is kept, and a flight follows from that: after a restart it is flown again
 * to where it was.
 */
@Component
class FlyDesk {
    private static final Logger LOG = LoggerFactory.getLogger(FlyDesk.class);
    private static final int PERIOD_MS = 200;
    private static final int MOST_LIVE = 24;
    private static final int MOST_VIEWERS = 40;
    private static final double ROUND_M = 100;
    private static final double MOST_PIXELS = 4_000_000;
    private static final long KEEP_NANOS = TimeUnit.SECONDS.toNanos(4);
    private static final long UNSEEN_NANOS = TimeUnit.MINUTES.toNanos(3);
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final FlyMapper rows;
    private final PlanDesk plans;
    private final SortieDesk sorties;
    private final Pictures pictures;
    private final Map<Long, LiveRun> live = new ConcurrentHashMap<>();
    private final Map<Long, Long> keptTicks = new ConcurrentHashMap<>();
    private final ScheduledExecutorService clock =
            Executors.newSingleThreadScheduledExecutor(job -> daemon(job, "fly"));
    private final ExecutorService lines = Executors.newFixedThreadPool(4, job -> daemon(job, "fly-line"));
    private long before = System.nanoTime();
    private long keptNanos = before;

    FlyDesk(FlyMapper rows, PlanDesk plans, SortieDesk sorties, Pictures pictures) {
        this.pictures = pictures;
        this.rows = rows;
        this.plans = plans;
        this.sorties = sorties;
        clock.scheduleAtFixedRate(this::tick, PERIOD_MS, PERIOD_MS, TimeUnit.MILLISECONDS);
    }

    private static Thread daemon(Runnable job, String name) {
        Thread thread = new Thread(job, name);
        thread.setDaemon(true);
        return thread;
    }

    /** What a rehearsal is asked for. */
    record Asked(int sortie, long seed, List<Fault> faults, boolean chance) {}

    /**
     * Begins a rehearsal; one of the same block before it ends.
     *
     * @throws InputFault where no sortie can be flown
     */
    LiveRun begin(OpenBlock block, Asked asked) {
        BlockFacts facts = block.facts();
        BlockPlan plan = plans.needed(facts);
        SortieDesk.Means means = sorties.means(facts);
        Sorties cut = sorties.cut(facts, plan, means);
        current(block.id()).ifPresent(old -> end(old.id()));
        RunRow row = new RunRow();
        row.blockId = block.id();
        row.sortie = asked.sortie();
        row.seed = asked.seed();
        row.facts = FactsJson.write(facts);
        row.packs = JSON.writeValueAsString(means.packs());
        row.flights = JSON.writeValueAsString(means.flights());
        row.begunAt = LocalDateTime.now().withNano(0);
        row.begunBy = Person.present();
        row.speed = 1;
        Script script = script(cut, means, asked);
        row.faults = faults(script);
        SimulatedFlight flight = new SimulatedFlight(cut, asked.sortie(), script);
        rows.begin(row);
        return keep(new LiveRun(row.id, block.id(), flight, 1, System.nanoTime()));
    }

    private static Script script(Sorties cut, SortieDesk.Means means, Asked asked) {
        Script calm = charged(cut, means, asked.sortie(), asked.seed(), List.of());
        if (asked.chance()) {
            return calm.byChance();
        }
        return asked.faults().isEmpty() ? calm : calm.with(java.util.EnumSet.copyOf(asked.faults()));
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
        return new Script(seed, 0.5, Math.min(1, battery.charge()), holds, faults);
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

    private LiveRun keep(LiveRun run) {
        if (live.size() >= MOST_LIVE) {
            live.values().stream()
                    .filter(other -> other.viewers().isEmpty())
                    .findFirst()
                    .ifPresent(idle -> {
                        kept(idle);
                        live.remove(idle.id());
                    });
        }
        if (live.size() >= MOST_LIVE) {
            throw new Busy("%d rehearsals are looked at already. Close one first.".formatted(MOST_LIVE), true);
        }
        live.put(run.id(), run);
        return run;
    }

    /** The block's run, as far as one was begun and not ended. */
    Optional<LiveRun> current(long block) {
        return rows.last(block).filter(row -> !row.ended).map(this::opened);
    }

    /** The block's last run, ended or not. */
    Optional<LiveRun> last(long block) {
        return rows.last(block).map(this::opened);
    }

    /**
     * A run of a block.
     *
     * @throws NotThere for one that is not the block's
     */
    LiveRun run(long block, long id) {
        return rows.run(id)
                .filter(row -> row.blockId == block)
                .map(this::opened)
                .orElseThrow(() -> new NotThere("There is no such rehearsal any more."));
    }

    private synchronized LiveRun opened(RunRow row) {
        LiveRun known = live.get(row.id);
        return known != null ? known : keep(flownAgain(row));
    }

    /** Flies a run again to where it was: what was pressed is pressed at the same step. */
    private LiveRun flownAgain(RunRow row) {
        BlockFacts facts = FactsJson.read(row.facts);
        SortieDesk.Means means = new SortieDesk.Means(
                JSON.readValue(row.packs, new TypeReference<List<Packs.Pack>>() {}),
                JSON.readValue(row.flights, new TypeReference<List<Consumption>>() {}));
        Sorties cut = sorties.cut(facts, plans.needed(facts), means);
        SimulatedFlight flight =
                new SimulatedFlight(cut, row.sortie, charged(cut, means, row.sortie, row.seed, faults(row.faults)));
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
        return new LiveRun(row.id, row.blockId, flight, row.speed, System.nanoTime());
    }

    private static void flyTo(SimulatedFlight flight, long tick) {
        while (flight.ticks() < tick && !flight.over()) {
            flight.step();
        }
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

    /** Presses something, and keeps that it was pressed. */
    void press(LiveRun run, Command command, String who, String note) {
        synchronized (run) {
            long tick = run.press(command, who, note);
            rows.press(run.id(), new CommandRow(0, tick, command.text(), cut(who, 80), cut(note, 300)));
            kept(run);
        }
        tell(run);
    }

    private static String cut(String text, int most) {
        String plain = text.strip();
        return plain.length() > most ? plain.substring(0, most) : plain;
    }

    /** How fast it goes on. */
    void speed(LiveRun run, int speed) {
        if (!LiveRun.SPEEDS.contains(speed)) {
            throw new InputFault("speed", speed, "It flies at 1, 5, 20 or 60 times the speed of life, or stands.");
        }
        run.speed(speed);
        kept(run);
        tell(run);
    }

    /** Ends a run; what came of it stays. */
    void end(long id) {
        LiveRun run = live.get(id);
        long ticks = run == null ? rows.run(id).map(row -> row.ticks).orElse(0L) : run.ticks();
        rows.keep(id, ticks, 0, true);
        if (run != null) {
            run.speed(0);
            tell(run);
        }
    }

    /** Joins somebody in. */
    SseEmitter join(LiveRun run, UnitChoice units) {
        if (run.viewers().size() >= MOST_VIEWERS) {
            throw new Busy("%d look at this rehearsal already.".formatted(MOST_VIEWERS), true);
        }
        SseEmitter line = new SseEmitter(0L);
        Viewer viewer = new Viewer(line, units);
        Runnable gone = () -> {
            run.viewers().remove(viewer);
            run.seen(System.nanoTime());
        };
        line.onCompletion(gone);
        line.onTimeout(gone);
        line.onError(fault -> gone.run());
        run.viewers().add(viewer);
        send(run, viewer);
        return line;
    }

    private void tick() {
        try {
            long now = System.nanoTime();
            double passed = (now - before) / 1e9;
            before = now;
            boolean keep = now - keptNanos > KEEP_NANOS;
            keptNanos = keep ? now : keptNanos;
            for (LiveRun run : live.values()) {
                boolean looked = run.unseen(now) < UNSEEN_NANOS;
                if (looked) {
                    run.fly(passed);
                }
                if (keep) {
                    kept(run);
                }
                tell(run);
            }
        } catch (RuntimeException fault) {
            LOG.error("a rehearsal could not go on", fault);
        }
    }

    private void kept(LiveRun run) {
        long ticks = run.ticks();
        long key = ticks * 100 + run.speed();
        if (Optional.ofNullable(keptTicks.put(run.id(), key))
                .filter(old -> old == key)
                .isEmpty()) {
            boolean ended = rows.run(run.id()).map(row -> row.ended).orElse(true);
            rows.keep(run.id(), ticks, run.speed(), ended);
        }
    }

    private void tell(LiveRun run) {
        run.viewers().forEach(viewer -> send(run, viewer));
    }

    private void send(LiveRun run, Viewer viewer) {
        if (viewer.take()) {
            lines.execute(() -> {
                if (!viewer.send(run)) {
                    run.viewers().remove(viewer);
                    viewer.line().complete();
                }
            });
        }
    }

    /** Forgets what is under way, as a restart does; what was kept stays. For tests. */
    void forget() {
        live.values().forEach(run -> {
            kept(run);
            run.dropViewers().forEach(viewer -> viewer.line().complete());
        });
        live.clear();
    }

    @PreDestroy
    void close() {
        clock.shutdownNow();
        try {
            live.values().forEach(this::kept);
        } catch (RuntimeException closing) {
            LOG.debug("the last moments of rehearsals were not kept", closing);
        }
        live.values()
                .forEach(
                        run -> run.dropViewers().forEach(viewer -> viewer.line().complete()));
        lines.shutdownNow();
    }

    static String key(Command.Kind kind) {
        return kind.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
}
