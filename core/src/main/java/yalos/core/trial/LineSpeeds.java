package yalos.core.trial;

import java.util.function.Predicate;
import yalos.core.flight.Line;
import yalos.core.flight.Pace;
import yalos.core.plan.BlockPlan;

/**
 * What the wind to plan for does along a plan's lines.
 *
 * @param slowMps ground speed on the slowest
 * @param fastMps ground speed on the fastest
 * @param crabRad greatest angle between nose and track, 0 in still air; not a number where the wind forbids a line
 */
public record LineSpeeds(double slowMps, double fastMps, double crabRad) {
    /** Of the lines of all passes. */
    public static LineSpeeds of(BlockPlan plan) {
        return of(plan, line -> true);
    }

    /** Of the main pass's lines: an added pass may have another air base and GSD. */
    static LineSpeeds ofMainPass(BlockPlan plan) {
        return of(plan, line -> line.pass() == 1);
    }

    private static LineSpeeds of(BlockPlan plan, Predicate<Line> counted) {
        Pace pace = plan.timeline().pace();
        double slow = Double.POSITIVE_INFINITY;
        double fast = 0;
        double crab = 0;
        for (Line line : plan.flight().lines()) {
            if (!counted.test(line)) {
                continue;
            }
            double ground = pace.groundMps(line.trackRad(), line.speedMps());
            double airspeed = Math.max(1e-9, pace.airspeedMps(line.trackRad(), ground));
            slow = Math.min(slow, ground);
            fast = Math.max(fast, ground);
            crab = Math.max(
                    crab,
                    plan.wind()
                            .map(wind -> Math.abs(
                                    wind.crabRad(line.trackRad(), airspeed).orElse(Double.NaN)))
                            .orElse(0.0));
        }
        return new LineSpeeds(slow, fast, crab);
    }
}
