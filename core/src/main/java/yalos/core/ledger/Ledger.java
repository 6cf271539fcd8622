package yalos.core.ledger;

import static yalos.core.pins.Quantity.*;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import yalos.core.camera.Camera;
import yalos.core.camera.GroundScale;
import yalos.core.pattern.CellGrid;
import yalos.core.pins.Defaults;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.Design;
import yalos.core.plan.SpeedLimit;
import yalos.core.reason.Reason;
import yalos.core.units.Unit;

/**
 * A plan as the rows of the ledger: every quantity with its figure, whether it is pinned, and why it is what it is.
 */
public final class Ledger {
    private static final String GEOMETRY = "plane geometry";

    private final BlockPlan plan;
    private final ScaleReasons scaleReasons;
    private final Map<Quantity, Entry> entries = new EnumMap<>(Quantity.class);

    private Ledger(BlockPlan plan) {
        this.plan = plan;
        this.scaleReasons = new ScaleReasons(plan);
        scale();
        overlap();
        pace();
        density();
        limits();
        cost();
        plan.request()
                .pins()
                .asMap()
                .keySet()
                .forEach(pinned -> entries.computeIfPresent(pinned, (quantity, entry) -> entry.implying(entries)));
    }

    /** The rows of a plan. */
    public static Ledger of(BlockPlan plan) {
        return new Ledger(plan);
    }

    /** All rows in order. */
    public List<Entry> entries() {
        return new ArrayList<>(entries.values());
    }

    /** The row of a quantity. */
    public Entry entry(Quantity quantity) {
        return entries.get(quantity);
    }

    private void scale() {
        GroundScale scale = plan.design().scale();
        Camera camera = plan.request().camera();
        put(GSD, scale.gsdM(), scaleReasons.gsd());
        put(HEIGHT, scale.heightM(), scaleReasons.height());
        put(FOOTPRINT_ACROSS, scale.footprintAcrossM(), scaleReasons.footprint("W", camera.sideAcrossM()));
        put(FOOTPRINT_ALONG, scale.footprintAlongM(), scaleReasons.footprint("L", camera.sideAlongM()));
    }

    private void overlap() {
        Design design = plan.design();
        double across = design.coverAcrossM();
        double along = design.scale().footprintAlongM();
        String acrossName = plan.request().kit().payload().scannerLeads() ? "swath" : "footprint across";
        put(
                FORWARD_OVERLAP,
                design.forwardOverlap(),
                scaleReasons.overlap(AIR_BASE, "o = 1 − B / L", "B", design.baseM(), "L", along));
        put(
                SIDE_OVERLAP,
                design.sideOverlap(),
                scaleReasons.overlap(STRIP_SPACING, "q = 1 − S / W", "S", design.spacingM(), "W", across));
        put(
                AIR_BASE,
                design.baseM(),
                Reason.formula("B = L · (1 − o)")
                        .with("L", "footprint along", along, Unit.METRE)
                        .with("o", "forward overlap", design.forwardOverlap(), Unit.PERCENT)
                        .source(ScaleReasons.TEXTBOOK));
        put(
                STRIP_SPACING,
                design.spacingM(),
                Reason.formula("S = W · (1 − q)")
                        .with("W", acrossName, across, Unit.METRE)
                        .with("q", "side overlap", design.sideOverlap(), Unit.PERCENT)
                        .source(ScaleReasons.TEXTBOOK));
    }

