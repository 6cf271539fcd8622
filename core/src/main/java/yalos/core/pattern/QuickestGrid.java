package yalos.core.pattern;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.block.ReflexCuts;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Pace;
import yalos.core.flight.Timeline;
import yalos.core.geodesy.PlanePoint;
import yalos.core.wind.Wind;

/**
 * Parallel lines over a block in the least time: one sweep in its best direction, or, over an outline with reflex corners, holes or several parts, cells swept each in
 * its own, where that is quicker.
 *
 * <p>Cells come of parts that lie apart and of cuts through reflex corners along their edges, one after the other, as long as a cut saves time. Whether cells are taken at all is
 * decided by the whole flights, ways out and home included, so that cells are never slower.
 *
 * <p>KNOWN LIMITS: outlines of more than {@value #MOST_OUTLINE} corners are swept as one; cuts are tried one at a time, through at most {@value #MOST_CORNERS} corners, the sharpest; {@value #MOST_CELLS} cells at most.
 *
 * @param gaze which way the camera looks
 */
public record QuickestGrid(Gaze gaze) implements Pattern {
    private static final int MOST_OUTLINE = 400;
    private static final int MOST_CORNERS = 12;
    private static final int MOST_CELLS = 6;
    /** Cells whose orders are all tried. */
    private static final int ALL_ORDERS = 3;
    /** So much of the time a cut must save to be worth a second direction. */
    private static final double LEAST_SAVED = 0.01;

    /** Straight down. */
    public static final QuickestGrid NADIR = new QuickestGrid(Gaze.NADIR);

    @Override
    public Pattern decided(PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch) {
        StripGrid single = StripGrid.QUICKEST.looking(gaze).decided(block, task, pace, launch);
        boolean whole = block.parts().size() == 1 && ReflexCuts.of(block, 1).isEmpty();
        if (block.corners() > MOST_OUTLINE || whole) {
            return single;
        }
        Search search = new Search(task, pace);
        List<PlaneBlock> cells = search.cells(block);
        if (cells.size() < 2) {
            return single;
        }
        double alone = seconds(single, block, task, pace, launch);
        Pattern best = single;
        double least = alone * (1 - LEAST_SAVED);
        List<CellGrid.Cell> swept = cells.stream()
                .map(cell -> new CellGrid.Cell(
                        cell,
                        BestDirection.of(cell, task, pace, Optional.empty()).directionRad()))
                .toList();
        for (List<CellGrid.Cell> order : orders(swept, launch)) {
            CellGrid grid = new CellGrid(order, gaze);
            double takes = seconds(grid, block, task, pace, launch);
            if (takes < least) {
                least = takes;
                best = grid;
            }
        }
        return best;
    }

    private static double seconds(
            Pattern pattern, PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch) {
        FlightBuilder flight = new FlightBuilder(pace, launch);
        pattern.fly(block, task, 1, flight);
        return Timeline.of(flight.landed(), pace).totalS();
    }

    /** All orders of a few cells; of more, those by the nearest next, beginning with each. */
    private static List<List<CellGrid.Cell>> orders(List<CellGrid.Cell> cells, Optional<PlanePoint> launch) {
        List<List<CellGrid.Cell>> orders = new ArrayList<>();
        if (cells.size() <= ALL_ORDERS) {
            permute(new ArrayList<>(), cells, orders);
            return orders;
        }
        for (CellGrid.Cell first : cells) {
            List<CellGrid.Cell> order = new ArrayList<>(List.of(first));
            List<CellGrid.Cell> left = new ArrayList<>(cells);
            left.remove(first);
            while (!left.isEmpty()) {
                PlanePoint here = middle(order.get(order.size() - 1));
                CellGrid.Cell next = left.stream()
                        .min(Comparator.comparingDouble(cell -> middle(cell).distanceM(here)))
                        .orElseThrow();
                order.add(next);
                left.remove(next);
            }
            orders.add(order);
        }
        return orders;
    }

    private static PlanePoint middle(CellGrid.Cell cell) {
        return cell.block().bounds().middle();
    }

    private static void permute(
            List<CellGrid.Cell> chosen, List<CellGrid.Cell> cells, List<List<CellGrid.Cell>> orders) {
        if (chosen.size() == cells.size()) {
            orders.add(List.copyOf(chosen));
            return;
        }
        for (CellGrid.Cell cell : cells) {
            if (!chosen.contains(cell)) {
                chosen.add(cell);
                permute(chosen, cells, orders);
                chosen.remove(chosen.size() - 1);
            }
        }
    }

    @Override
    public void refuseFarTooMany(PlaneBlock block, Task task) {
        StripGrid.QUICKEST.refuseFarTooMany(block, task);
    }

    @Override
    public void fly(PlaneBlock block, Task task, int pass, FlightBuilder flight) {
        throw new IllegalStateException("the pattern is not decided");
    }

    @Override
    public OptionalDouble directionRad() {
        return OptionalDouble.empty();
    }

    @Override
    public List<School> inWind(Wind wind) {
        return StripGrid.QUICKEST.looking(gaze).inWind(wind);
    }

    @Override
    public Pattern across() {
        throw new IllegalStateException("the pattern is not decided");
    }

    @Override
    public QuickestGrid looking(Gaze otherwise) {
        return new QuickestGrid(otherwise);
    }

    /** Looks for cuts that save time, each cell by itself and without ways out and home. */
    private static final class Search {
        private final Task task;
        private final Pace pace;

        Search(Task task, Pace pace) {
            this.task = task;
            this.pace = pace;
        }

        List<PlaneBlock> cells(PlaneBlock block) {
            List<PlaneBlock> cells = new ArrayList<>(block.parts());
            for (boolean cut = true; cut && cells.size() < MOST_CELLS; ) {
                cut = false;
                for (PlaneBlock cell : List.copyOf(cells)) {
                    Optional<List<PlaneBlock>> parts = bestCut(cell);
                    if (parts.isPresent() && cells.size() + parts.get().size() - 1 <= MOST_CELLS) {
                        cells.remove(cell);
                        cells.addAll(parts.get());
                        cut = true;
                    }
                }
            }
            return cells;
        }

        private Optional<List<PlaneBlock>> bestCut(PlaneBlock cell) {
            double least = BestDirection.quick(cell, task, pace) * (1 - LEAST_SAVED);
            List<PlaneBlock> best = null;
            for (ReflexCuts.Cut cut : ReflexCuts.of(cell, MOST_CORNERS)) {
                List<PlaneBlock> parts = ReflexCuts.cut(cell, cut);
                if (parts.size() < 2 || parts.stream().anyMatch(this::sliver)) {
                    continue;
                }
                double takes = between(parts);
                for (PlaneBlock part : parts) {
                    takes += takes < least ? BestDirection.quick(part, task, pace) : 0;
                }
                if (takes < least) {
                    least = takes;
                    best = parts;
                }
            }
            return Optional.ofNullable(best);
        }

        /** About the way from one part to the next. */
        private double between(List<PlaneBlock> parts) {
            return (parts.size() - 1) * pace.standToStandS(2 * task.spacingM(), 0, task.speedMps());
        }

        private boolean sliver(PlaneBlock part) {
            return part.areaM2() < task.spacingM() * task.spacingM() / 2;
        }
    }
}
