package yalos.core.rehearsal;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Faults as they come, are answered, and end: by themselves, or because something was done. */
final class FaultWatch {
    private final Map<Fault, Came> came = new EnumMap<>(Fault.class);
    /** When what was begun against a fault is done. */
    private final Map<Fault, Double> mends = new EnumMap<>(Fault.class);

    boolean knows(Fault fault) {
        return came.containsKey(fault);
    }

    /** Whether it came and has not ended. */
    boolean lasts(Fault fault) {
        Came one = came.get(fault);
        return one != null && Double.isNaN(one.ended());
    }

    void begin(Fault fault, double seconds) {
        came.put(fault, new Came(fault, seconds, Double.NaN, Double.NaN, Optional.empty()));
    }

    /** Something was pressed: the first that helps against a fault is its answer. */
    void answered(Command.Kind pressed, double seconds) {
        for (Came one : List.copyOf(came.values())) {
            if (one.by().isEmpty() && one.fault().answers().contains(pressed) && Double.isNaN(one.ended())) {
                came.put(one.fault(), new Came(one.fault(), one.began(), one.ended(), seconds, Optional.of(pressed)));
            }
        }
    }

    /** Begins what mends a fault; begun already, it goes on. */
    void mend(Fault fault, double fromS, double readyS) {
        if (mends.getOrDefault(fault, Double.NEGATIVE_INFINITY) <= fromS) {
            mends.put(fault, readyS);
        }
    }

    /** Whether something is being mended just then. */
    boolean mending(Fault fault, double seconds) {
        return seconds < mends.getOrDefault(fault, Double.NEGATIVE_INFINITY);
    }

    /** Ends what is over; answers with it. */
    List<Fault> ended(double seconds) {
        List<Fault> over = new ArrayList<>();
        for (Came one : List.copyOf(came.values())) {
            double ready = mends.getOrDefault(one.fault(), Double.NaN);
            boolean mended = ready > one.began() && seconds >= ready;
            if (Double.isNaN(one.ended())
                    && (mended || seconds - one.began() > one.fault().lastsS())) {
                came.put(one.fault(), new Came(one.fault(), one.began(), seconds, one.answered(), one.by()));
                over.add(one.fault());
            }
        }
        return over;
    }

    List<Came> all() {
        return List.copyOf(came.values());
    }

    /** What an operator sees of those that last. */
    List<String> signs() {
        return came.values().stream()
                .filter(one -> Double.isNaN(one.ended()))
                .map(one -> one.fault().sign())
                .toList();
    }
}
