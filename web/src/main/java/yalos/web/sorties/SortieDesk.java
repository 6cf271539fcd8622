package yalos.web.sorties;

import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import yalos.core.block.Outline;
import yalos.core.control.Avoided;
import yalos.core.day.DayLight;
import yalos.core.day.DaySettings;
import yalos.core.day.Needs;
import yalos.core.day.Slot;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Consumption;
import yalos.core.sortie.Draw;
import yalos.core.sortie.LaunchSearch;
import yalos.core.sortie.LinkLoss;
import yalos.core.sortie.Packs;
import yalos.core.sortie.Segments;
import yalos.core.sortie.Sight;
import yalos.core.sortie.SortieSettings;
import yalos.core.sortie.Sorties;
import yalos.core.sortie.Surroundings;
import yalos.core.units.UnitChoice;
import yalos.core.weather.Limits;
import yalos.web.store.BlockFacts;
import yalos.web.work.Busy;
import yalos.web.work.Order;
import yalos.web.work.PageWork;
import yalos.web.work.Recent;
import yalos.web.work.TookTooLong;
import yalos.web.work.Work;
import yalos.web.work.WorkQueue;

/** Sorties of blocks, cut at once and looked at further in the background: sight, what coming home meets, other launch points, the light of the day. */
@Component
public class SortieDesk {
    private static final Duration END = Duration.ofMinutes(5);
    private static final int KEPT = 40;
    private static final long BYTES = 60_000_000;

    private final PageWork page;
    private final WorkQueue queue;
    private final Fleet fleet;
    private final Map<Asked, Found> kept = Recent.map(KEPT);
    private final Map<Lit, DayLight> lights = Recent.map(KEPT);
    private final Map<Long, Found> newest = new ConcurrentHashMap<>();

    SortieDesk(PageWork page, WorkQueue queue, Fleet fleet) {
        this.page = page;
        this.queue = queue;
        this.fleet = fleet;
    }

    /** All that sorties follow from. */
    private record Asked(BlockFacts facts, List<Packs.Pack> packs, List<Consumption> flights) {}

    private record Lit(BlockFacts facts, LocalDate date, String zone) {}

    /** What is found out, as far as it is. */
    public static final class Found {
        private Sorties sorties;
        private Draw draw;
        private List<Packs.Pack> packs = List.of();
        private String fault = "";
        private volatile Work<?> work;
        private volatile DayLight.Shade shade;
        private volatile DayLight light;
        private volatile List<LinkLoss> losses = List.of();
        private volatile Sight sight;
        private volatile List<LaunchSearch.Spot> spots = List.of();
        private volatile Segments segments;
        private volatile String step = "";
        private volatile boolean whole;

        public Optional<Sorties> sorties() {
            return Optional.ofNullable(sorties);
        }

        /** What the aircraft draws; also where no sortie can be flown. */
        public Optional<Draw> draw() {
            return Optional.ofNullable(draw);
        }

        /** The named batteries they are cut for; none where none has a name. */
        public List<Packs.Pack> packs() {
            return packs;
        }

        /** Why there are none. */
        public String fault() {
            return fault;
        }

        /** The ground as it is shaded. */
        Optional<DayLight.Shade> shade() {
            return Optional.ofNullable(shade);
        }

        public Optional<DayLight> light() {
            return Optional.ofNullable(light);
        }

        List<LinkLoss> losses() {
            return losses;
        }

        Optional<Sight> sight() {
            return Optional.ofNullable(sight);
        }

        List<LaunchSearch.Spot> spots() {
            return spots;
        }

        Optional<Segments> segments() {
            return Optional.ofNullable(segments);
        }

        /** Waits until all is looked at, or the looking was called off. */
        public void settle() {
            Work<?> looking = work;
            if (looking != null) {
                try {
                    looking.await(() -> true);
                } catch (CancellationException | TookTooLong calledOff) {
                    step = calledOff.getMessage();
                }
            }
        }

        boolean running() {
            return work != null && !whole && work.open();
        }

