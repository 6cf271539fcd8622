package yalos.bench;

import java.util.List;
import yalos.core.flight.Line;
import yalos.core.flight.Turn;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * A wing, whose turns depend on the order of its strips: what solving takes, and its order against all there are.
 *
 * @param solveMs the finest GSD that two battery sets fly over a concave block, its direction free
 * @param rotorMs the same for a multirotor
 * @param orderMs a whole plan of few strips, their order chosen
 * @param allMs every order and direction of as many strips tried
 * @param strips of that plan
 * @param turnsM all turns of its order
 * @param leastM the least of all orders
 */
record WingBench(
        double solveMs, double rotorMs, double orderMs, double allMs, int strips, double turnsM, double leastM) {
    private static final int ROUNDS = 5;

    static WingBench measure() {
        Kit wing = Kit.of(Aircraft.smallWing(), Samples.camera());
        PlanRequest solve = sets(Samples.block(false));
        PlanRequest few = Samples.squareKilometre()
                .with(wing)
                .with(Pins.ofGsd(8).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE)));
        BlockPlan plan = few.plan();
        List<Line> lines = plan.flight().lines();
        Orders orders = new Orders(plan);
        long start = System.nanoTime();
        double least = orders.least();
        double allMs = (System.nanoTime() - start) / 1e6;
        double turns = 0;
        for (int i = 1; i < lines.size(); i++) {
            Line before = lines.get(i - 1);
            turns += orders.between(before, false, lines.get(i), false);
        }
        return new WingBench(best(solve.with(wing)), best(solve), best(few), allMs, lines.size(), turns, least);
    }

    private static PlanRequest sets(PlanRequest request) {
        return request.with(request.pins().pinned(Quantity.BATTERY_SETS, Measure.of(2, Unit.COUNT)));
    }

    private static double best(PlanRequest request) {
        double best = Double.POSITIVE_INFINITY;
        for (int i = 0; i < ROUNDS; i++) {
            long start = System.nanoTime();
            int photos = request.plan().photos();
            best = photos > 0 ? Math.min(best, (System.nanoTime() - start) / 1e6) : best;
        }
        return best;
    }

    /** All orders and directions of a plan's lines, by plain enumeration. */
    private static final class Orders {
        private final double[][] turn;
        private final int lines;
        private final Aircraft aircraft;
        private final double speedMps;
        private double least = Double.POSITIVE_INFINITY;

        Orders(BlockPlan plan) {
            List<Line> flown = plan.flight().lines();
            lines = flown.size();
            aircraft = plan.request().aircraft();
            speedMps = plan.design().speedMps();
            turn = new double[2 * lines][2 * lines];
            for (int a = 0; a < 2 * lines; a++) {
                for (int b = 0; b < 2 * lines; b++) {
                    turn[a][b] =
                            a / 2 == b / 2 ? 0 : between(flown.get(a / 2), a % 2 == 1, flown.get(b / 2), b % 2 == 1);
                }
            }
        }

        private double between(Line from, boolean back, Line to, boolean toBack) {
            return new Turn(
                            back ? from.from() : from.to(),
                            back ? from.trackRad() + Math.PI : from.trackRad(),
                            toBack ? to.to() : to.from(),
                            toBack ? to.trackRad() + Math.PI : to.trackRad())
                    .lengthM(aircraft, speedMps);
        }

        double least() {
            for (int first = 0; first < 2 * lines; first++) {
                go(first, 1 << first / 2, 0);
            }
            return least;
        }

        private void go(int at, int flown, double turned) {
            if (flown == (1 << lines) - 1) {
                least = Math.min(least, turned);
                return;
            }
            for (int next = 0; next < 2 * lines; next++) {
                if ((flown >> next / 2 & 1) == 0) {
                    go(next, flown | 1 << next / 2, turned + turn[at][next]);
                }
            }
        }
    }
}
