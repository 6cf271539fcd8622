package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;
import static yalos.core.pins.Quantity.*;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import yalos.core.brief.Brief;
import yalos.core.brief.Purpose;
import yalos.core.pins.Overlaps;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PinSolver;
import yalos.core.plan.SpeedLimit;
import yalos.core.units.UnitKind;

/** What would a practitioner say about the plan itself: its pins, height, overlap, speed and coverage? */
final class PlanFindings {
    private static final double FAR_FROM_LAUNCH_M = 500;
    private static final double SCALE_OFF = 0.002;

    /** Limits that can keep a cost from being met. */
    private static final Set<Quantity> AT_STAKE = EnumSet.of(CEILING, WIND, WIND_FROM, TEMPERATURE);

    static final String IN_CONFLICT = "pins-in-conflict";

    private static final double WITH_ROOM = 1.1;

    /** Costs that depend on the speed. */
    private static final Set<Quantity> TIMES = EnumSet.of(FLIGHT_TIME, BATTERY_SETS);

    /** Pins that may be let go to meet a cost: without them the program chooses. */
    private static final Set<Quantity> CAN_GIVE =
            EnumSet.of(DIRECTION, SPEED, INTERVAL, SHUTTER_TIME, BLUR, MARGIN, MARGIN_STRIPS);

    private final BlockPlan plan;
    private final Brief brief;
    private final Collected found;

    static final List<Rule> RULES = Rule.all(
            PlanFindings::new,
            List.<Consumer<PlanFindings>>of(
                    PlanFindings::pinsInConflict,
                    PlanFindings::ceiling,
                    PlanFindings::briefGsd,
                    PlanFindings::overlapBelowLeast,
                    PlanFindings::speedHeld,
                    PlanFindings::tooSlowToFly,
                    PlanFindings::blur));

    /** About where the block lies. */
    static final List<Rule> PLACE_RULES =
            Rule.all(PlanFindings::new, List.<Consumer<PlanFindings>>of(PlanFindings::launch, PlanFindings::grid));

    private PlanFindings(Case one, Collected found) {
        this.plan = one.plan();
        this.brief = one.brief();
        this.found = found;
    }

    private void pinsInConflict() {
        // An accuracy that is not reached is told by the judgement of the plan; what is flown too slowly to stay up has
        // no other time yet.
        Set<Quantity> unmet = PinSolver.unmet(plan);
        if (plan.solution().holds() || (belowSlowest() ? TIMES.containsAll(unmet) : unmet.isEmpty())) {
            return;
        }
        List<String> names = plan.request().pins().asMap().keySet().stream()
                .filter(pinned -> pinned.section() != Quantity.Section.LIMITS || AT_STAKE.contains(pinned))
                .sorted(Comparator.comparing(pinned -> !pinned.isCost()))
                .map(this::named)
                .toList();
        List<Remedy> remedies = new ArrayList<>(PinSolver.waysOut(plan).stream()
                .map(way -> new Remedy(
                        way.quantity().label() + " " + way.quantity().typed(way.value()), way.quantity(), way.value()))
                .toList());
        together(remedies).ifPresent(remedies::add);
        plan.request().pins().asMap().keySet().stream()
                .filter(Quantity::isCost)
                .filter(cost -> plan.request().pins().scaleFixed()
                        || plan.request().pins().costs().size() > 1)
                .forEach(cost -> remedies.add(Remedy.letGo(cost)));
        plan.request().pins().asMap().keySet().stream()
                .filter(CAN_GIVE::contains)
                .forEach(pinned -> remedies.add(Remedy.letGo(pinned)));
        found.add(
                STOP,
                IN_CONFLICT,
                "These pins cannot all hold: %s. The plan takes %,d photos, %s and %d battery %s."
                        .formatted(
                                String.join(", ", names),
                                plan.photos(),
                                found.text(FLIGHT_TIME, plan.flightTimeS()),
                                plan.batterySets(),
                                plan.batterySets() == 1 ? "set" : "sets"),
                remedies.toArray(Remedy[]::new));
    }

    /** Where several costs are too small, none of them alone is the way out. */
    private static Optional<Remedy> together(List<Remedy> ways) {
        List<Remedy> costs = ways.stream()
                .filter(way ->
                        way.change() instanceof Remedy.Pin pin && pin.quantity().isCost())
                .toList();
        return costs.size() < 2
                ? Optional.empty()
                : Optional.of(new Remedy(
                        costs.stream().map(Remedy::label).collect(Collectors.joining(", ")),
                        new Remedy.Several(costs.stream()
                                .map(way -> (Remedy.Pin) way.change())
                                .toList())));
    }

