package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;

import java.util.List;
import yalos.core.brief.Site;
import yalos.core.geodesy.Bounds;
import yalos.core.height.HeightPlan;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.KnownGround;
import yalos.core.proof.Shares;
import yalos.core.terrain.Holes.Hole;
import yalos.core.units.UnitKind;

/** How much of the ground under a plan is known, and from what? */
final class ModelFindings {
    private static final double LITTLE_UNKNOWN = 0.002;
    /** Wider holes are not offered to be spanned: a hill or a mast could stand in them unseen. */
    private static final double WIDEST_SPAN_M = 60;

    static final List<Rule> RULES = List.of(ModelFindings::noModel, ModelFindings::missing);

    private ModelFindings() {}

    private static void noModel(Case one, Collected found) {
        if (one.plan().overGround().isEmpty()
                && one.brief().site().difficulties().contains(Site.Difficulty.RELIEF)) {
            found.add(
                    MIND,
                    "no-model",
                    "The brief names wide relief, and the plan stands on level ground: 0 elevation models are loaded. Bring one in on the Ground stage.");
        }
    }

    private static void missing(Case one, Collected found) {
        one.plan().overGround().ifPresent(over -> missing(one.plan(), over, found));
    }

    private static void missing(BlockPlan plan, KnownGround over, Collected found) {
        if (over.heights().isEmpty()) {
            nothingKnown(plan, over, found);
        } else if (over.unknownInside() > 0 || over.leftOut() > 0) {
            found.addAt(
                    STOP,
                    "model-ends",
                    "%s of the block and %s stand on ground that no model knows; they are left out of the plan. %sHeights are not guessed: bring in a model that covers the block and %s round it."
                            .formatted(
                                    Shares.percent(over.unknownInside()),
                                    over.leftOut() == 1 ? "1 photo" : "%,d photos".formatted(over.leftOut()),
                                    crossing(over, found),
                                    buffer(plan, over, found)),
                    over.unknownPlace().orElse(plan.flight().lines().get(0).from()),
                    spanning(over, found));
        } else if (over.unknownAround() > LITTLE_UNKNOWN) {
            found.add(
                    MIND,
                    "model-buffer",
                    "%s of the ground within %s round the block is unknown. %sWhat stands there is not seen, and turns are not checked over it."
                            .formatted(
                                    Shares.percent(over.unknownAround()),
                                    buffer(plan, over, found),
                                    crossing(over, found)));
        }
        if (over.takeOff() == KnownGround.TakeOff.UNKNOWN && over.heights().isPresent()) {
            found.add(
                    STOP,
                    "take-off-unknown",
                    "Heights above take-off are not known: the launch point lies where no model reaches. Measure its level and type it below “Flying height”, or move it; files leave those heights empty.");
        }
        if (over.takeOff() == KnownGround.TakeOff.FIRST_PHOTO && over.heights().isPresent()) {
            found.add(
                    MIND,
                    "no-launch",
                    "0 launch points are set: heights above take-off count from the ground below the first photo. Set one, and they count from there.");
        }
        spanned(over, found);
    }

    private static void nothingKnown(BlockPlan plan, KnownGround over, Collected found) {
        boolean takeOff = over.takeOff() == KnownGround.TakeOff.UNKNOWN && over.leftOut() < plan.photos();
        found.add(
                STOP,
                "model-ends",
                takeOff
                        ? "No height is known: they count from the take-off, and the launch point lies where no model reaches. Measure its level, move it, or keep another height constant."
                        : "0 of %,d photos stand on ground that a model knows; no height is planned. Bring in a model that covers the block and %s round it."
                                .formatted(plan.photos(), buffer(plan, over, found)));
    }

    private static String crossing(KnownGround over, Collected found) {
        double unknown = over.heights().map(HeightPlan::unknownM).orElse(0.0);
        return unknown < 1
                ? ""
                : "The path still crosses %s of it, at heights nobody has checked. "
                        .formatted(found.text(UnitKind.DISTANCE, unknown));
    }

    /** Offered only where every hole is small; what is missing at the model's end cannot be spanned. */
    private static List<Remedy> spanning(KnownGround over, Collected found) {
        List<Hole> holes = over.surveyed().open();
        double widest = holes.stream().mapToDouble(Hole::widthM).max().orElse(0);
        if (holes.isEmpty() || widest > WIDEST_SPAN_M) {
            return List.of();
        }
        double rim = holes.stream().mapToDouble(Hole::rimRangeM).max().orElse(0);
        String label = "Span %s up to %s wide, rims %s apart in height"
                .formatted(
                        holes.size() == 1 ? "1 hole" : holes.size() + " holes",
                        found.text(UnitKind.DISTANCE, widest),
                        found.height(rim));
        return List.of(new Remedy(label, new Remedy.Span(Math.ceil(widest))));
    }

    private static void spanned(KnownGround over, Collected found) {
        List<Hole> holes = over.surveyed().spanned();
        if (!holes.isEmpty()) {
            found.add(
                    MIND,
                    "holes-spanned",
                    "%s of ground are spanned over %s, by your consent. Their heights are reckoned from the rims, which differ by up to %s; what stands in them nobody knows."
                            .formatted(
                                    found.units()
                                            .areaText(holes.stream()
                                                    .mapToDouble(Hole::areaM2)
                                                    .sum()),
                                    holes.size() == 1 ? "1 hole" : holes.size() + " holes",
                                    found.height(holes.stream()
                                            .mapToDouble(Hole::rimRangeM)
                                            .max()
                                            .orElse(0))));
        }
    }

    private static String buffer(BlockPlan plan, KnownGround over, Collected found) {
        double east = over.grid().east() - over.grid().west();
        Bounds bounds = plan.block().bounds();
        return found.text(UnitKind.DISTANCE, Math.max(0, (east - bounds.width()) / 2));
    }
}
