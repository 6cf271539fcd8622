package yalos.core.finding;

import static yalos.core.pins.Quantity.*;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import yalos.core.height.HeightPlan;
import yalos.core.height.HeightReference;
import yalos.core.kit.Positioning;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Adequacy;
import yalos.core.proof.Judgement;
import yalos.core.proof.RuleOfThumb;
import yalos.core.proof.WeakGround;
import yalos.core.terrain.Slopes;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;

/** What might mend ground that is given too little. Each is tried by {@link Mends} before anybody is shown it. */
final class Candidates {
    /** A slope below this has no contours worth following. */
    private static final double LEAST_SLOPE = 0.03;
    /** About the way between two photos. */
    private static final double SLOPE_OVER_M = 20;

    /** A change of scale to less than this share of the present one is taken in steps. */
    private static final double FAR = 0.7;

    private static final int MOST_MARGIN = 3;
    private static final double DENSEST = 0.92;

    private final BlockPlan plan;
    private final Judgement judgement;
    private final Collected found;

    Candidates(BlockPlan plan, Judgement judgement, Collected found) {
        this.judgement = judgement;
        this.plan = plan;
        this.found = found;
    }

    /** For ground that lacks something, by the causes of its weak spots, the largest first. */
    List<Remedy> of(Adequacy lack) {
        Stream<Remedy> byCause = judgement.spots().stream()
                .filter(spot -> judgement.at(spot.cells()[0]) == lack)
                .map(WeakGround::cause)
                .distinct()
                .flatMap(cause -> of(cause).stream());
        return Stream.of(byCause, costsLetGo(plan), less(lack))
                .flatMap(Function.identity())
                .distinct()
                .toList();
    }

    /** What a cost was pinned for is often what the ground lacks. */
    static Stream<Remedy> costsLetGo(BlockPlan plan) {
        return plan.request().pins().costs().stream().map(Remedy::letGo);
    }

    /** A pinned accuracy, asked for as well as it is had. */
    private Stream<Remedy> less(Adequacy lack) {
        Quantity asked = lack == Adequacy.INACCURATE ? HEIGHTS_TO : POSITIONS_TO;
        boolean pinned = (lack == Adequacy.INACCURATE || lack == Adequacy.OFF)
                && plan.request().pins().has(asked);
        return !pinned
                ? Stream.empty()
                : judgement.goodToM(lack, CoverageFindings.WORTH_SAYING / 2).stream()
                        .boxed()
                        .flatMap(had -> Stream.of(had, had * 1.05, had * 1.15))
                        .map(had -> found.up(asked.kind(), had, 0.1))
                        .distinct()
                        .map(had -> found.less(
                                "Ask for " + asked.label().toLowerCase(Locale.ROOT) + " " + found.text(asked, had),
                                asked,
                                had));
    }

    private List<Remedy> of(WeakGround.Cause cause) {
        return switch (cause) {
            case EDGE -> margin();
            case HIGH_GROUND -> join(follow(), denserSide(), denserForward());
            case UNSURE_PHOTOS -> positionsKnown();
            case LARGE_PIXELS -> fineEnough();
            case GAPS, WEAK_RAYS -> join(denserSide(), denserForward(), lower());
            case HIDDEN_SIDE -> join(denserSide(), denserForward(), List.of());
            case LOW_GROUND -> join(follow(), lower(), List.of());
            case RAISED_PATH -> join(slower(), alongContours(), lower());
            case KEPT_ABOVE -> join(alongContours(), lower(), List.of());
            case FALLS_AWAY -> lower();
        };
    }

    private static List<Remedy> join(List<Remedy> first, List<Remedy> second, List<Remedy> third) {
        return Stream.of(first, second, third).flatMap(List::stream).toList();
    }

    List<Remedy> follow() {
        boolean level = plan.heights()
                .filter(heights -> heights.choice().reference() != HeightReference.FOLLOW)
                .isPresent();
        return level ? List.of(new Remedy("Follow the ground", new Remedy.Heights(HeightReference.FOLLOW))) : List.of();
    }

    /** Following, or flying so much higher as is missing, where the ceiling allows it. */
    List<Remedy> followOrRaise(HeightPlan heights, double missingM) {
        List<Remedy> remedies = new ArrayList<>(follow());
        double raised = found.up(UnitKind.HEIGHT, heights.heightM() + missingM, 1);
        if (raised <= plan.ceilingM()) {
            remedies.add(found.remedy("Fly at " + found.height(raised), HEIGHT, raised));
        }
        return remedies;
    }

    /** One strip more, two, three; none where it is as wide already. */
    List<Remedy> margin() {
        int present = (int) Math.ceil(plan.design().marginM() / plan.design().spacingM() - 1e-9);
        return IntStream.rangeClosed(present + 1, present + MOST_MARGIN)
                .mapToObj(strips -> new Remedy(
                        "Margin of " + strips + (strips == 1 ? " strip" : " strips"),
                        MARGIN_STRIPS,
                        Measure.of(strips, Unit.COUNT)))
                .toList();
    }

    private List<Remedy> denserSide() {
        return denser(SIDE_OVERLAP, plan.design().sideOverlap(), "Side");
    }

    private List<Remedy> denserForward() {
        return denser(FORWARD_OVERLAP, plan.design().forwardOverlap(), "Forward");
    }

