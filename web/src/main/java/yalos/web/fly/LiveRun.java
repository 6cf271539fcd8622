package yalos.web.fly;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Function;
import yalos.core.fault.InputFault;
import yalos.core.rehearsal.Command;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.units.UnitChoice;
import yalos.web.store.FlyMapper.RunRow;

/** A simulated flight that is under way, and who looks at it. All that touches the flight holds its lock. */
final class LiveRun {
    /** Times real time. */
    static final List<Integer> SPEEDS = List.of(0, 1, 5, 20, 60);

    private static final double MOST_STEPS = 700;

    private final long id;
    private final long block;
    private final SimulatedFlight flight;
    private final List<Viewer> viewers = new CopyOnWriteArrayList<>();
    private int speed;
    private boolean ended;
    private long kept = -1;
    private double owed;
    private long seenNanos;

    LiveRun(RunRow row, SimulatedFlight flight, long nanos) {
        this.id = row.id;
        this.block = row.blockId;
        this.flight = flight;
        this.speed = row.speed;
        this.ended = row.ended;
        this.seenNanos = nanos;
    }

    long id() {
        return id;
    }

    long block() {
        return block;
    }

    List<Viewer> viewers() {
        return viewers;
    }

    synchronized int speed() {
        return speed;
    }

    synchronized void speed(int other) {
        speed = other;
    }

    /** Whether it was ended: it is looked at, and flies no more. */
    synchronized boolean ended() {
        return ended;
    }

    synchronized void end() {
        ended = true;
        speed = 0;
    }

    /** Whether it has come on, or goes otherwise, since this was last asked: then it is to be kept. */
    synchronized boolean changed() {
        long now = (flight.ticks() * 100 + speed) * 2 + (ended ? 1 : 0);
        boolean changed = now != kept;
        kept = now;
        return changed;
    }

    /** Looked at just now. */
    synchronized void seen(long nanos) {
        seenNanos = nanos;
    }

    /** How long nobody has looked, in nanoseconds. */
    synchronized long unseen(long nanos) {
        return viewers.isEmpty() ? nanos - seenNanos : 0;
    }

    /** Flies on for so much real time. */
    synchronized void fly(double seconds) {
        owed = Math.min(MOST_STEPS, owed + seconds * speed / SimulatedFlight.STEP_S);
        while (owed >= 1 && !flight.over()) {
            flight.step();
            owed--;
        }
    }

    /**
     * Presses something, at the moment it has come to.
     *
     * @return that moment, in steps
     * @throws InputFault for what cannot be pressed
     */
    synchronized long press(Command command, String who, String note) {
        if (ended) {
            throw new InputFault("command", command.text(), "This rehearsal was ended. Begin another below.");
        }
        flight.press(command, who, note);
        return flight.ticks();
    }

    synchronized long ticks() {
        return flight.ticks();
    }

    synchronized boolean over() {
        return flight.over();
    }

    /** What a page shows, since what a viewer has. */
    synchronized FlyState state(UnitChoice units, int samples, int shots) {
        return FlyState.of(this, flight, units, samples, shots);
    }

    /** Asks something of the flight while nothing moves. */
    synchronized <T> T ask(Function<SimulatedFlight, T> question) {
        return question.apply(flight);
    }

    /** All that is looked at, and forgotten. */
    List<Viewer> dropViewers() {
        List<Viewer> all = new ArrayList<>(viewers);
        viewers.clear();
        return all;
    }
}
