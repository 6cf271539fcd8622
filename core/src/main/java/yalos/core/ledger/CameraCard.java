package yalos.core.ledger;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import yalos.core.camera.Camera;
import yalos.core.camera.Shutter;
import yalos.core.pins.Defaults;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** How is the camera to be set for this plan? The shutter from speed, GSD and blur limit; the rest common practice. */
public final class CameraCard {
    private static final double[][] ASPECTS = {{4, 3}, {3, 2}, {16, 9}, {1, 1}};

    private final BlockPlan plan;
    private final UnitChoice units;
    private final List<Line> lines = new ArrayList<>();

    private CameraCard(BlockPlan plan, UnitChoice units) {
        this.plan = plan;
        this.units = units;
    }

    /** One setting. */
    public record Line(String setting, String value, String why) {}

    /** How the camera is to be set, line by line, in the operator's units. */
    public static List<Line> of(BlockPlan plan, UnitChoice units) {
        CameraCard card = new CameraCard(plan, units);
        card.exposure();
        card.focus();
        card.frame();
        card.files();
        card.mount();
        return card.lines;
    }

    /** Longest exposure that keeps the blur within the plan's limit at the plan's speed, in seconds. */
    public static double longestShutterS(BlockPlan plan) {
        double blur = plan.request().pins().siOr(Quantity.BLUR, Defaults.BLUR_PX);
        return blur * plan.design().scale().gsdAlongM() / plan.design().speedMps();
    }

    private void exposure() {
        double longest = longestShutterS(plan);
        line("release", "single photos", "one release at each station, no bursts");
        line("mode", "shutter priority, exposure not locked", "light changes over the flight; the time must not");
        line(
                "shutter time",
                "1/" + (int) Math.ceil(1 / longest - 1e-9) + " s or shorter",
                "t = b · GSD / v: %s px, %s, %s"
                        .formatted(
                                units.figure(
                                        UnitKind.PIXELS, plan.request().pins().siOr(Quantity.BLUR, 0.5)),
                                units.text(UnitKind.GSD, plan.design().scale().gsdAlongM()),
                                units.text(UnitKind.SPEED, plan.design().speedMps())));
        Shutter shutter = camera().shutter();
        line(
                "shutter",
                shutter.kind() == Shutter.Kind.ROLLING
                        ? "rolling: fly slowly"
                        : shutter.kind().words(),
                shutter.kind() == Shutter.Kind.ROLLING
                        ? "rows are read over %.0f ms, in which the aircraft moves %.1f px"
                                .formatted(shutter.readoutS() * 1000, rollingPx(plan))
                        : "the whole image at once; never an electronic shutter where there is a choice");
    }

    /** Pixels the aircraft moves between the first and the last row of a rolling shutter; 0 for other shutters. */
    public static double rollingPx(BlockPlan plan) {
        return plan.design().speedMps()
                * plan.request().camera().shutter().readoutS()
                / plan.design().scale().gsdAlongM();
    }

    private void focus() {
        line(
                "focus",
                "set once at "
                        + units.text(UnitKind.HEIGHT, plan.design().scale().heightM()) + ", then by hand",
                "blur by motion and blur by focus are two things; autofocus hunts between photos");
    }

    private void frame() {
        double wide = camera().sensor().pixelsWide();
        double high = camera().sensor().pixelsHigh();
        double own = wide / high;
        String name = "own";
        double nearest = 0.02;
        for (double[] aspect : ASPECTS) {
            double off = Math.abs(own / (aspect[0] / aspect[1]) - 1);
            if (off < nearest) {
                nearest = off;
                name = "%.0f:%.0f".formatted(aspect[0], aspect[1]);
            }
        }
        line("aspect ratio", name + ", the whole sensor", cropped(own));
        line("lens correction, sharpening", "off", "a corrected image hides the lens from its calibration");
    }

    /** What a 16:9 crop of the same sensor would do to the forward overlap. */
    private String cropped(double own) {
        double kept = own / (16.0 / 9);
        if (kept > 0.99) {
            return "it uses every pixel";
        }
        double overlap = 1 - plan.design().baseM() / (plan.design().scale().footprintAlongM() * kept);
        return String.format(
                Locale.ROOT,
                "16:9 would cut %.0f %% off, the forward overlap to %.0f %%",
                (1 - kept) * 100,
                overlap * 100);
    }

    private void files() {
        Camera.Storage storage = camera().storage();
        double interval = plan.design().intervalS();
        boolean raw = storage.hasRaw();
        boolean quickEnough = raw && storage.rawIntervalS() <= interval + 1e-9;
        line(
                "format",
                raw ? quickEnough ? "raw or JPEG" : "JPEG" : "as the camera writes",
                raw
                        ? "raw needs %.2f s between photos, the plan gives %.2f s"
                                .formatted(storage.rawIntervalS(), interval)
                        : "%.0f MB each, every %.2f s".formatted(storage.bytesPerPhoto() / 1e6, interval));
        line(
                "interval",
                units.text(UnitKind.INTERVAL, interval),
                "one photo every " + units.text(UnitKind.DISTANCE, plan.design().baseM())
                        + "; release by distance if it can");
    }

    private void mount() {
        line("camera tilt", "−90°, locked", "straight down here; elsewhere written 0° or 90°");
        line(
                "mounted",
                camera().sideAcrossM() >= camera().sideAlongM()
                        ? "long side across the strip"
                        : "short side across the strip",
                "footprint %s × %s"
                        .formatted(
                                units.figure(
                                        UnitKind.DISTANCE, plan.design().scale().footprintAcrossM()),
                                units.text(
                                        UnitKind.DISTANCE, plan.design().scale().footprintAlongM())));
    }

    private Camera camera() {
        return plan.request().camera();
    }

    private void line(String setting, String value, String why) {
        lines.add(new Line(setting, value, why));
    }
}
