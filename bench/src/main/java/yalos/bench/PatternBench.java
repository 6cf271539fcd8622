package yalos.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.block.ReflexCuts;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Kit;
import yalos.core.pattern.CellGrid;
import yalos.core.pattern.Pass;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.StripGrid;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * Flight times over 1,000 random outlines with reflex corners, one in three with a hole: against the least that could be, area over strip spacing and
 * speed, and against one sweep in its best direction. Seeded, so that every run flies the same.
 *
 * @param mean of flight time over the least possible
 * @param worst of the same
 * @param single mean of the same for one sweep
 * @param saved mean share of the one sweep's time that is saved where cells are taken
 * @param cells outlines that are flown in cells
 * @param slower outlines that are slower than one sweep: none may be
 * @param planMs of a plan, mean
 * @param singleMs of planning one sweep
 */
record PatternBench(
        double mean, double worst, double single, double saved, int cells, int slower, double planMs, double singleMs) {
    private static final Grid GRID = Grid.ofEpsg(32630);
    private static final int OUTLINES = 1000;

    /** How outlines are drawn. */
    enum Drawn {
        /** Arms of different lengths and widths, or a star; of 3 to 20 ha. */
        STARS,
        /** A trunk with one or two wings square to it, as fields round a farm or a village have them; of 3 to 20 ha. */
        WINGS
    }

    /**
     * @param turns how a multirotor gets from one line into the next
     */
    static PatternBench measure(Patterns.Turns turns, Drawn drawn) {
        Random random = new Random(1);
        double sum = 0;
        double worst = 0;
        double singles = 0;
        double saved = 0;
        int cells = 0;
        int slower = 0;
        int flown = 0;
        long planNs = 0;
        long singleNs = 0;
        Kit kit = Samples.squareKilometre().kit();
        while (flown < OUTLINES) {
            Outline outline = drawn == Drawn.STARS ? star(random) : wings(random);
            PlanRequest request = new PlanRequest(kit, Pins.ofGsd(2), outline, Optional.empty(), OptionalInt.of(32630))
                    .with(Patterns.SINGLE.turning(turns));
            try {
                if (ReflexCuts.of(PlaneBlock.of(outline, GRID), 1).isEmpty()) {
                    continue;
                }
                long start = System.nanoTime();
                BlockPlan plan = request.plan();
                planNs += System.nanoTime() - start;
                start = System.nanoTime();
                BlockPlan single =
                        plan.flown(new Pass(StripGrid.QUICKEST, plan.mainPass().task()));
                singleNs += System.nanoTime() - start;
                double least = plan.block().areaM2()
                        / plan.design().spacingM()
                        / plan.design().speedMps();
                double time = plan.timeline().totalS();
                double alone = single.timeline().totalS();
                sum += time / least;
                worst = Math.max(worst, time / least);
                singles += alone / least;
                slower += time > alone + 1e-6 ? 1 : 0;
                if (plan.mainPass().pattern() instanceof CellGrid) {
                    cells++;
                    saved += 1 - time / alone;
                }
                flown++;
            } catch (InputFault crossing) {
                // A random outline that crosses itself is no outline.
            }
        }
        return new PatternBench(
                sum / flown,
                worst,
                singles / flown,
                cells == 0 ? 0 : saved / cells,
                cells,
                slower,
                planNs / 1e6 / flown,
                singleNs / 1e6 / flown);
    }

    /** Milliseconds to plan a block of about 50,000 stations with a fixed direction; the best of three. */
    static double hugeMs(boolean bound) {
        PlanRequest request = Samples.squareKilometre();
        Pins pins = Pins.ofGsd(0.38).with(Quantity.DIRECTION, Measure.of(30, Unit.DEGREE));
        double best = Double.POSITIVE_INFINITY;
        for (int i = 0; i < 3; i++) {
            long start = System.nanoTime();
            int photos = request.with(bound ? pins : Pins.ofGsd(2)).plan().photos();
            best = photos > 0 ? Math.min(best, (System.nanoTime() - start) / 1e6) : best;
        }
        return best;
    }

    /** An L, a T or a U: a trunk along one axis, wings to one side of it, turned by any angle. */
    private static Outline wings(Random random) {
        double trunk = 250 + 250 * random.nextDouble();
        double wide = 60 + 60 * random.nextDouble();
        double wing = 60 + 60 * random.nextDouble();
        double reach = wide + 120 + 280 * random.nextDouble();
        double at = random.nextBoolean() ? 0 : (trunk - wing) * random.nextDouble();
        boolean two = at == 0 && random.nextBoolean();
        double[] xs = two
                ? new double[] {0, trunk, trunk, trunk - wing, trunk - wing, wing, wing, 0}
                : new double[] {0, trunk, trunk, at + wing, at + wing, at, at, 0};
        double[] ys = two
                ? new double[] {0, 0, reach, reach, wide, wide, reach, reach}
                : new double[] {0, 0, wide, wide, reach, reach, wide, wide};
        double turned = 2 * Math.PI * random.nextDouble();
        List<LonLat> ring = new ArrayList<>();
        for (int i = 0; i < xs.length; i++) {
            boolean twice = i > 0 && xs[i] == xs[i - 1] && ys[i] == ys[i - 1];
            if (!twice) {
                ring.add(at(
                        xs[i] * Math.cos(turned) - ys[i] * Math.sin(turned),
                        xs[i] * Math.sin(turned) + ys[i] * Math.cos(turned)));
            }
        }
        return new Outline(List.of(new Outline.Part(ring, List.of())));
    }

    private static Outline star(Random random) {
        List<LonLat> ring = new ArrayList<>();
        int corners = 5 + random.nextInt(9);
        for (int i = 0; i < corners; i++) {
            double angle = 2 * Math.PI * (i + 0.2 + 0.6 * random.nextDouble()) / corners;
            double radius = (i % 2 == 0 ? 90 : 220) + 180 * random.nextDouble();
            ring.add(at(radius * Math.sin(angle), radius * Math.cos(angle)));
        }
        List<List<LonLat>> holes = random.nextInt(3) > 0
                ? List.of()
                : List.of(List.of(at(-25, -20), at(25, -25), at(20, 25), at(-20, 20)));
        return new Outline(List.of(new Outline.Part(ring, holes)));
    }

    private static LonLat at(double east, double north) {
        return GRID.toLonLat(new EastNorth(412_700 + east, 6_041_600 + north));
    }
}
