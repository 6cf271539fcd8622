package yalos.core.pattern;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.flight.Flight;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Line;
import yalos.core.flight.Pace;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Detour;

/** Changes made by hand, laid upon what was planned. */
public final class StripEdits {
    /** A change belongs to the strip nearest to its place, within this share of the strip spacing. */
    private static final double NEAR = 0.6;

    private StripEdits() {}

    /**
     * The passes as they are flown then; changes that find no strip near their place wait.
     *
     * @param planned without changes
     * @param plane of the block
     * @throws InputFault (field {@code strip}) when no strip is left
     */
    public static Passes laid(Passes planned, List<StripEdit> edits, LocalPlane plane, Pace pace, Detour detour) {
        return edits.isEmpty() ? planned : new Laying(planned, plane, pace, detour).laid(edits);
    }

    private static final class Laying {
        private final Passes planned;
        private final LocalPlane plane;
        private final Pace pace;
        private final Detour detour;
        private final Task task;
        private final Gaze gaze;
        private final Map<Integer, int[]> reach = new HashMap<>();
        private final List<Integer> dropped = new ArrayList<>();
        private final List<FlightBuilder.Photographed> added = new ArrayList<>();
        private final List<StripEdit> waiting = new ArrayList<>();

        Laying(Passes planned, LocalPlane plane, Pace pace, Detour detour) {
            this.planned = planned;
            this.plane = plane;
            this.pace = pace;
            this.detour = detour;
            this.task = planned.passes().get(0).task();
            this.gaze = planned.passes().get(0).pattern().gaze();
        }

        Passes laid(List<StripEdit> edits) {
            edits.forEach(this::take);
            Flight flight = FlightBuilder.amended(planned.flight(), pace, detour, this::amended, added);
            if (flight.lines().isEmpty()) {
                throw new InputFault("strip", "all dropped", "No strip is left. Take a change back, or add a strip.");
            }
            StripGrid.refuse(flight.exposures().size());
            return new Passes(planned.passes(), planned.asked(), flight, waiting);
        }

        private void take(StripEdit edit) {
            PlanePoint at = plane.toPlane(edit.at());
            if (edit.kind() == StripEdit.Kind.ADD) {
                added.add(line(at, plane.toPlane(edit.to().orElseThrow())));
                return;
            }
            Optional<Line> nearest = nearest(at);
            if (nearest.isEmpty()) {
                waiting.add(edit);
                return;
            }
            Line line = nearest.get();
            if (edit.kind() == StripEdit.Kind.DROP) {
                dropped.add(line.number());
                return;
            }
            int end = line.from().distanceM(at) <= line.to().distanceM(at) ? 0 : 1;
            reach.computeIfAbsent(line.number(), number -> new int[2])[end] += edit.photos();
        }

        private Optional<Line> nearest(PlanePoint at) {
            double least = task.spacingM() * NEAR;
            Line nearest = null;
            for (Line line : planned.flight().lines()) {
                if (line.pass() == 1 && away(line, at) < least) {
                    least = away(line, at);
                    nearest = line;
                }
            }
            return Optional.ofNullable(nearest);
        }

        private static double away(Line line, PlanePoint at) {
            double dx = line.to().xM() - line.from().xM();
            double dy = line.to().yM() - line.from().yM();
            double squared = dx * dx + dy * dy;
            double share = squared == 0
                    ? 0
                    : ((at.xM() - line.from().xM()) * dx
                                    + (at.yM() - line.from().yM()) * dy)
                            / squared;
            double held = Math.max(0, Math.min(1, share));
            return new PlanePoint(line.from().xM() + held * dx, line.from().yM() + held * dy).distanceM(at);
        }

        /** A line as it is flown then; empty where it is dropped, or shortened to nothing. */
        private Optional<FlightBuilder.Photographed> amended(Line line, FlightBuilder.Photographed as) {
            int[] by = reach.getOrDefault(line.number(), new int[2]);
            int count = as.count() + by[0] + by[1];
            if (dropped.contains(line.number()) || count < 1) {
                return Optional.empty();
            }
            double base = as.count() > 1 ? line.lengthM() / (as.count() - 1) : task.baseM();
            return Optional.of(new FlightBuilder.Photographed(
                    as.pass(),
                    as.from().moved(as.trackRad(), -by[0] * base),
                    as.to().moved(as.trackRad(), by[1] * base),
                    as.trackRad(),
                    as.upM(),
                    as.speedMps(),
                    as.lens(),
                    as.look(),
                    count));
        }

        private FlightBuilder.Photographed line(PlanePoint from, PlanePoint to) {
            double track = (from.bearingRad(to) + 2 * Math.PI) % (2 * Math.PI);
            double length = from.distanceM(to);
            return task.photographed(
                    1, from, from.moved(track, task.lineLengthM(length)), track, task.photosOver(length), gaze, pace);
        }
    }
}