        boolean calledOff() {
            return work != null && !whole && work.calledOff();
        }

        /** What is being looked at, in words. */
        String step() {
            return step;
        }
    }

    /** What is known of a block's sorties already, without cutting any. */
    public Optional<Found> known(BlockFacts facts) {
        return Optional.ofNullable(kept.get(asked(facts)));
    }

    private Asked asked(BlockFacts facts) {
        return new Asked(
                facts.with(facts.field().with(sparse(facts.field().day()))),
                fleet.packs(),
                fleet.consumption(facts.aircraft().name()));
    }

    /** Sorties of a block; what takes longer is begun when nobody asked before. */
    public Found of(long block, BlockFacts facts, BlockPlan plan) {
        Asked asked = asked(facts);
        Found known = kept.get(asked);
        if (known != null && !known.calledOff()) {
            return known;
        }
        Found found = cut(asked, plan);
        kept.put(asked, found);
        begin(block, facts, plan, found);
        return found;
    }

    /** Sorties do not ask for the weather, the papers or when the crew leaves; light asks for date and clock. */
    private static DaySettings sparse(DaySettings day) {
        DaySettings usual = DaySettings.USUAL;
        return new DaySettings(
                day.date(),
                day.zone(),
                usual.startMin(),
                usual.notBefore(),
                day.changeMin(),
                usual.panelMin(),
                usual.chargers(),
                usual.chargeMin(),
                usual.limits(),
                usual.weather(),
                usual.earlier(),
                usual.papers());
    }

    private Found cut(Asked asked, BlockPlan plan) {
        Found found = new Found();
        found.packs = asked.packs;
        try {
            found.sorties = page.answer("Cutting into sorties", () -> {
                Sorties.Given given = given(asked, plan, found);
                return Sorties.of(given);
            });
        } catch (InputFault | TookTooLong fault) {
            found.fault = fault.getMessage();
        }
        return found;
    }

    /** What sorties are cut for besides the facts. */
    public record Means(List<Packs.Pack> packs, List<Consumption> flights) {}

    /** Batteries and measured flights as they are known now. */
    public Means means(BlockFacts facts) {
        Asked asked = asked(facts);
        return new Means(asked.packs, asked.flights);
    }

    /**
     * The same sorties as were cut for some means, whatever batteries there are now.
     *
     * @throws InputFault where none can be flown
     */
    public Sorties cut(BlockFacts facts, BlockPlan plan, Means means) {
        Asked asked = new Asked(facts, means.packs(), means.flights());
        return page.answer("Cutting into sorties", () -> Sorties.of(given(asked, plan, new Found())));
    }

    private static Sorties.Given given(Asked asked, BlockPlan plan, Found found) {
        SortieSettings settings = asked.facts.field().sorties();
        List<PlanePoint> launches = launches(asked.facts, plan);
        double speed = plan.design().speedMps();
        Draw model = Draw.of(plan.request().aircraft(), speed);
        Draw draw = Consumption.corrected(asked.flights, model, plan.timeline().pace(), speed);
        found.draw = draw;
        return new Sorties.Given(
                plan,
                Surroundings.of(plan, launches),
                settings,
                launches,
                draw,
                Packs.usable(plan, settings, asked.packs));
    }

    /** The block's own launch point first, then the others. */
    static List<PlanePoint> launches(BlockFacts facts, BlockPlan plan) {
        List<PlanePoint> launches =
                new ArrayList<>(plan.flight().launch().stream().toList());
        facts.field().sorties().launches().stream()
                .map(launch -> plan.block().plane().toPlane(launch.place()))
                .forEach(launches::add);
        return launches;
    }

    private void begin(long block, BlockFacts facts, BlockPlan plan, Found found) {
        Found before = newest.put(block, found);
        if (before != null && before.running()) {
            before.work.callOff();
        }
        try {
            found.work =
                    queue.submit(new Order("block " + block, "Sight, light and launch points", BYTES, END), work -> {
                        look(facts, plan, found);
                        return true;
                    });
        } catch (Busy busy) {
            found.step = busy.getMessage();
        }
    }