    private String named(Quantity pinned) {
        String label = pinned == GSD ? pinned.label() : pinned.label().toLowerCase(Locale.ROOT);
        return label + " " + pinned.typed(plan.request().pins().of(pinned).orElseThrow());
    }

    private void ceiling() {
        double height = plan.design().scale().heightM();
        double ceiling = plan.ceilingM();
        if (height > ceiling + 1e-6 && plan.heights().isEmpty()) {
            found.add(
                    STOP,
                    "ceiling",
                    "The plan flies at %s above ground, %s over your ceiling of %s. Check your local rules."
                            .formatted(
                                    found.height(height),
                                    Collected.percent(height / ceiling - 1),
                                    found.height(ceiling)),
                    found.remedy("Fly at " + found.height(ceiling), HEIGHT, ceiling));
        }
    }

    private void briefGsd() {
        OptionalDouble asked = plan.briefGsdM();
        double gsd = plan.design().scale().gsdM();
        if (asked.isPresent() && gsd > asked.getAsDouble() * (1 + 1e-6)) {
            found.add(
                    MIND,
                    "brief-gsd",
                    "The GSD of %s is coarser than the %s asked for."
                            .formatted(found.text(GSD, gsd), found.text(GSD, asked.getAsDouble())),
                    Stream.concat(
                                    Stream.of(found.remedy(
                                            "Pin " + found.text(GSD, asked.getAsDouble()), GSD, asked.getAsDouble())),
                                    Candidates.costsLetGo(plan))
                            .toArray(Remedy[]::new));
        }
    }

    private void overlapBelowLeast() {
        boolean pictureOnly =
                brief.purpose().filter(purpose -> purpose == Purpose.IMAGERY).isPresent();
        if (pictureOnly || plan.request().kit().payload().scannerLeads()) {
            return;
        }
        below(FORWARD_OVERLAP, plan.design().forwardOverlap(), Overlaps.LEAST.forward(), "forward");
        below(SIDE_OVERLAP, plan.design().sideOverlap(), Overlaps.LEAST.side(), "side");
    }

    private void below(Quantity overlap, double share, double least, String word) {
        if (share < least - 1e-9) {
            found.add(
                    MIND,
                    overlap.key(),
                    "The %s overlap of %s is below the %s that a reconstruction needs at least (common practice)."
                            .formatted(word, Collected.percent(share), Collected.percent(least)),
                    found.remedy("Pin " + Collected.percent(least), overlap, least));
        }
    }

    private void speedHeld() {
        OptionalDouble asked = plan.request().pins().si(SPEED);
        OptionalDouble interval = plan.request().pins().si(INTERVAL);
        double wanted = asked.orElse(interval.isPresent() ? plan.design().baseM() / interval.getAsDouble() : 0);
        double speed = plan.design().speedMps();
        if (wanted <= speed * (1 + 1e-9)) {
            return;
        }
        SpeedLimit limit = plan.design().binding().limit();
        List<Remedy> remedies = new ArrayList<>();
        if (limit == SpeedLimit.MOTION_BLUR) {
            double shutter = wholeFraction(plan.design().shutterTimeS() * speed / wanted);
            remedies.add(found.remedy("Shutter " + found.text(SHUTTER_TIME, shutter), SHUTTER_TIME, shutter));
        }
        if (asked.isPresent()) {
            double slower = found.down(UnitKind.SPEED, speed, 0.1);
            remedies.add(found.remedy("Ask for " + found.text(SPEED, slower), SPEED, slower));
        } else {
            double longer = found.up(UnitKind.INTERVAL, plan.design().intervalS(), 0.01);
            remedies.add(found.remedy("Photo every " + found.text(INTERVAL, longer), INTERVAL, longer));
        }
        found.add(
                MIND,
                "speed-held",
                "Speed is held at %s by %s; %s was asked for."
                        .formatted(found.text(SPEED, speed), limit.words(), found.text(SPEED, wanted)),
                remedies.toArray(Remedy[]::new));
    }

    private boolean belowSlowest() {
        return plan.design().speedMps() < plan.request().aircraft().slowestMps() - 1e-9;
    }

    /** A wing that must fly more slowly than it can does not stay up. */
    private void tooSlowToFly() {
        if (!belowSlowest()) {
            return;
        }
        double slowest = plan.request().aircraft().slowestMps();
        double speed = plan.design().speedMps();
        // Just as fast as must be leaves nothing to a scale that is solved for.
        List<Remedy> remedies = new ArrayList<>(Stream.of(slowest, slowest * WITH_ROOM)
                .flatMap(mps -> quicker(mps).stream())
                .distinct()
                .toList());
        double gsd = Math.ceil(plan.design().scale().gsdM() * slowest / speed * 1e4) / 1e4;
        remedies.add(found.remedy("GSD " + found.text(GSD, gsd), GSD, gsd));
        if (plan.request().pins().has(SPEED)) {
            remedies.add(Remedy.letGo(SPEED));
        }
        found.add(
                STOP,
                "below-slowest",
                "%s is planned, and this aircraft flies no slower than %s. Speed is held by %s."
                        .formatted(
                                found.text(SPEED, speed),
                                found.text(SPEED, slowest),
                                plan.design().binding().limit().words()),
                remedies.toArray(Remedy[]::new));
    }

