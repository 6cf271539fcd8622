package yalos.core.trial;

import java.util.function.Predicate;
import yalos.core.camera.GroundScale;
import yalos.core.flight.Line;
import yalos.core.flight.Pace;
import yalos.core.pattern.StructureFlight;
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

    /**
     * What the wind does on one line.
     *
     * @param groundMps speed over the ground; 0 where the wind forbids the line
     * @param crabRad angle between nose and track
     * @param intervalS between two photos; not a number for a single one
     * @param blurPx motion blur at that speed
     */
    public record OfLine(double groundMps, double crabRad, double intervalS, double blurPx) {}

    /** On one line of a plan, of whatever pass. */
    public static OfLine of(BlockPlan plan, Line line) {
        double ground = plan.timeline().pace().groundMps(line.trackRad(), line.speedMps());
        double base = line.exposures() < 2 ? Double.NaN : line.lengthM() / (line.exposures() - 1);
        double gsdM = gsdM(plan, line.pass());
        return new OfLine(
                ground,
                crab(plan, line, ground),
                base / ground,
                ground * plan.design().shutterTimeS() / gsdM);
    }

    /** GSD along the flight of a pass over the ground, or square to the faces it is flown round. */
    private static double gsdM(BlockPlan plan, int pass) {
        return plan.structures()
                .flatMap(objects -> objects.pass(pass))
                .map(StructureFlight.OfPass::gsdM)
                .orElseGet(() -> new GroundScale(
                                plan.request().camera(),
                                plan.passes().passes().get(pass - 1).task().heightM())
                        .gsdAlongM());
    }

    private static double crab(BlockPlan plan, Line line, double groundMps) {
        double airspeed = Math.max(1e-9, plan.timeline().pace().airspeedMps(line.trackRad(), groundMps));
        return plan.wind()
                .map(wind -> Math.abs(wind.crabRad(line.trackRad(), airspeed).orElse(Double.NaN)))
                .orElse(0.0);
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
            slow = Math.min(slow, ground);
            fast = Math.max(fast, ground);
            crab = Math.max(crab, crab(plan, line, ground));
        }
        return new LineSpeeds(slow, fast, crab);
    }
}
