package yalos.core.ledger;

import static yalos.core.ledger.Quantity.*;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import yalos.core.camera.Camera;
import yalos.core.camera.GroundScale;
import yalos.core.reason.Reason;
import yalos.core.units.Unit;

/**
 * A plan as the rows of the ledger: every quantity with its figure, whether it is pinned, and why it is what it is.
 */
public final class Ledger {
    private static final String TEXTBOOK = "Wolf, Dewitt and Wilkinson, Elements of Photogrammetry (from memory)";
    private static final String PRACTICE = "common practice";
    private static final String GEOMETRY = "plane geometry";

    private final BlockPlan plan;
    private final Map<Quantity, Entry> entries = new EnumMap<>(Quantity.class);

    private Ledger(BlockPlan plan) {
        this.plan = plan;
        scale();
        overlap();
        pace();
        limits();
        cost();
    }

    public static Ledger of(BlockPlan plan) {
        return new Ledger(plan);
    }

    /** All rows in order. */
    public List<Entry> entries() {
        return new ArrayList<>(entries.values());
    }

    public Entry entry(Quantity quantity) {
        return entries.get(quantity);
    }

    private void scale() {
        GroundScale scale = plan.design().scale();
        Camera camera = plan.request().camera();
        put(
                GSD,
                scale.gsdM(),
                Reason.formula("GSD = p · H / f")
                        .with("p", "pixel pitch", micrometres(camera.pitchM()))
                        .with("H", "height above ground", scale.heightM(), Unit.METRE)
                        .with("f", "focal length", camera.focalLengthM(), Unit.MILLIMETRE)
                        .source(TEXTBOOK));
        put(
                HEIGHT,
                scale.heightM(),
                Reason.formula("H = GSD · f / p")
                        .with("GSD", "ground sample distance", scale.gsdM(), Unit.CENTIMETRE)
                        .with("f", "focal length", camera.focalLengthM(), Unit.MILLIMETRE)
                        .with("p", "pixel pitch", micrometres(camera.pitchM()))
                        .source(TEXTBOOK));
        put(FOOTPRINT_ACROSS, scale.footprintAcrossM(), footprint("W", camera.sideAcrossM(), scale));
        put(FOOTPRINT_ALONG, scale.footprintAlongM(), footprint("L", camera.sideAlongM(), scale));
    }

    private Reason footprint(String symbol, double sideM, GroundScale scale) {
        return Reason.formula(symbol + " = s · H / f")
                .with("s", "sensor side", sideM, Unit.MILLIMETRE)
                .with("H", "height above ground", scale.heightM(), Unit.METRE)
                .with("f", "focal length", scale.camera().focalLengthM(), Unit.MILLIMETRE)
                .source(TEXTBOOK);
    }

    private void overlap() {
        Design design = plan.design();
        double across = design.scale().footprintAcrossM();
        double along = design.scale().footprintAlongM();
        put(
                FORWARD_OVERLAP,
                design.forwardOverlap(),
                share(AIR_BASE, "o = 1 − B / L", "B", design.baseM(), "L", along));
        put(
                SIDE_OVERLAP,
                design.sideOverlap(),
                share(STRIP_SPACING, "q = 1 − S / W", "S", design.spacingM(), "W", across));
        put(
                AIR_BASE,
                design.baseM(),
                Reason.formula("B = L · (1 − o)")
                        .with("L", "footprint along", along, Unit.METRE)
                        .with("o", "forward overlap", design.forwardOverlap(), Unit.PERCENT)
                        .source(TEXTBOOK));
        put(
                STRIP_SPACING,
                design.spacingM(),
                Reason.formula("S = W · (1 − q)")
                        .with("W", "footprint across", across, Unit.METRE)
                        .with("q", "side overlap", design.sideOverlap(), Unit.PERCENT)
                        .source(TEXTBOOK));
    }

    /** An overlap follows from a pinned step; otherwise it is the default. */
    private Reason share(Quantity step, String formula, String s1, double stepM, String s2, double footprintM) {
        if (!plan.request().pins().has(step)) {
            return byDefault("usual for mapping; 75/60 is the least, more over snow, sand, water and crops");
        }
        return Reason.formula(formula)
                .with(s1, step.label().toLowerCase(java.util.Locale.ROOT), stepM, Unit.METRE)
                .with(s2, "footprint", footprintM, Unit.METRE)
                .source(TEXTBOOK);
    }

    private void pace() {
        Design design = plan.design();
        put(
                DIRECTION,
                plan.layout().directionRad(),
                Reason.formula("the direction of least flight time")
                        .with("", "tried", "every half degree and each edge of the convex hull")
                        .with("T", "flight time", plan.layout().flightTimeS(), Unit.MINUTE)
                        .source("search over all directions; bearings are from grid north"));
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
                Reason.formula("v = least of the limits").limits(speedLimits()).source(PRACTICE));
        put(
                INTERVAL,
                design.intervalS(),
                Reason.formula("t = B / v")
                        .with("B", "air base", design.baseM(), Unit.METRE)
                        .with("v", "ground speed", design.speedMps(), Unit.METRE_PER_SECOND)
                        .source(GEOMETRY));
        put(SHUTTER_TIME, design.shutterTimeS(), byDefault("1/1000 s or shorter is usual for mapping"));
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

