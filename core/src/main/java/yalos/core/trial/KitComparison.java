package yalos.core.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.camera.Camera;
import yalos.core.fault.InputFault;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.Design;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** What would this block cost with other kits, at the same GSD or at the same height? True plans, each. */
public final class KitComparison {
    private KitComparison() {}

    /** What is held equal. */
    public enum Equal {
        GSD("GSD", Quantity.GSD),
        HEIGHT("height", Quantity.HEIGHT);

        private final String words;
        private final Quantity quantity;

        Equal(String words, Quantity quantity) {
            this.words = words;
            this.quantity = quantity;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }
    }

    /** A kit with its plan, or why it has none. */
    public record Column(Kit kit, Optional<BlockPlan> plan, String fault) {}

    /** One column for each kit, in the order given, with the overlaps of the plan. */
    public static List<Column> of(BlockPlan plan, List<Kit> kits, Equal equal) {
        Design design = plan.design();
        double held =
                equal == Equal.GSD ? design.scale().gsdM() : design.scale().heightM();
        Pins pins = plan.solution()
                .pins()
                .withoutCosts()
                .with(equal.quantity, Measure.of(held, Unit.METRE))
                .with(Quantity.FORWARD_OVERLAP, percent(design.forwardOverlap()))
                .with(Quantity.SIDE_OVERLAP, percent(design.sideOverlap()));
        List<Column> columns = new ArrayList<>();
        for (Kit kit : kits) {
            try {
                PlanRequest request = plan.request().with(kit).with(pins);
                columns.add(new Column(kit, Optional.of(BlockPlan.over(plan.block(), request)), ""));
            } catch (InputFault fault) {
                columns.add(new Column(kit, Optional.empty(), fault.getMessage()));
            }
        }
        return columns;
    }

    private static Measure percent(double share) {
        return Measure.of(share * 100, Unit.PERCENT);
    }

    /**
     * Why one camera flies higher than another at the same GSD: the height is {@code GSD · f · n / w}, so the ratio of heights
     * is the product of three ratios.
     *
     * @param focal longer lens
     * @param pixels more pixels across
     * @param sensor smaller sensor, inverted
     */
    public record HeightRatio(double focal, double pixels, double sensor) {
        /** The ratio of heights: the product of the three. */
        public double height() {
            return focal * pixels * sensor;
        }
    }

    /** How many times as high the second camera flies as the first, in its parts. */
    public static HeightRatio heightRatio(Camera first, Camera second) {
        double pixels = (double) second.sensor().pixelsWide() / first.sensor().pixelsWide();
        double focal = second.focalLengthM() / first.focalLengthM();
        double height = focal * first.pitchM() / second.pitchM();
        return new HeightRatio(focal, pixels, height / focal / pixels);
    }
}
