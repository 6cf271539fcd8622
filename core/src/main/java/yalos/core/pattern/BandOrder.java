package yalos.core.pattern;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import yalos.core.flight.Pace;
import yalos.core.flight.Turn;
import yalos.core.geodesy.PlanePoint;

/**
 * In which order are the bands of a sweep flown? By a multirotor back and forth; by a wing so that its turns take least. One may be asked for many
 * directions of the same lines.
 */
final class BandOrder {
    /** What the wind forbids takes for ever; an order is wanted all the same. */
    private static final double FORBIDDEN_S = 1e9;

    private final Task task;
    private final Pace pace;
    private final boolean wing;
    /** Lengths of turns to the strip so many away, as far as they were asked for. */
    private final Map<Integer, Double> turns = new HashMap<>();

    BandOrder(Task task, Pace pace) {
        this.task = task;
        this.pace = pace;
        this.wing = pace.aircraft().kind().wing();
    }

    /**
     * Bands that hold a strip, in the order flown: the best of all for a wing's few strips.
     *
     * @param here where the aircraft comes from; empty while nobody knows
     * @param launch where it goes afterwards
     */
    List<StripOrder.Step> of(
            BandSweep sweep, double directionRad, Optional<PlanePoint> here, Optional<PlanePoint> launch) {
        return of(sweep, directionRad, here, launch, true);
    }

    /** Back and forth, begun at the one of the four corners from which ways and turns together take least. */
    private List<StripOrder.Step> quickestCorner(
            BandSweep sweep, double directionRad, Optional<PlanePoint> here, Optional<PlanePoint> launch) {
        List<StripOrder.Step> best = serpentine(sweep, here);
        // Bands are named by their own numbers here, none left out.
        List<Integer> bands = IntStream.range(0, sweep.bands()).boxed().toList();
        Cost cost = new Cost(bands, new Ends(sweep, task, directionRad), task, pace, here, launch);
        double least = seconds(best, cost);
        for (int corner = 0; corner < 4; corner++) {
            List<StripOrder.Step> steps = serpentine(sweep, new Serpentine(corner / 2 == 1, corner % 2 == 1));
            double takes = seconds(steps, cost);
            if (takes < least - 1e-9) {
                least = takes;
                best = steps;
            }
        }
        return best;
    }

    private static double seconds(List<StripOrder.Step> steps, Cost cost) {
        if (steps.isEmpty()) {
            return 0;
        }
        double seconds = cost.start(steps.get(0)) + cost.end(steps.get(steps.size() - 1));
        for (int i = 1; i < steps.size(); i++) {
            seconds += cost.between(steps.get(i - 1), steps.get(i));
        }
        return seconds;
    }

    /** The same, quick enough for every direction of a search; a wing's few strips may then take a little longer. */
    List<StripOrder.Step> quick(
            BandSweep sweep, double directionRad, Optional<PlanePoint> here, Optional<PlanePoint> launch) {
        return of(sweep, directionRad, here, launch, false);
    }

    private List<StripOrder.Step> of(
            BandSweep sweep,
            double directionRad,
            Optional<PlanePoint> here,
            Optional<PlanePoint> launch,
            boolean best) {
        if (!wing) {
            return pace.rounding() ? quickestCorner(sweep, directionRad, here, launch) : serpentine(sweep, here);
        }
        List<Integer> bands = new ArrayList<>();
        for (int band = 0; band < sweep.bands(); band++) {
            if (sweep.strips(band) > 0) {
                bands.add(band);
            }
        }
        Cost cost = new Cost(bands, new Ends(sweep, task, directionRad), task, pace, here, launch);
        List<StripOrder.Step> order = best && bands.size() <= StripOrder.EXACT
                ? StripOrder.exact(bands.size(), cost)
                : StripOrder.interleaved(bands.size(), cost, away -> turns.computeIfAbsent(away, this::turnM));
        return order.stream()
                .map(step -> new StripOrder.Step(bands.get(step.strip()), step.reversed()))
                .toList();
    }

    private double turnM(int away) {
        PlanePoint from = new PlanePoint(0, 0);
        PlanePoint to = new PlanePoint(away * task.spacingM(), 0);
        return new Turn(from, 0, to, Math.PI).lengthM(pace.aircraft(), task.speedMps());
    }

    /** Back and forth, neighbour after neighbour. */
    static List<StripOrder.Step> serpentine(BandSweep sweep, Optional<PlanePoint> here) {
        return serpentine(sweep, Serpentine.nearest(sweep, here));
    }

    private static List<StripOrder.Step> serpentine(BandSweep sweep, Serpentine order) {
        List<StripOrder.Step> steps = new ArrayList<>();
        for (int turn = 0; turn < sweep.bands(); turn++) {
            int band = order.band(turn, sweep.bands());
            if (sweep.strips(band) > 0) {
                steps.add(new StripOrder.Step(band, order.reversed(turn)));
            }
        }
        return steps;
    }

    /** Where the strips of a band begin and end: their first and last photos. */
    record Ends(BandSweep sweep, Task task, double directionRad) {
        PlanePoint start(StripOrder.Step step) {
            return at(step.strip(), step.reversed());
        }

        PlanePoint end(StripOrder.Step step) {
            return at(step.strip(), !step.reversed());
        }

        private PlanePoint at(int band, boolean last) {
            return sweep.point(along(band, last), band);
        }

        double trackRad(StripOrder.Step step) {
            return step.reversed() ? directionRad + Math.PI : directionRad;
        }

        double lengthM(StripOrder.Step step) {
            return along(step.strip(), true) - along(step.strip(), false);
        }

        /** First or last photo of a band, in metres along. */
        private double along(int band, boolean last) {
            int strip = last ? sweep.strips(band) - 1 : 0;
            double from = sweep.from(band, strip);
            double to = sweep.to(band, strip);
            double half = task.lineLengthM(to - from) / 2;
            return (from + to) / 2 + (last ? half : -half);
        }
    }

    /** Seconds for turns and ways, as they will be timed. */
    private record Cost(
            List<Integer> bands,
            Ends ends,
            Task task,
            Pace pace,
            Optional<PlanePoint> here,
            Optional<PlanePoint> launch)
            implements StripOrder.Cost {
        private StripOrder.Step band(StripOrder.Step step) {
            return new StripOrder.Step(bands.get(step.strip()), step.reversed());
        }

        @Override
        public double between(StripOrder.Step from, StripOrder.Step to) {
            StripOrder.Step last = band(from);
            StripOrder.Step next = band(to);
            Turn turn = new Turn(ends.end(last), ends.trackRad(last), ends.start(next), ends.trackRad(next));
            return Math.min(FORBIDDEN_S, pace.turnS(turn, task.speedMps()));
        }

        @Override
        public double start(StripOrder.Step first) {
            return here.map(at -> Math.min(FORBIDDEN_S, pace.transitS(at, ends.start(band(first)))))
                    .orElse(0.0);
        }

        @Override
        public double end(StripOrder.Step last) {
            return launch.map(at -> Math.min(FORBIDDEN_S, pace.returnS(ends.end(band(last)), at)))
                    .orElse(0.0);
        }
    }
}