    /** The next two steps of five percent. */
    private static List<Remedy> denser(Quantity overlap, double present, String word) {
        List<Remedy> remedies = new ArrayList<>();
        double next = Math.ceil(present * 20 + 0.04) * 5;
        for (double percent = next; percent <= next + 5 && percent <= DENSEST * 100; percent += 5) {
            remedies.add(
                    new Remedy(word + " " + Math.round(percent) + " %", overlap, Measure.of(percent, Unit.PERCENT)));
        }
        return remedies;
    }

    /**
     * Shares of the present scale: what the coarsest ground asks for, and a little and clearly finer; and where that is far from the present one, steps on
     * the way to it, since below a cliff the last of the ground may never be had.
     */
    private Stream<Double> shares() {
        double asked = plan.askedGsdM().orElse(Double.NaN) * Judgement.GSD_TOLERANCE;
        double needed = asked / judgement.coarsestM();
        double first = needed < 0.97 ? needed : 0.92;
        Stream<Double> steps = first < FAR ? Stream.of(Math.sqrt(Math.sqrt(first)), Math.sqrt(first)) : Stream.of();
        return Stream.concat(Stream.of(first, first * 0.95, first * 0.85), steps);
    }

    /** What the aircraft can do better without a link in flight, or points on the ground; by itself, and from as near as it still takes. */
    private List<Remedy> positionsKnown() {
        return Stream.of(Positioning.PPK, Positioning.CONTROL)
                .filter(mode ->
                        mode != judgement.positioning() && plan.request().able(mode) == mode)
                .flatMap(mode -> {
                    String label = mode == Positioning.PPK ? "PPK from logged data" : "Control points on the ground";
                    Remedy alone = new Remedy(label, new Remedy.Known(mode, Optional.empty()));
                    return Stream.concat(
                            Stream.of(alone),
                            fineEnough(mode)
                                    .map(nearer -> new Remedy(
                                            label + ", flown at " + scale(nearer),
                                            new Remedy.Known(mode, Optional.of(found.nearer(nearer))))));
                })
                .toList();
    }

    private List<Remedy> fineEnough() {
        return flown(fineEnough(judgement.positioning()));
    }

    /** From how near the GSD is had that the rule of thumb asks for, and a little finer ones; of what positions alone forbid it asks nothing. */
    private Stream<Double> fineEnough(Positioning mode) {
        Judgement.Asked asked = judgement.asked();
        double perGsd = plan.design().scale().heightM() / plan.design().scale().gsdM();
        return nearer(DoubleStream.concat(
                        fineEnough(RuleOfThumb.HEIGHT_GSDS, asked.heightSigmaM(), mode.verticalM()),
                        fineEnough(RuleOfThumb.POSITION_GSDS, asked.positionSigmaM(), mode.horizontalM()))
                .boxed()
                .min(Double::compare)
                .stream()
                .flatMap(gsd -> Stream.of(gsd, gsd * 0.9, gsd * 0.8))
                .map(gsd -> gsd * perGsd));
    }

    private static DoubleStream fineEnough(double gsds, OptionalDouble askedM, double photosM) {
        return askedM.stream().flatMap(asked -> RuleOfThumb.gsdM(gsds, asked, photosM).stream());
    }

    private List<Remedy> lower() {
        double present = plan.design().scale().heightM();
        return flown(nearer(shares().map(share -> present * share)));
    }

    /** Nearer than now, in whole steps, none nearer than may be flown. */
    private Stream<Double> nearer(Stream<Double> heightsM) {
        double lowest = found.up(UnitKind.HEIGHT, lowestM(), 1);
        return heightsM.map(height -> Math.max(lowest, found.down(UnitKind.HEIGHT, height, 1)))
                .filter(height -> height < plan.design().scale().heightM())
                .distinct();
    }

    private List<Remedy> flown(Stream<Double> heightsM) {
        return heightsM.map(height -> new Remedy("Fly at " + scale(height), found.nearer(height)))
                .toList();
    }

    /** A height, and the GSD that is had from it. */
    private String scale(double heightM) {
        double gsd =
                plan.design().scale().gsdM() * heightM / plan.design().scale().heightM();
        return found.height(heightM) + ", GSD " + found.text(GSD, gsd);
    }

    /** Nearer to the ground than its clearance nobody flies, nor nearer than the payload works. */
    double lowestM() {
        double kept = plan.heights().map(heights -> heights.choice().keptM()).orElse(0.0);
        return Math.max(kept, plan.request().kit().payload().leastHeightM());
    }

    /** At half the speed the same climb is twice as steep. */
    List<Remedy> slower() {
        return Stream.of(0.7, 0.5, 0.35)
                .map(share -> found.down(UnitKind.SPEED, plan.design().speedMps() * share, 0.5))
                .filter(speed -> speed >= plan.request().aircraft().slowestMps() && speed > 0)
                .map(speed -> found.remedy("Fly at " + found.text(SPEED, speed), SPEED, speed))
                .toList();
    }

    /** The way that climbs least, on a ridge or in a valley too, where one side falls as the other rises; none on ground that is alike all round. */
    List<Remedy> alongContours() {
        return plan.heights()
                .flatMap(heights -> Slopes.of(heights.grid(), SLOPE_OVER_M).levelWay(LEAST_SLOPE))
                .map(rad -> {
                    double along = Math.round(Math.toDegrees(rad)) % 180;
                    return List.of(new Remedy(
                            "Strips along the contours, %.0f°".formatted(along),
                            DIRECTION,
                            Measure.of(along, Unit.DEGREE)));
                })
                .orElse(List.of());
    }
}
