package yalos.core.sortie;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import yalos.core.fault.InputFault;
import yalos.core.flight.Place;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.StructurePlan;
import yalos.core.site.Zone;

/**
 * A plan cut into sorties: fewest first, then at the ends of strips, then even; from every point of each the energy left brings the aircraft home with its reserve untouched.
 *
 * <pre>{@code
 * Sorties sorties = Sorties.of(Sorties.Given.usual(plan));
 * double leastMargin = sorties.all().get(0).least().margin();
 * }</pre>
 *
 * <p>The cut is found on what the uncut plan draws; then every sortie is flown for itself on the clock, and where one falls short the whole is cut again with as much less.
 *
 * <p>A lidar aligns before and after each sortie; it is counted as standing in the air as long.
 *
 * <p>KNOWN LIMITS: one wind all day and at all heights.
 */
public final class Sorties {
    private final Given given;
    private final List<Homing> launches;
    private final List<Optional<ReturnHeight.Needed>> needed;
    private final List<Sortie> all;
    private final int batteries;

    /**
     * What sorties follow from.
     *
     * @param plan that is cut
     * @param around ground and obstacles
     * @param settings the operator's
     * @param launches where it may take off, the block's own first
     * @param draw of the aircraft
     * @param usable for each battery, the best first: what it has, the reserve untouched, as a share of a full one at 20 °C
     */
    public record Given(
            BlockPlan plan,
            Surroundings around,
            SortieSettings settings,
            List<PlanePoint> launches,
            Draw draw,
            List<Double> usable) {
        public Given {
            launches = List.copyOf(launches);
            usable = usable.stream().sorted(Comparator.reverseOrder()).toList();
        }

        /** From the block's own launch point with the kit's batteries. */
        public static Given usual(BlockPlan plan) {
            List<PlanePoint> launches = plan.flight().launch().stream().toList();
            return new Given(
                    plan,
                    Surroundings.of(plan, launches),
                    SortieSettings.USUAL,
                    launches,
                    Draw.of(plan.request().aircraft(), plan.design().speedMps()),
                    Packs.usable(plan, SortieSettings.USUAL, List.of()));
        }
    }

    Sorties(Given given, List<Homing> launches, List<Sortie> all, int batteries) {
        this.batteries = batteries;
        this.given = given;
        this.launches = launches;
        this.needed = launches.stream()
                .map(homing -> needed(given, homing.launch(), homing.takeOffUpM()))
                .toList();
        this.all = List.copyOf(all);
    }

    /**
     * @throws InputFault where no launch point is known, or a station cannot be reached and left again; it says which and what it would take
     */
    public static Sorties of(Given given) {
        BlockPlan plan = given.plan;
        if (given.launches.isEmpty()) {
            throw new InputFault("launch", "none", "Set a launch point first; every sortie begins and ends at one.");
        }
        if (plan.heightsUnknown() || plan.flight().exposures().isEmpty()) {
            throw new InputFault("plan", "unknown", "The plan's heights are not known; sorties follow when they are.");
        }
        List<Homing> launches =
                given.launches.stream().map(at -> homing(given, at)).toList();
        for (Homing homing : launches) {
            if (Double.isNaN(homing.takeOffUpM())) {
                throw new InputFault(
                        "launch",
                        "outside",
                        "The model does not know the ground at launch point %d; heights and energy cannot be told from there. Move it, bring a model that reaches it, or give its level as measured."
                                .formatted(launches.indexOf(homing) + 1));
            }
        }
        return new Cutting(given, launches).done();
    }

    private static Homing homing(Given given, PlanePoint launch) {
        double takeOff = given.around.takeOffM(launch);
        double above = given.settings
                .returnM()
                .orElseGet(() -> needed(given, launch, takeOff)
                        .map(ReturnHeight.Needed::aboveTakeOffM)
                        .orElse(given.plan.design().scale().heightM()));
        return new Homing(
                launch,
                takeOff,
                takeOff + above,
                given.plan.timeline().pace(),
                given.around.detour(),
                given.plan.structures().map(Sorties::sky).orElse(place -> List.of()));
    }

    /** Where no way out from under something is known it climbs where it is; the plan's own findings stop for that. */
    private static Function<Place, List<Place>> sky(StructurePlan objects) {
        return place -> objects.ways().toOpenSky(place).orElse(List.of());
    }

    private static Optional<ReturnHeight.Needed> needed(Given given, PlanePoint launch, double takeOffUpM) {
        return ReturnHeight.of(given.around, launch, takeOffUpM, given.settings.marginM());
    }

    /** The sorties in their order. */
    public List<Sortie> all() {
        return all;
    }

    /** How many of the batteries they are cut for, the best ones: weaker ones stay behind. */
    public int batteries() {
        return batteries;
    }

    /** What they follow from. */
    public Given given() {
        return given;
    }

    /** The launch points with their ways, in the order given. */
    public List<Homing> launches() {
        return launches;
    }

    /** What the straight ways home to a launch point must clear; empty where no ground is known on them. */
    public Optional<ReturnHeight.Needed> needed(int launch) {
        return needed.get(launch);
    }

    /** In the air, all together. */
    public double seconds() {
        return all.stream().mapToDouble(Sortie::seconds).sum();
    }

    /** Files of each sortie's photos, in bytes. */
    public double bytes(Sortie sortie) {
        return sortie.photos() * given.plan.request().kit().payload().bytesPerCapture();
    }

    /** Keep-out zones that hold one of the launch points, by its index. */
    public List<Zone> forbidding(int launch) {
        PlanePoint at = launches.get(launch).launch();
        return given.around.site().zonesAt(at.xM(), at.yM(), 0).stream()
                .filter(zone -> zone.kind() != Zone.Kind.CAUTION)
                .toList();
    }
}