    /** What lifts the limits below a speed at the same scale, all at once: a shorter exposure, photos farther apart or sooner, more asked for. */
    private Optional<Remedy> quicker(double mps) {
        List<Remedy.Pin> pins = new ArrayList<>();
        List<String> words = new ArrayList<>();
        below(mps, SpeedLimit.MOTION_BLUR).ifPresent(most -> {
            double shutter = wholeFraction(plan.design().shutterTimeS() * most / mps);
            pins.add(found.pin(SHUTTER_TIME, shutter));
            words.add("shutter " + found.text(SHUTTER_TIME, shutter));
        });
        double forward = below(mps, SpeedLimit.SHUTTER_INTERVAL)
                .map(most -> Math.floor((1 - apart() * mps / most) * 100) / 100)
                .orElse(1 - apart());
        if (forward < Overlaps.LEAST.forward()) {
            return Optional.empty();
        }
        if (forward < 1 - apart()) {
            pins.add(found.pin(FORWARD_OVERLAP, forward));
            words.add("forward " + Collected.percent(forward));
        }
        below(mps, SpeedLimit.INTERVAL_ASKED).ifPresent(asked -> {
            double base = plan.design().baseM() * (1 - forward) / apart();
            double sooner = found.down(UnitKind.INTERVAL, base / mps, 0.01);
            pins.add(found.pin(INTERVAL, sooner));
            words.add("photo every " + found.text(INTERVAL, sooner));
        });
        below(mps, SpeedLimit.ASKED).ifPresent(asked -> {
            double speed = found.up(UnitKind.SPEED, mps, 0.1);
            pins.add(found.pin(SPEED, speed));
            words.add("speed " + found.text(SPEED, speed));
        });
        if (pins.isEmpty()) {
            return Optional.empty();
        }
        String label = String.join(" and ", words);
        String begun = label.substring(0, 1).toUpperCase(Locale.ROOT) + label.substring(1);
        return Optional.of(
                pins.size() == 1 ? new Remedy(begun, pins.get(0)) : new Remedy(begun, new Remedy.Several(pins)));
    }

    /** Of a photo's length on the ground, how much the next one goes on. */
    private double apart() {
        return 1 - plan.design().forwardOverlap();
    }

    /** The speed that a limit allows, where it is below another. */
    private Optional<Double> below(double mps, SpeedLimit limit) {
        return plan.design().speeds().stream()
                .filter(allowed -> allowed.limit() == limit)
                .map(SpeedLimit.Allowed::speedMps)
                .filter(most -> most < mps - 1e-9)
                .min(Double::compare);
    }

    /** The longest time 1/n s, n whole, that is no longer; as cameras name them. */
    private static double wholeFraction(double seconds) {
        return 1 / Math.ceil(1 / seconds - 1e-6);
    }

    private void blur() {
        double blur = plan.design().blurPx();
        if (blur > 1 + 1e-6) {
            double shutter = wholeFraction(plan.design().shutterTimeS() / blur);
            found.add(
                    blur > 2 ? STOP : MIND,
                    "blur",
                    "The image moves %s during the exposure; one pixel is the most (common practice)."
                            .formatted(found.text(BLUR, blur)),
                    found.remedy("Shutter " + found.text(SHUTTER_TIME, shutter), SHUTTER_TIME, shutter));
        }
    }

    private void launch() {
        plan.request().launch().ifPresent(launch -> {
            double away = plan.block().distanceM(plan.block().plane().toPlane(launch));
            if (away > FAR_FROM_LAUNCH_M) {
                found.add(
                        MIND,
                        "launch-far",
                        "%s from the launch point to the edge of the block. Keep the aircraft in sight as your rules ask."
                                .formatted(found.text(UnitKind.DISTANCE, away)));
            }
        });
    }

    private void grid() {
        double scale =
                plan.block().plane().grid().pointScale(plan.request().outline().middle());
        if (Math.abs(scale - 1) > SCALE_OFF) {
            found.add(
                    NOTE,
                    "grid-scale",
                    "Here %s shows lengths %.4f times as long as on the ground; the plan works in true metres."
                            .formatted(plan.block().plane().grid().shortName(), scale));
        }
    }
}