    private Reason marginReason() {
        if (!plan.request().pins().has(MARGIN_STRIPS)) {
            return byDefault("strips end with the block; two strips beyond the edge is another school");
        }
        return Reason.formula("strips · S")
                .with("", "strips", plan.request().pins().siOr(MARGIN_STRIPS, 0), Unit.COUNT)
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
                byDefault("an example of a legal ceiling; the law where you fly decides, check your local rules"));
        put(LEAST_PHOTOS, plan.leastPhotos(), byDefault("photos that should see every bit of ground"));
    }

    private void cost() {
        Design design = plan.design();
        put(
                STRIPS,
                plan.layout().strips().size(),
                Reason.formula("the block cut into bands as wide as the strip spacing")
                        .with("S", "strip spacing", design.spacingM(), Unit.METRE)
                        .with("A", "area flown", plan.flown().areaM2(), Unit.HECTARE)
                        .source(GEOMETRY));
        put(
                PHOTOS,
                plan.photos(),
                Reason.formula("for each strip ⌈length / B⌉ + 1")
                        .with("B", "air base", design.baseM(), Unit.METRE)
                        .with("", "strips", plan.layout().strips().size(), Unit.COUNT)
                        .with(
                                "",
                                "seen from inside, on average",
                                String.format(java.util.Locale.ROOT, "%.1f photos", design.meanPhotos()))
                        .source(GEOMETRY));
        put(
                PATH_LENGTH,
                plan.layout().pathLengthM(),
                Reason.formula("strips + links" + (plan.request().launch().isPresent() ? " + way out and home" : ""))
                        .with("", "strips alone", stripsLengthM(), Unit.KILOMETRE)
                        .source(GEOMETRY));
        put(FLIGHT_TIME, plan.layout().flightTimeS(), timeReason());
        var battery = plan.request().aircraft().battery();
        put(
                BATTERY_SETS,
                plan.batterySets(),
                Reason.formula("⌈flight time / usable time of a set⌉")
                        .with("", "flight time", plan.layout().flightTimeS(), Unit.MINUTE)
                        .with("", "full to empty", battery.fullMinutes() * 60, Unit.MINUTE)
                        .with("", "reserve", battery.reserve(), Unit.PERCENT)
                        .with("", "usable", battery.usableMinutes() * 60, Unit.MINUTE)
                        .source(
                                "the battery's figures; wind, cold and the ways between launch and cut are not counted yet"));
        put(
                STORAGE,
                plan.storageBytes(),
                Reason.formula("photos × size")
                        .with("", "photos", plan.photos(), Unit.COUNT)
                        .with("", "one photo", plan.request().camera().storage().bytesPerPhoto(), Unit.MEGABYTE)
                        .source("the camera's figures"));
        put(
                AREA,
                plan.areaM2(),
                Reason.formula("geodesic area of the outline, holes taken out")
                        .with("", "perimeter", plan.request().outline().perimeterM(), Unit.METRE)
                        .source("Karney 2013 (from memory), WGS84"));
    }

    private Reason timeReason() {
        var aircraft = plan.request().aircraft();
        Reason.Builder reason = Reason.formula("sum of speed profiles: speed up, hold, brake at each turn")
                .with("v", "ground speed", plan.design().speedMps(), Unit.METRE_PER_SECOND)
                .with("a", "acceleration", "%.1f m/s²".formatted(aircraft.accelerationMps2()))
                .with("", "speed in turns", aircraft.turnSpeedMps(), Unit.METRE_PER_SECOND);
        if (plan.request().launch().isPresent()) {
            reason.with(
                    "",
                    "climb and descent",
                    plan.design().scale().heightM() / aircraft.climbMps()
                            + plan.design().scale().heightM() / aircraft.descentMps(),
                    Unit.SECOND);
        }
        return reason.with(
                        "",
                        "least possible, A / (S · v)",
                        plan.areaM2() / plan.design().spacingM() / plan.design().speedMps(),
                        Unit.MINUTE)
                .source("trapezoidal speed profiles");
    }

    private double stripsLengthM() {
        return plan.layout().strips().stream()
                .mapToDouble(strip -> strip.lengthM())
                .sum();
    }

    private static Reason byDefault(String why) {
        return Reason.formula("the program's default").with("", "why", why).source(PRACTICE);
    }

    private static String micrometres(double m) {
        return String.format(java.util.Locale.ROOT, "%.3f µm", m * 1e6);
    }

    /** A pinned figure is what was decided; the blur's pin is a limit, so its figure keeps its formula. */
    private void put(Quantity quantity, double si, Reason reason) {
        var pin = plan.request().pins().of(quantity);
        boolean limit = quantity == BLUR || quantity == SPEED || quantity == INTERVAL || quantity.isCost();
        boolean solved = plan.solution().solved().filter(quantity::equals).isPresent();
        Reason told = solved ? solvedFor(quantity) : pin.isPresent() && !limit ? Reason.decided() : reason;
        entries.put(quantity, new Entry(quantity, si, pin, told));
    }

    /** What gave way to a pinned cost says so. */
    private Reason solvedFor(Quantity quantity) {
        Reason.Builder reason = Reason.formula(
                quantity == GSD
                        ? "the finest that the pinned cost allows"
                        : "the greatest that the pinned cost allows");
        plan.request()
                .pins()
                .costs()
                .forEach(cost -> reason.with(
                        "",
                        cost.label().toLowerCase(java.util.Locale.ROOT) + ", at most",
                        plan.request().pins().of(cost).orElseThrow().asTyped()));
        return reason.source("search over true plans of this block, to the last digit shown");
    }
}
