package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Consumer;
import yalos.core.flight.Alignment;
import yalos.core.flight.Arc;
import yalos.core.flight.Turn;
import yalos.core.height.HeightReference;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.DirectionBy;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.TiltedPasses;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.trial.Directions;
import yalos.core.units.Measure;
import yalos.core.units.UnitKind;
import yalos.core.wind.Wind;

/** What would a practitioner say about the patterns a block is flown in? */
final class PatternFindings {
    /** Directions that differ by less are the same. */
    private static final double TURNED_RAD = Math.toRadians(2);

    private final BlockPlan plan;
    private final Patterns patterns;
    private final Collected found;

    static final List<Rule> RULES = Rule.all(
            PatternFindings::new,
            List.<Consumer<PatternFindings>>of(
                    PatternFindings::passAboveTheCeiling,
                    PatternFindings::noseHeldByAWing,
                    PatternFindings::tiltedWhileFollowing,
                    PatternFindings::directionOfACorridor,
                    PatternFindings::twoHeights,
                    PatternFindings::wingLooksAhead,
                    PatternFindings::alignment,
                    PatternFindings::turnsInside,
                    PatternFindings::turnsRounded,
                    PatternFindings::changesThatWait,
                    PatternFindings::weakWind,
                    PatternFindings::directionAskedAgain));

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

    /** Over level ground; over real ground the whole path is held against the ceiling. */
    private void passAboveTheCeiling() {
        double ceiling = plan.ceilingM();
        patterns.added().stream()
                .filter(pass -> pass.own().height().isPresent())
                .filter(pass -> pass.own().height().get().si() > ceiling + 1e-6
                        && plan.heights().isEmpty())
                .findFirst()
                .ifPresent(pass -> found.add(
                        STOP,
                        "pass-ceiling",
                        "%s is flown at %s above ground, over your ceiling of %s. Check your local rules, and give the pass another height."
                                .formatted(
                                        Character.toUpperCase(pass.words().charAt(0))
                                                + pass.words().substring(1),
                                        found.height(pass.own().height().get().si()),
                                        found.height(ceiling))));
    }

    private void turnsInside() {
        if (patterns.turns().inside() && wing() && patterns.corridor().isEmpty()) {
            found.add(
                    MIND,
                    "turns-inside",
                    "Turns are kept inside the outline: strips end about %s before its edge, and what lies there is seen less. Proof shows how much."
                            .formatted(found.text(
                                    UnitKind.DISTANCE,
                                    Turn.beyondM(
                                            plan.request().aircraft(),
                                            plan.design().speedMps()))));
        }
    }

    /** Files hold strips, not the ways between: how it turns is set on the aircraft. */
    private void turnsRounded() {
        if (!plan.timeline().pace().rounding()) {
            return;
        }
        double reach = plan.flight().legs().stream()
                .filter(Arc.class::isInstance)
                .mapToDouble(leg -> ((Arc) leg).radiusM())
                .max()
                .orElse(0);
        double saved = plan.timeline().roundingSavesS();
        if (reach > 0 && saved > 0) {
            found.add(
                    NOTE,
                    "turns-rounded",
                    "Turns are rounded, up to %s beyond the strips. Files hold strips, not turns: set the aircraft so; turning square it takes about %s longer."
                            .formatted(found.text(UnitKind.DISTANCE, reach), found.text(UnitKind.DURATION, saved)));
        }
    }

    /** A lidar's inertial unit settles before mapping and is checked after it. */
    private void alignment() {
        boolean lidar = plan.request().kit().payload().scannerLeads();
        Optional<Alignment> alignment = plan.flight().alignment();
        if (lidar && alignment.isEmpty()) {
            found.add(
                    MIND,
                    "no-alignment",
                    "Nothing aligns the lidar before and after: 30 s still on the ground, figure-eights, a straight run are common practice. Add “lidar alignment” in Passes, or do it by hand.");
        }
        alignment.ifPresent(there -> {
            Alignment.Room room =
                    there.room(plan.request().aircraft(), plan.design().speedMps());
            found.add(
                    NOTE,
                    "alignment-room",
                    "The alignment needs %s by %s of clear air before the first strip and after the last; look at both places."
                            .formatted(
                                    found.text(UnitKind.DISTANCE, room.alongM()),
                                    found.text(UnitKind.DISTANCE, room.acrossM())));
        });
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

    private void changesThatWait() {
        int waiting = plan.passes().waiting().size();
        if (waiting > 0) {
            found.add(
                    NOTE,
                    "changes-wait",
                    waiting == 1
                            ? "A change made to a strip by hand finds no strip near its place now and waits. Take it back, or make it anew."
                            : "%d changes made to strips by hand find no strip near their place now and wait. Take them back, or make them anew."
                                    .formatted(waiting));
        }
    }

    private void weakWind() {
        double aloft = plan.windAloftMps();
        boolean typed = aloft > 0 && plan.request().pins().has(Quantity.WIND_FROM);
        if (typed && plan.wind().isEmpty()) {
            found.add(
                    NOTE,
                    "wind-weak",
                    "A wind of %s is not reckoned with: below %s what is shortest is flown (common practice)."
                            .formatted(
                                    found.text(Quantity.WIND, aloft), found.text(Quantity.WIND, Wind.NEGLIGIBLE_MPS)));
        }
    }

    /** A direction chosen for a reason is asked for again: the wind of the day, another outline or ground may turn it. */
    private void directionAskedAgain() {
        Optional<DirectionBy> by = patterns.direction();
        OptionalDouble pinned = plan.request().pins().si(Quantity.DIRECTION);
        if (by.isEmpty()
                || by.get() == DirectionBy.FIXED
                || pinned.isEmpty()
                || patterns.corridor().isPresent()) {
            return;
        }
        OptionalDouble now = Directions.asked(plan, by.get());
        if (now.isEmpty()
                || Math.abs(Math.IEEEremainder(now.getAsDouble() - pinned.getAsDouble(), Math.PI)) < TURNED_RAD) {
            return;
        }
        if (!Double.isFinite(plan.flightTimeS())) {
            return;
        }
        double saved = plan.flightTimeS()
                - Directions.row(plan, by.get(), now.getAsDouble()).flightTimeS();
        found.add(
                NOTE,
                "direction-again",
                "Strips were laid %s, at %s. Asked again that is %s now, %s %s."
                        .formatted(
                                by.get().words(),
                                found.text(Quantity.DIRECTION, pinned.getAsDouble()),
                                found.text(Quantity.DIRECTION, now.getAsDouble()),
                                found.text(UnitKind.DURATION, Math.abs(saved)),
                                saved >= 0 ? "quicker" : "longer"),
                found.remedy(
                        "Turn to " + found.text(Quantity.DIRECTION, now.getAsDouble()),
                        Quantity.DIRECTION,
                        now.getAsDouble()));
    }
}
