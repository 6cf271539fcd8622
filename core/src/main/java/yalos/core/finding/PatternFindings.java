package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import yalos.core.height.HeightReference;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.TiltedPasses;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Measure;

/** What would a practitioner say about the patterns a block is flown in? */
final class PatternFindings {
    private final BlockPlan plan;
    private final Patterns patterns;
    private final Collected found;

    static final List<Rule> RULES = Rule.all(
            PatternFindings::new,
            List.<Consumer<PatternFindings>>of(
                    PatternFindings::noseHeldByAWing,
                    PatternFindings::tiltedWhileFollowing,
                    PatternFindings::directionOfACorridor,
                    PatternFindings::twoHeights,
                    PatternFindings::wingLooksAhead));

    private PatternFindings(Case one, Collected found) {
        this.plan = one.plan();
        this.patterns = plan.request().patterns();
        this.found = found;
    }

    private boolean wing() {
        return plan.request().aircraft().kind().wing();
    }

    private Optional<TiltedPasses> tilted() {
        return patterns.added().stream()
                .filter(TiltedPasses.class::isInstance)
                .map(TiltedPasses.class::cast)
                .findFirst();
    }

    private void noseHeldByAWing() {
        if (wing() && patterns.heading().isPresent()) {
            found.add(
                    STOP,
                    "nose-held",
                    "The nose is to be held to %s, and a wing flies where its nose points. Let it point along the strips."
                            .formatted(patterns.heading().get().asTyped()));
        }
    }

    private void tiltedWhileFollowing() {
        boolean follows = plan.heights()
                .filter(heights -> heights.choice().reference() == HeightReference.FOLLOW)
                .isPresent();
        if (follows && tilted().isPresent()) {
            found.add(
                    NOTE,
                    "tilted-following",
                    "%d passes are tilted and follow the ground. Some aircraft cannot do both at once; check yours."
                            .formatted(tilted().get().looks().size()));
        }
    }

    private void directionOfACorridor() {
        Optional<Measure> pinned = plan.request().pins().of(Quantity.DIRECTION);
        if (patterns.corridor().isPresent() && pinned.isPresent()) {
            found.add(
                    NOTE,
                    "direction-unused",
                    "Direction %s stays pinned and is not used: a corridor follows its axis. It counts again for an area."
                            .formatted(pinned.get().asTyped()));
        }
    }

    private void twoHeights() {
        double main = plan.design().scale().heightM();
        patterns.added().stream()
                .filter(Crossing.class::isInstance)
                .flatMap(pass -> pass.own().height().stream())
                .filter(height -> Math.abs(height.si() - main) > 0.05 * main)
                .findFirst()
                .ifPresent(height -> found.add(
                        NOTE,
                        "two-heights",
                        "Two heights, %s and %s: they part the focal length from the height in an adjustment that solves for the lens (common practice)."
                                .formatted(found.height(main), found.height(height.si()))));
    }

    private void wingLooksAhead() {
        if (wing() && tilted().isPresent()) {
            found.add(
                    NOTE,
                    "wing-tilted",
                    "A wing looks ahead on lines flown there and back: %d ways to look take lines half as far apart."
                            .formatted(tilted().get().looks().size()));
        }
    }
}