    private void look(BlockFacts facts, BlockPlan plan, Found found) {
        Surroundings around = found.sorties == null
                ? Surroundings.of(plan, List.of())
                : found.sorties.given().around();
        found.step = "shadows are being cast";
        found.shade = new DayLight.Shade(plan, around);
        found.light = light(facts, plan, around, found.shade);
        if (found.sorties != null) {
            found.step = "ways home are being looked at";
            found.losses = LinkLoss.of(found.sorties);
            found.step = "lines of sight are being drawn";
            SortieSettings settings = facts.field().sorties();
            PlanePoint pilot = settings.pilot()
                    .map(at -> plan.block().plane().toPlane(at))
                    .orElse(found.sorties.launches().get(0).launch());
            found.sight = Sight.of(found.sorties, pilot, settings.eyeM(), spanM(facts));
        }
        found.step = "launch points are being compared";
        Draw draw = found.draw == null
                ? Draw.of(plan.request().aircraft(), plan.design().speedMps())
                : found.draw;
        List<Double> usable = Packs.usable(plan, facts.field().sorties(), found.packs);
        if (!usable.isEmpty() && usable.get(0) > 0) {
            found.spots = LaunchSearch.of(
                    plan, draw, usable.get(0), facts.field().sorties().eyeM(), busy(facts));
        }
        if (found.sorties != null && found.sorties.all().size() > 1) {
            found.step = "segments are being compared";
            found.segments = Segments.of(
                            found.sorties, found.spots, facts.field().day().changeMin() * 60)
                    .orElse(null);
        }
        found.whole = true;
    }

    private static List<Outline> busy(BlockFacts facts) {
        return facts.control().avoided().stream()
                .filter(area -> area.kind() == Avoided.Kind.TRAFFIC || area.kind() == Avoided.Kind.CLOSED)
                .map(Avoided::outline)
                .toList();
    }

    /** What of an aircraft is seen, across; by its kind where nobody says (common practice). */
    public static double spanM(BlockFacts facts) {
        return facts.field().sorties().spanM().orElse(facts.aircraft().kind().wing() ? 1.2 : 0.35);
    }

    private DayLight light(BlockFacts facts, BlockPlan plan, Surroundings around, DayLight.Shade shade) {
        DaySettings day = facts.field().day();
        Lit lit = new Lit(facts.planning(), date(facts), day.zone());
        return Recent.once(lights, lit, () -> DayLight.of(plan, around, shade, date(facts), clock(facts)));
    }

    /** The day that is planned: as set, else the brief's, else today. */
    public static LocalDate date(BlockFacts facts) {
        return facts.field().day().date().or(() -> facts.brief().due()).orElseGet(() -> LocalDate.now(clock(facts)));
    }

    /** The clock of the place. */
    public static ZoneId clock(BlockFacts facts) {
        LonLat place = facts.outline().isEmpty()
                ? facts.launch().orElse(LonLat.of(0, 0))
                : facts.outline().middle();
        return facts.field().day().clock(place);
    }

    /** What the product wants of light. */
    static Needs needs(BlockFacts facts) {
        return Needs.of(facts.brief().purpose(), facts.brief().surface());
    }

    /** The day judged, ten minutes by ten minutes; none while its light is still looked at. */
    static List<Slot> slots(BlockFacts facts, BlockPlan plan, Found found, UnitChoice units) {
        LonLat place = plan.request().outline().middle();
        Limits limits = limits(facts, plan);
        return found.light()
                .map(light ->
                        Slot.of(light, place, needs(facts), facts.field().day().weather(), limits, units))
                .orElse(List.of());
    }

    /** The operator's limits with the aircraft's. */
    public static Limits limits(BlockFacts facts, BlockPlan plan) {
        return facts.field()
                .day()
                .limits()
                .forAircraft(
                        facts.aircraft().windLimitMps(), plan.design().scale().heightM());
    }
}
