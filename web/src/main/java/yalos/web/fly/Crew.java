package yalos.web.fly;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import yalos.core.fault.InputFault;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.Fault;
import yalos.core.rehearsal.Shot;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.web.block.OpenBlock;
import yalos.web.store.FlyMapper;

/** Flies a rehearsal to its end by itself, for a demonstration: faults come, and a crew answers some of them. */
@Component
public class Crew {
    private static final double LOOKS_AFTER_S = 9;
    private static final double BETWEEN_S = 4;

    private final FlyDesk desk;
    private final FlyMapper rows;

    private final Runs runs;

    Crew(FlyDesk desk, FlyMapper rows, Runs runs) {
        this.desk = desk;
        this.rows = rows;
        this.runs = runs;
    }

    /** How many sorties a block is flown in. */
    public int sorties(OpenBlock block) {
        return runs.sorties(block);
    }

    /** What the last flight of a block brought home. */
    public interface Brought {
        int sortie();

        int count();

        /** Writes one of its photos, from 0, into a folder. */
        void write(int index, Path folder) throws IOException;
    }

    /**
     * The photos of a block's last flight, small ones, painted when they are written.
     *
     * @param laterMin so many minutes after it was really begun
     */
    public Brought brought(OpenBlock block, int laterMin) {
        LiveRun run = desk.last(block.id()).orElseThrow();
        PhotoFiles files =
                run.ask(flight -> runs.photos(block, run.id(), flight).small(laterMin));
        List<Shot> written =
                run.ask(flight -> flight.shots().stream().filter(Shot::written).toList());
        int sortie = run.ask(flight -> flight.sortie().number());
        return new Brought() {
            @Override
            public int sortie() {
                return sortie;
            }

            @Override
            public int count() {
                return written.size();
            }

            @Override
            public void write(int index, Path folder) throws IOException {
                Files.write(folder.resolve(files.name(index + 1)), files.jpeg(written.get(index)));
            }
        };
    }

    /** Whether a block was rehearsed already. */
    public boolean knows(long block) {
        return rows.last(block).isPresent();
    }

    /**
     * @param answers what the crew presses when a fault shows, one after the other; nothing for the others
     * @param who they are
     */
    public void rehearse(
            OpenBlock block,
            int sortie,
            long seed,
            Map<Fault, List<Command.Kind>> answers,
            Set<Fault> faults,
            String who) {
        LiveRun run = desk.begin(block, new FlyDesk.Asked(sortie, seed, List.copyOf(faults), false));
        desk.speed(run, 0);
        desk.press(run, Command.of(Command.Kind.START), who, "");
        Set<Fault> answered = EnumSet.noneOf(Fault.class);
        while (!run.over()) {
            run.ask(flight -> stepped(flight, 1));
            for (Fault fault : answers.keySet()) {
                boolean shows = run.ask(flight -> flight.signs().contains(fault.sign()));
                if (shows && answered.add(fault)) {
                    run.ask(flight -> stepped(flight, LOOKS_AFTER_S));
                    for (Command.Kind kind : answers.get(fault)) {
                        press(run, kind, who, fault);
                    }
                }
            }
        }
        desk.end(run);
    }

    private void press(LiveRun run, Command.Kind kind, String who, Fault fault) {
        try {
            desk.press(run, Command.of(kind), who, kind == Command.Kind.PAUSE ? fault.words() : "");
        } catch (InputFault notNow) {
            return;
        }
        run.ask(flight -> stepped(flight, kind == Command.Kind.CAMERA ? 2 * BETWEEN_S : BETWEEN_S));
    }

    private static boolean stepped(SimulatedFlight flight, double seconds) {
        for (double t = 0; t < seconds && !flight.over(); t += SimulatedFlight.STEP_S) {
            flight.step();
        }
        return true;
    }
}
