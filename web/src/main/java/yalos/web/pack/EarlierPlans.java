package yalos.web.pack;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.exchange.EarlierFiles;
import yalos.core.exchange.EarlierPlan;
import yalos.core.exchange.EarlierPlan.Spot;
import yalos.core.exchange.EarlierPlan.Zero;
import yalos.core.fault.InputFault;
import yalos.core.flight.Flight;
import yalos.core.flight.Timeline;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.PhotoCount;
import yalos.web.block.OpenBlock;
import yalos.web.shell.NotThere;
import yalos.web.shell.Person;
import yalos.web.store.EarlierMapper;
import yalos.web.store.EarlierMapper.EarlierRow;
import yalos.web.work.Recent;
import yalos.web.work.WorkQueue;

/** Plans made earlier: read from open files, kept beside a block, proved over its ground against what it asks. */
@Service
class EarlierPlans {
    private static final int MOST = 20;
    private static final int CELLS = 40_000;
    private static final long BYTES = 60_000_000;
    private static final Duration END = Duration.ofMinutes(2);
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final EarlierMapper rows;
    private final WorkQueue queue;
    private final Map<Key, Proved> proved = Recent.map(20);

    EarlierPlans(EarlierMapper rows, WorkQueue queue) {
        this.rows = rows;
        this.queue = queue;
    }

    private record Key(long id, Object facts) {}

    /** A plan with what it would give. */
    record Proved(Flight flight, Judgement judgement, double seconds) {}

    /** A place as it is stored. */
    record Stored(double lon, double lat, Double up, Double yaw, Double pitch, Double roll, Integer strip) {}

    /** What is stored of a plan. */
    record StoredPlan(boolean stations, List<Stored> spots) {}

    /**
     * Reads a file by what it is.
     *
     * @throws InputFault for one that holds no flight
     */
    static EarlierPlan read(byte[] content, OpenBlock block, BlockPlan plan) {
        String head =
                new String(content, 0, Math.min(content.length, 2000), StandardCharsets.UTF_8).toLowerCase(Locale.ROOT);
        if (head.contains("<kml")) {
            return EarlierFiles.kml(content);
        }
        if (head.contains("<gpx")) {
            return EarlierFiles.gpx(content);
        }
        if (head.stripLeading().startsWith("{") || head.stripLeading().startsWith("\uFEFF{")) {
            return EarlierGeoJson.read(content);
        }
        return EarlierFiles.csv(content, plan.block().plane().grid());
    }

    List<EarlierRow> all(long block) {
        return rows.all(block);
    }

    /**
     * Keeps a plan.
     *
     * @param zero what its heights count from
     * @param height used where it has none
     */
    @Transactional
    public void keep(long block, String name, EarlierPlan earlier, Zero zero, OptionalDouble height) {
        if (rows.all(block).size() >= MOST) {
            throw new InputFault(
                    "file", name, "%d earlier plans are kept already; take one away first.".formatted(MOST));
        }
        String plain = name.replaceAll("[\\p{Cntrl}]+", " ").strip();
        List<Stored> spots = earlier.spots().stream().map(EarlierPlans::stored).toList();
        rows.keep(
                block,
                new EarlierRow(
                        0,
                        plain.isEmpty() ? "earlier plan" : plain.substring(0, Math.min(120, plain.length())),
                        zero.name(),
                        height.isPresent() ? height.getAsDouble() : null,
                        JSON.writeValueAsString(new StoredPlan(earlier.stations(), spots)),
                        LocalDateTime.now().withNano(0),
                        Person.present()));
    }

    @Transactional
    public void remove(long block, long id) {
        if (rows.remove(block, id) == 0) {
            throw new NotThere("This plan is gone already.");
        }
    }

    private static Stored stored(Spot spot) {
        return new Stored(
                spot.place().lonDeg(),
                spot.place().latDeg(),
                boxed(spot.upM()),
                boxed(spot.yawDeg()),
                boxed(spot.pitchDeg()),
                boxed(spot.rollDeg()),
                spot.strip().isPresent() ? spot.strip().getAsInt() : null);
    }

    private static Double boxed(OptionalDouble figure) {
        return figure.isPresent() ? figure.getAsDouble() : null;
    }

    private static OptionalDouble figure(Double boxed) {
        return boxed == null ? OptionalDouble.empty() : OptionalDouble.of(boxed);
    }

    private static EarlierPlan plan(EarlierRow row) {
        StoredPlan stored = JSON.readValue(row.spots(), new TypeReference<>() {});
        List<Spot> spots = new ArrayList<>();
        for (Stored one : stored.spots()) {
            spots.add(new Spot(
                    LonLat.of(one.lon(), one.lat()),
                    figure(one.up()),
                    figure(one.yaw()),
                    figure(one.pitch()),
                    figure(one.roll()),
                    one.strip() == null ? OptionalInt.empty() : OptionalInt.of(one.strip())));
        }
        return new EarlierPlan(spots, stored.stations(), Optional.of(Zero.valueOf(row.zero())));
    }

    static Flight flight(EarlierRow row, BlockPlan plan) {
        return plan(row).flown(plan, Zero.valueOf(row.zero()), figure(row.height()));
    }

    /** A plan proved; kept as long as neither it nor the block changes. */
    Proved proved(EarlierRow row, OpenBlock block, BlockPlan plan, HttpServletRequest request) {
        Key key = new Key(row.id(), block.facts().planning());
        Proved known = proved.get(key);
        if (known == null) {
            known = queue.answer(request, "Proving an earlier plan", BYTES, END, work -> prove(row, block, plan));
            proved.put(key, known);
        }
        return known;
    }

    private static Proved prove(EarlierRow row, OpenBlock block, BlockPlan plan) {
        Flight flight = flight(row, plan);
        Judgement judgement = PlanProof.of(plan, PhotoCount.cellSizeM(plan.block(), CELLS))
                .judged(
                        flight,
                        block.facts().brief().positioning(),
                        block.facts().brief().accuracy());
        return new Proved(
                flight, judgement, Timeline.of(flight, plan.timeline().pace()).totalS());
    }
}
