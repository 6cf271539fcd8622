package yalos.web.fly;

import jakarta.annotation.PreDestroy;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import yalos.core.fault.InputFault;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Fault;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.units.UnitChoice;
import yalos.web.block.OpenBlock;
import yalos.web.shell.NotThere;
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
    private static final long KEEP_NANOS = TimeUnit.SECONDS.toNanos(4);
    private static final long UNSEEN_NANOS = TimeUnit.MINUTES.toNanos(3);

    private final FlyMapper rows;
    private final Runs runs;
    private final Map<Long, LiveRun> live = new ConcurrentHashMap<>();
    private final ScheduledExecutorService clock =
            Executors.newSingleThreadScheduledExecutor(job -> daemon(job, "fly"));
    private final ExecutorService lines = Executors.newFixedThreadPool(4, job -> daemon(job, "fly-line"));
    private long before = System.nanoTime();
    private long keptNanos = before;

    FlyDesk(FlyMapper rows, Runs runs) {
        this.rows = rows;
        this.runs = runs;
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
        RunRow row = runs.row(block, asked);
        // Flown from what is kept, so that it is the same after a restart.
        SimulatedFlight flight = runs.flight(row);
        current(block.id()).ifPresent(this::end);
        rows.begin(row);
        return keep(new LiveRun(row, flight, System.nanoTime()));
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
        LiveRun known = live.get(id);
        if (known != null && known.block() == block) {
            return known;
        }
        return rows.run(id)
                .filter(row -> row.blockId == block)
                .map(this::opened)
                .orElseThrow(() -> new NotThere("There is no such rehearsal any more."));
    }

    private synchronized LiveRun opened(RunRow row) {
        LiveRun known = live.get(row.id);
        return known != null ? known : keep(new LiveRun(row, runs.flownAgain(row), System.nanoTime()));
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
        if (run.ended()) {
            throw new InputFault("speed", speed, "This rehearsal was ended. Begin another below.");
        }
        run.speed(speed);
        kept(run);
        tell(run);
    }

    /** Ends a run; what came of it stays. */
    void end(LiveRun run) {
        run.end();
        kept(run);
        tell(run);
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
        if (run.changed()) {
            rows.keep(run.id(), run.ticks(), run.speed(), run.ended());
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
}
