package yalos.core.trial;

import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import yalos.core.fault.InputFault;
import yalos.core.flight.BatteryUse;
import yalos.core.flight.Pace;
import yalos.core.flight.StopAndGo;
import yalos.core.flight.Timeline;
import yalos.core.pattern.Pass;
import yalos.core.pattern.Pattern;
import yalos.core.pins.Overlaps;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.Design;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** What would this block cost a little higher or lower, with other overlaps, or triggered otherwise? True plans, each. */
public final class WhatIf {
    /** Whole steps in which a timer is usually set, in seconds (common practice). */
    public static final double TIMER_STEP_S = 0.5;
    /** Until the aircraft hangs still at a station, in seconds (common practice). */
    public static final double SETTLING_S = 2;

    private static final double[] HEIGHTS = {0.8, 0.9, 1, 1.1, 1.2};

    private final BlockPlan plan;

    private WhatIf(BlockPlan plan) {
        this.plan = plan;
    }

    /** Other ways of flying a plan. */
    public static WhatIf of(BlockPlan plan) {
        return new WhatIf(plan);
    }

    /** The plan at another height; {@code factor} is 1 for the present one. */
    public record Height(double factor, BlockPlan plan) {}

    /** The plan from a fifth lower to a fifth higher; heights that cannot be planned are left out. */
    public List<Height> heights() {
        double height = plan.design().scale().heightM();
        return DoubleStream.of(HEIGHTS)
                .boxed()
                .flatMap(factor -> tried(plan.solution()
                                .pins()
                                .withoutCosts()
                                .with(Quantity.HEIGHT, Measure.of(Math.max(1, height * factor), Unit.METRE)))
                        .map(other -> new Height(factor, other))
                        .stream())
                .toList();
    }

    /** A pair of overlaps and the plan with it. */
    public record Overlap(double forward, double side, String school, BlockPlan plan) {}

    /** The overlaps that schools of practice ask for, each as a plan of this block (common practice). */
    public List<Overlap> overlaps() {
        return Stream.of(
                        overlap(Overlaps.LEAST, "the least for a reconstruction"),
                        overlap(Overlaps.USUAL, "usual for mapping"),
                        overlap(Overlaps.DENSE, "usual for crops and models"),
                        overlap(Overlaps.DENSEST, "snow, sand, water, forest"))
                .flatMap(Optional::stream)
                .toList();
    }

    /** Photos of this plan over those with 80 % forward and 70 % side overlap. */
    public Optional<Double> photosAgainstUsual() {
        return overlap(Overlaps.USUAL, "")
                .map(usual -> (double) plan.photos() / usual.plan().photos());
    }

    private Optional<Overlap> overlap(Overlaps overlaps, String school) {
        return tried(plan.solution()
                        .pins()
                        .withoutCosts()
                        .with(Quantity.FORWARD_OVERLAP, Measure.of(100 * overlaps.forward(), Unit.PERCENT))
                        .with(Quantity.SIDE_OVERLAP, Measure.of(100 * overlaps.side(), Unit.PERCENT)))
                .map(other -> new Overlap(overlaps.forward(), overlaps.side(), school, other));
    }

    private Optional<BlockPlan> tried(Pins pins) {
        try {
            return Optional.of(plan.tried(pins));
        } catch (InputFault cannotBePlanned) {
            return Optional.empty();
        }
    }

    /**
     * The strips flown in one direction in the wind to plan for.
     *
     * @param name of the school
     * @param directionRad of the strips
     * @param slowMps ground speed on the slower legs
     * @param fastMps ground speed on the faster legs
     * @param crabRad greatest angle between heading and track
     * @param flightTimeS in that wind; infinite where it forbids a way
     * @param fastIntervalS between photos on the faster legs
     * @param fastBlurPx on the faster legs
     */
    public record InWind(
            String name,
            double directionRad,
            double slowMps,
            double fastMps,
            double crabRad,
            double flightTimeS,
            double fastIntervalS,
            double fastBlurPx) {
        /** Whether the wind lets it be flown at all. */
        public boolean feasible() {
            return Double.isFinite(flightTimeS);
        }
    }

    /** The schools of wind on this block; empty while no wind is pinned. */
    public List<InWind> inWind() {
        return plan.wind()
                .map(wind -> plan.mainPass().pattern().inWind(wind).stream()
                        .map(this::inWind)
                        .toList())
                .orElse(List.of());
    }

    private InWind inWind(Pattern.School school) {
        Design design = plan.design();
        BlockPlan flown = plan.flown(new Pass(school.pattern(), plan.mainPass().task()));
        LineSpeeds lines = LineSpeeds.ofMainPass(flown);
        return new InWind(
                school.name(),
                school.pattern().directionRad().orElse(Double.NaN),
                lines.slowMps(),
                lines.fastMps(),
                lines.crabRad(),
                flown.flightTimeS(),
                design.baseM() / lines.fastMps(),
                lines.fastMps() * design.shutterTimeS() / design.scale().gsdAlongM());
    }

    /**
     * A way of releasing the shutter.
     *
     * @param name of the mode
     * @param flightTimeS as {@link BlockPlan#flightTimeS}
     * @param photos taken
     * @param intervalS between photos
     * @param speedMps between stations
     * @param blurPx while the shutter is open
     */
    public record Trigger(
            String name, double flightTimeS, int photos, double intervalS, double speedMps, double blurPx) {}

    /** By distance, by time, and stopping at each station, which a wing cannot. */
    public List<Trigger> triggers() {
        Design design = plan.design();
        Trigger byDistance = new Trigger(
                "by distance",
                plan.flightTimeS(),
                plan.photos(),
                design.intervalS(),
                design.speedMps(),
                design.blurPx());
        return plan.request().aircraft().kind().wing()
                ? List.of(byDistance, byTime())
                : List.of(byDistance, byTime(), stopping());
    }

    /** The timer runs in whole steps; it is set to the next shorter one, so that the overlap is kept. */
    private Trigger byTime() {
        Design design = plan.design();
        double least = Math.max(
                TIMER_STEP_S,
                Math.ceil(plan.request().kit().payload().slowestIntervalS() / TIMER_STEP_S - 1e-9) * TIMER_STEP_S);
        double interval = Math.max(least, Math.floor(design.intervalS() / TIMER_STEP_S + 1e-9) * TIMER_STEP_S);
        double speed = Math.min(design.speedMps(), design.baseM() / interval);
        Pass present = plan.mainPass();
        BlockPlan flown = plan.flown(new Pass(present.pattern(), present.task().paced(speed * interval, speed)));
        double blur = speed * design.shutterTimeS() / design.scale().gsdAlongM();
        return new Trigger("by time", flown.flightTimeS(), flown.photos(), interval, speed, blur);
    }

    private Trigger stopping() {
        double speed = plan.request().aircraft().maxSpeedMps();
        Pace pace = plan.timeline().pace();
        Timeline stopping = Timeline.of(StopAndGo.of(plan.flight(), SETTLING_S, speed), pace);
        BatteryUse batteries = BatteryUse.of(stopping, plan.usableMinutes() * 60);
        double track = plan.flight().lines().get(0).trackRad();
        double every = pace.standToStandS(plan.design().baseM(), track, speed) + SETTLING_S;
        double time = stopping.totalS() + batteries.tripsS();
        return new Trigger("stop at every station", time, plan.photos(), every, speed, 0);
    }
}
