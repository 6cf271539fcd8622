package yalos.core.take;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.WeakGround;
import yalos.core.terrain.HeightGrid;

/**
 * A take held against its plan: is it complete, what is wrong with it, what has to be flown again?
 *
 * @param flaws of each photo's picture, the worst first
 * @param flown the photos that are of use, as a flight
 * @param lacking stations that have no useful photo, with the reason of each
 */
public record Take(
        BlockPlan plan,
        List<Taken> photos,
        TakeMatch match,
        List<List<Flaw>> flaws,
        TakenFlight flown,
        Map<Integer, String> lacking) {
    /** A position known to so much is fixed, to so much half fixed (common practice). */
    private static final double FIXED_M = 0.05;

    private static final double FLOATING_M = 0.5;
    private static final int MOST_NAMED = 6;

    /**
     * @param zone of the camera's clock where no file names one
     */
    public static Take of(BlockPlan plan, List<Taken> photos, Optional<ZoneOffset> zone) {
        List<Station> stations = plan.heightsUnknown() ? List.of() : Station.of(plan.flight(), plan.timeline());
        TakeMatch match = Matching.of(photos, stations, plan.block().plane(), zone);
        List<Optional<PlanePoint>> places = IntStream.range(0, photos.size())
                .mapToObj(i -> match.photos().get(i).frozen()
                        ? Optional.<PlanePoint>empty()
                        : photos.get(i).fix().map(Fix::place).map(plan.block().plane()::toPlane))
                .toList();
        List<List<Flaw>> flaws = PictureJudge.of(photos, match, places);
        TakenFlight flown = TakenFlight.of(plan, photos, match, flaws);
        return new Take(plan, photos, match, flaws, flown, lacking(match, flaws, photos));
    }

    private static Map<Integer, String> lacking(TakeMatch match, List<List<Flaw>> flaws, List<Taken> photos) {
        Map<Integer, String> lacking = new TreeMap<>();
        match.stations().forEach(station -> lacking.put(station.number(), "no photo"));
        for (int i = 0; i < photos.size(); i++) {
            TakeMatch.Matched one = match.photos().get(i);
            if (one.station() > 0 && !TakenFlight.useful(one, flaws.get(i))) {
                Flaw worst = flaws.get(i).stream()
                        .filter(flaw -> flaw.kind().useless())
                        .findFirst()
                        .orElseThrow();
                lacking.put(one.station(), worst.kind().words());
            }
        }
        for (int i = 0; i < photos.size(); i++) {
            TakeMatch.Matched one = match.photos().get(i);
            if (one.station() > 0 && TakenFlight.useful(one, flaws.get(i))) {
                lacking.remove(one.station());
            }
        }
        return lacking;
    }

    /** How many stations lack a useful photo for which reason, the most first. */
    public Map<String, Long> causes() {
        return lacking.values().stream()
                .collect(Collectors.groupingBy(cause -> cause, TreeMap::new, Collectors.counting()));
    }

    /** How well the position of a photo is known. */
    public enum Known {
        FIXED,
        FLOATING,
        SINGLE,
        UNSAID
    }

    /** How well a photo's position is known, by what its file or table says. */
    public Known known(int photo) {
        Optional<Fix> fix = photos.get(photo).fix();
        if (fix.isEmpty() || match.photos().get(photo).frozen()) {
            return Known.SINGLE;
        }
        if (fix.orElseThrow().horizontalM().isEmpty()) {
            Optional<Boolean> corrected = photos.get(photo).facts().position().differential();
            return corrected.map(flag -> flag ? Known.FLOATING : Known.SINGLE).orElse(Known.UNSAID);
        }
        double sigma = fix.orElseThrow().horizontalM().getAsDouble();
        return sigma <= FIXED_M ? Known.FIXED : sigma <= FLOATING_M ? Known.FLOATING : Known.SINGLE;
    }

    /** Photos of the flight whose position is so known. */
    public int count(Known wanted) {
        return (int) IntStream.range(0, photos.size())
                .filter(i -> match.photos().get(i).role().ofFlight() && known(i) == wanted)
                .count();
    }

    /** Seconds from the first photo of the flight to the last; 0 where fewer than two have a time. */
    public double seconds() {
        double[] times = IntStream.range(0, photos.size())
                .filter(i -> match.photos().get(i).role().ofFlight())
                .mapToDouble(i -> match.photos().get(i).seconds())
                .filter(time -> !Double.isNaN(time))
                .sorted()
                .toArray();
        return times.length < 2 ? 0 : times[times.length - 1] - times[0];
    }

    /**
     * Ground that the take gives less than the plan was to give, with its cause.
     *
     * @param stations that were to see it and lack a useful photo
     */
    public record Gap(WeakGround ground, String cause, List<Integer> stations) {}

    /**
     * Connected ground that the plan gives enough and the take does not, or that too few photos see now, the largest first. What the plan itself leaves weak is the plan's affair.
     *
     * @param planned judgement of the plan
     * @param taken judgement of the take, over the same cells
     */
    public List<Gap> gaps(Judgement planned, Judgement taken) {
        List<Gap> gaps = new ArrayList<>();
        HeightGrid grid = taken.proof().grid();
        for (WeakGround spot : LostGround.of(planned, taken)) {
            int column = (int) Math.floor((spot.x() - grid.west()) / grid.cellX());
            int row = (int) Math.floor((grid.north() - spot.y()) / grid.cellY());
            List<Integer> stations = PlanProof.seeing(plan, grid, column, row).stream()
                    .map(Exposure::id)
                    .filter(lacking::containsKey)
                    .toList();
            gaps.add(new Gap(spot, cause(stations), stations));
        }
        return gaps;
    }

    private String cause(List<Integer> stations) {
        if (stations.isEmpty()) {
            return "every station has its photo, but not from where it was planned";
        }
        Map<String, List<Integer>> byCause =
                stations.stream().collect(Collectors.groupingBy(lacking::get, TreeMap::new, Collectors.toList()));
        return byCause.entrySet().stream()
                .map(entry -> entry.getKey() + " at station" + (entry.getValue().size() > 1 ? "s " : " ")
                        + entry.getValue().stream()
                                .limit(MOST_NAMED)
                                .map(String::valueOf)
                                .collect(Collectors.joining(", "))
                        + (entry.getValue().size() > MOST_NAMED
                                ? " and %d more".formatted(entry.getValue().size() - MOST_NAMED)
                                : ""))
                .collect(Collectors.joining("; "));
    }
}