    private void pace() {
        Design design = plan.design();
        put(DIRECTION, plan.mainPass().pattern().directionRad().orElse(Double.NaN), directionReason());
        put(MARGIN, design.marginM(), marginReason());
        put(
                MARGIN_STRIPS,
                design.marginM() / design.spacingM(),
                Reason.formula("margin / S")
                        .with("S", "strip spacing", design.spacingM(), Unit.METRE)
                        .source(GEOMETRY));
        put(
                SPEED,
                design.speedMps(),
                Reason.formula("v = least of the limits").limits(speedLimits()).source(Reason.PRACTICE));
        put(
                INTERVAL,
                design.intervalS(),
                Reason.formula("t = B / v")
                        .with("B", "air base", design.baseM(), Unit.METRE)
                        .with("v", "ground speed", design.speedMps(), Unit.METRE_PER_SECOND)
                        .source(GEOMETRY));
        put(SHUTTER_TIME, design.shutterTimeS(), Reason.byDefault("1/1000 s or shorter is usual for mapping"));
        put(
                BLUR,
                design.blurPx(),
                Reason.formula("b = v · t / GSD")
                        .with("v", "ground speed", design.speedMps(), Unit.METRE_PER_SECOND)
                        .with("t", "shutter time", design.shutterTimeS(), Unit.MILLISECOND)
                        .with("GSD", "GSD along the strip", design.scale().gsdAlongM(), Unit.CENTIMETRE)
                        .with("", "limit", plan.request().pins().siOr(BLUR, Defaults.BLUR_PX), Unit.PIXEL)
                        .source("half a pixel is good, one the most: common practice"));
    }

    private Reason directionReason() {
        if (plan.request().patterns().corridor().isPresent()) {
            return Reason.formula("from the axis' first point to its last")
                    .source("strips follow the axis; bearings are from grid north");
        }
        if (plan.mainPass().pattern() instanceof CellGrid grid) {
            return Reason.formula("the block cut into parts, each in the direction of least flight time")
                    .with("", "parts", grid.cells().size(), Unit.COUNT)
                    .with("T", "flight time", plan.flightTimeS(), Unit.MINUTE)
                    .source(
                            "cuts through reflex corners along their edges, kept where the whole flight is quicker than one sweep");
        }
        return Reason.formula("the direction of least flight time")
                .with("", "tried", "every half degree and each edge of the convex hull")
                .with("T", "flight time", plan.flightTimeS(), Unit.MINUTE)
                .source("search over all directions; bearings are from grid north");
    }

    private void density() {
        plan.request().kit().payload().scanner().ifPresent(scanner -> {
            Design design = plan.design();
            put(
                    POINT_DENSITY,
                    design.pointsPerM2(scanner),
                    Reason.formula("n = pulse rate · usable / (v · swath)")
                            .with("", "pulses a second", scanner.pulsesPerSecond(), Unit.COUNT)
                            .with("", "usable", scanner.usableShare(), Unit.PERCENT)
                            .with("v", "ground speed", design.speedMps(), Unit.METRE_PER_SECOND)
                            .with("", "swath, 2 H tan(fov / 2)", design.coverAcrossM(), Unit.METRE)
                            .source("plane geometry; from one strip, evenly spread"));
        });
    }

    private Reason marginReason() {
        if (!plan.request().pins().has(MARGIN_STRIPS)) {
            return Reason.byDefault("strips end with the block; two strips beyond the edge is another school");
        }
        return Reason.formula("strips · S")
                .with("", "strips", plan.request().pins().pinned(MARGIN_STRIPS), Unit.COUNT)
                .with("S", "strip spacing", plan.design().spacingM(), Unit.METRE)
                .source("your decision");
    }

    private List<Reason.Limit> speedLimits() {
        SpeedLimit binding = plan.design().binding().limit();
        return plan.design().speeds().stream()
                .map(allowed -> new Reason.Limit(
                        allowed.limit().words(),
                        allowed.limit().formula(),
                        allowed.speedMps(),
                        Unit.METRE_PER_SECOND,
                        allowed.limit() == binding))
                .toList();
    }

