package yalos.core.ledger;

import static yalos.core.pins.Quantity.*;

import java.util.Locale;
import yalos.core.camera.Camera;
import yalos.core.camera.GroundScale;
import yalos.core.pins.Overlaps;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.pins.ScaleFix;
import yalos.core.plan.BlockPlan;
import yalos.core.reason.Reason;
import yalos.core.units.Unit;

/** Why scale and overlaps of a plan are what they are: each follows from whatever of the others is pinned. */
final class ScaleReasons {
    static final String TEXTBOOK = "Wolf, Dewitt and Wilkinson, Elements of Photogrammetry (from memory)";

    private final BlockPlan plan;
    private final GroundScale scale;
    private final Camera camera;

    ScaleReasons(BlockPlan plan) {
        this.plan = plan;
        this.scale = plan.design().scale();
        this.camera = plan.request().camera();
    }

    Reason gsd() {
        return Reason.formula("GSD = p · H / f")
                .with("p", "pixel pitch", micrometres(camera.pitchM()))
                .with("H", "height above ground", scale.heightM(), Unit.METRE)
                .with("f", "focal length", camera.focalLengthM(), Unit.MILLIMETRE)
                .source(TEXTBOOK);
    }

    /** The height follows from whatever fixes the scale. */
    Reason height() {
        Pins pins = plan.solution().pins();
        return switch (pins.scaleFix().orElse(ScaleFix.SCALE)) {
            case SCALE ->
                Reason.formula("H = GSD · f / p")
                        .with("GSD", "ground sample distance", scale.gsdM(), Unit.CENTIMETRE)
                        .with("f", "focal length", camera.focalLengthM(), Unit.MILLIMETRE)
                        .with("p", "pixel pitch", micrometres(camera.pitchM()))
                        .source(TEXTBOOK);
            case ACROSS ->
                fromStep("H = S / (1 − q) · f / s", "S", STRIP_SPACING, "q", SIDE_OVERLAP, camera.sideAcrossM());
            case ALONG -> fromStep("H = B / (1 − o) · f / s", "B", AIR_BASE, "o", FORWARD_OVERLAP, camera.sideAlongM());
            case PACE ->
                Reason.formula("H = v t / (1 − o) · f / s")
                        .with("v", "ground speed", pins.pinned(SPEED), Unit.METRE_PER_SECOND)
                        .with("t", "interval", pins.pinned(INTERVAL), Unit.SECOND)
                        .with("o", "forward overlap", pins.pinned(FORWARD_OVERLAP), Unit.PERCENT)
                        .with("f", "focal length", camera.focalLengthM(), Unit.MILLIMETRE)
                        .with("s", "sensor side", camera.sideAlongM(), Unit.MILLIMETRE)
                        .source(TEXTBOOK);
        };
    }

    private Reason fromStep(
            String formula, String stepSymbol, Quantity step, String shareSymbol, Quantity share, double sideM) {
        Pins pins = plan.solution().pins();
        return Reason.formula(formula)
                .with(stepSymbol, step.label().toLowerCase(Locale.ROOT), pins.pinned(step), Unit.METRE)
                .with(shareSymbol, "overlap", pins.pinned(share), Unit.PERCENT)
                .with("f", "focal length", camera.focalLengthM(), Unit.MILLIMETRE)
                .with("s", "sensor side", sideM, Unit.MILLIMETRE)
                .source(TEXTBOOK);
    }

    /** A side of the footprint from the side of the sensor. */
    Reason footprint(String symbol, double sideM) {
        return Reason.formula(symbol + " = s · H / f")
                .with("s", "sensor side", sideM, Unit.MILLIMETRE)
                .with("H", "height above ground", scale.heightM(), Unit.METRE)
                .with("f", "focal length", camera.focalLengthM(), Unit.MILLIMETRE)
                .source(TEXTBOOK);
    }

    /** An overlap follows from a pinned step; otherwise it is the default. */
    Reason overlap(Quantity step, String formula, String s1, double stepM, String s2, double footprintM) {
        boolean byPace = step == AIR_BASE
                && plan.request().pins().has(SPEED)
                && plan.request().pins().has(INTERVAL);
        if (!plan.request().pins().has(step) && !byPace) {
            boolean corridor = plan.request().patterns().corridor().isPresent();
            return Reason.byDefault("usual for %s; %s is the least, more over snow, sand, water and crops"
                    .formatted(corridor ? "corridors" : "mapping", Overlaps.LEAST.words()));
        }
        return Reason.formula(formula)
                .with(s1, step.label().toLowerCase(Locale.ROOT), stepM, Unit.METRE)
                .with(s2, "footprint", footprintM, Unit.METRE)
                .source(TEXTBOOK);
    }

    private static String micrometres(double m) {
        return String.format(Locale.ROOT, "%.3f µm", m * 1e6);
    }
}
