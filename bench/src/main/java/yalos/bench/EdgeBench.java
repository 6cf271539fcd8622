package yalos.bench;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.flight.Pace;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.pattern.BestDirection;
import yalos.core.pattern.Task;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;

/** Outlines with very many corners: the time grows with the corners, not with their square. */
final class EdgeBench {
    private static final Grid GRID = Grid.ofEpsg(32630);

    private EdgeBench() {}

    /** Milliseconds to find the best direction over a wavy coast of so many corners; the best of three. */
    static double bestDirectionMs(int corners) {
        PlanRequest request = Samples.squareKilometre();
        PlanRequest wavy =
                new PlanRequest(request.kit(), request.pins(), coast(corners), Optional.empty(), OptionalInt.of(32630));
        BlockPlan plan = wavy.plan();
        Task task = plan.mainPass().task();
        PlaneBlock block = plan.covered();
        Pace pace = new Pace(Aircraft.smallMultirotor(), Optional.empty());
        return IntStream.range(0, 3)
                .mapToDouble(i -> {
                    long start = System.nanoTime();
                    BestDirection.of(block, task, pace, Optional.empty());
                    return (System.nanoTime() - start) / 1e6;
                })
                .min()
                .orElseThrow();
    }

    private static Outline coast(int corners) {
        List<LonLat> ring = IntStream.range(0, corners)
                .mapToObj(i -> {
                    double angle = 2 * Math.PI * i / corners;
                    double radius = 500 + 40 * Math.sin(9 * angle) + 3 * Math.sin(i * 2.1);
                    return GRID.toLonLat(
                            new EastNorth(412_700 + radius * Math.sin(angle), 6_041_600 + radius * Math.cos(angle)));
                })
                .toList();
        return new Outline(List.of(new Outline.Part(ring, List.of())));
    }
}