    private void limits() {
        put(
                BRIEF_GSD,
                plan.briefGsdM().orElse(Double.NaN),
                Reason.formula("nothing asked for yet").source("pin it, and a coarser plan is reported"));
        put(
                CEILING,
                plan.ceilingM(),
                Reason.byDefault(
                        "an example of a legal ceiling; the law where you fly decides, check your local rules"));
        put(LEAST_PHOTOS, plan.leastPhotos(), Reason.byDefault("photos that should see every bit of ground"));
        for (var accuracy : List.of(POSITIONS_TO, HEIGHTS_TO)) {
            put(
                    accuracy,
                    plan.request().pins().siOr(accuracy, Double.NaN),
                    Reason.formula("as the brief asks").source("pin it, and every place is judged by it instead"));
        }
        put(
                TEMPERATURE,
                plan.request().pins().siOr(TEMPERATURE, Defaults.TEMPERATURE_K),
                Reason.byDefault("batteries keep their nominal endurance; pin the cold of the day"));
        put(
                WIND,
                plan.request().pins().siOr(WIND, 0),
                Reason.byDefault("none; pin it and What if compares directions in it"));
        put(
                WIND_FROM,
                plan.request().pins().siOr(WIND_FROM, Double.NaN),
                Reason.formula("where it blows from").source("true north, as forecasts give it"));
        put(
                WIND_AT,
                plan.request().pins().siOr(WIND_AT, Double.NaN),
                Reason.formula("w = w₀ · (H / h₀)^(1/7)")
                        .with("w₀", "wind measured", plan.request().pins().siOr(WIND, 0), Unit.METRE_PER_SECOND)
                        .with("H", "height flown", plan.design().scale().heightM(), Unit.METRE)
                        .with("w", "wind at that height", plan.windAloftMps(), Unit.METRE_PER_SECOND)
                        .source("power law over open ground by day: common practice; at flying height where empty"));
    }

    private void cost() {
        Design design = plan.design();
        put(
                STRIPS,
                plan.flight().strips(),
                Reason.formula("the block cut into bands as wide as the strip spacing")
                        .with("S", "strip spacing", design.spacingM(), Unit.METRE)
                        .with("A", "area flown", plan.covered().areaM2(), Unit.HECTARE)
                        .source(GEOMETRY));
        put(
                PHOTOS,
                plan.photos(),
                Reason.formula("for each strip ⌈length / B⌉ + 1")
                        .with("B", "air base", design.baseM(), Unit.METRE)
                        .with("", "strips", plan.flight().strips(), Unit.COUNT)
                        .with(
                                "",
                                "seen from inside, on average",
                                String.format(Locale.ROOT, "%.1f photos", design.meanPhotos()))
                        .source(GEOMETRY));
        put(
                PATH_LENGTH,
                plan.flight().pathLengthM(),
                Reason.formula("strips + links" + (plan.request().launch().isPresent() ? " + way out and home" : ""))
                        .with("", "strips alone", plan.flight().linesLengthM(), Unit.KILOMETRE)
                        .source(GEOMETRY));
        put(FLIGHT_TIME, Double.isFinite(plan.flightTimeS()) ? plan.flightTimeS() : Double.NaN, CostReasons.time(plan));
        put(BATTERY_SETS, sets(), CostReasons.batteries(plan));
        put(
                STORAGE,
                plan.storageBytes(),
                Reason.formula("releases × size")
                        .with("", "releases", plan.photos(), Unit.COUNT)
                        .with(
                                "",
                                "files at each",
                                plan.request().kit().payload().filesPerCapture(),
                                Unit.COUNT)
                        .with("", "one release", plan.request().kit().payload().bytesPerCapture(), Unit.MEGABYTE)
                        .source("the cameras' figures"));
        put(
                AREA,
                plan.areaM2(),
                Reason.formula("geodesic area of the outline, holes taken out")
                        .with("", "perimeter", plan.request().outline().perimeterM(), Unit.METRE)
                        .source("Karney 2013 (from memory), WGS84"));
    }

    /** Not a number where the wind forbids the flight. */
    private double sets() {
        return plan.batterySets() == 0 ? Double.NaN : plan.batterySets();
    }

    /** A pinned figure is what was decided; the blur's pin is a limit, so its figure keeps its formula. */
    private void put(Quantity quantity, double si, Reason reason) {
        var pin = plan.request().pins().of(quantity);
        boolean limit = quantity == BLUR
                || quantity == SPEED
                || quantity == INTERVAL
                || quantity == POINT_DENSITY
                || quantity.isCost();
        boolean solved = plan.solution().solved().filter(quantity::equals).isPresent();
        Reason told = solved ? SolvedReason.of(plan, quantity) : pin.isPresent() && !limit ? Reason.decided() : reason;
        entries.put(quantity, new Entry(quantity, si, pin, told));
    }
}
