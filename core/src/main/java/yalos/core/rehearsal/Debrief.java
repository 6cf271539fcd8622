package yalos.core.rehearsal;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import yalos.core.camera.Lens;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Line;
import yalos.core.flight.Timeline;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightPlan;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Sortie;

/**
 * What a rehearsal was: what was done when, what had been better, and what the take lost.
 *
 * @param lines one for each fault that came
 * @param missing stations of the plan without a good photo, from 1
 * @param strips of those
 * @param causes how many stations each flaw cost
 * @param again what is missing, as a flight of its own; empty where nothing is
 */
public record Debrief(
        SimulatedFlight of,
        List<Told> lines,
        List<Integer> missing,
        List<Strip> strips,
        Map<String, Integer> causes,
        Optional<Flight> again) {
    /** A photo more on each side of a gap, so that the pieces hold together. */
    private static final int ROUND = 1;

    /**
     * A fault, and what was done.
     *
     * @param began seconds
     * @param better what is better done
     * @param good whether something that helps was done within half a minute
     */
    public record Told(Fault fault, double began, String words, String better, boolean good) {}

    /** A strip with stations that are missing. */
    public record Strip(int number, int missing, int of) {}

    private static final double PROMPT_S = 30;

    public static Debrief of(SimulatedFlight flight) {
        List<Told> told = flight.came().stream()
                .sorted(Comparator.comparingDouble(Came::began))
                .map(Debrief::told)
                .toList();
        Sortie sortie = flight.sortie();
        Set<Integer> taken = flight.taken();
        BlockPlan plan = flight.sorties().given().plan();
        List<Integer> missing = new ArrayList<>();
        Map<Integer, int[]> strips = new TreeMap<>();
        for (int i = sortie.start(); i <= sortie.to(); i++) {
            int[] counts =
                    strips.computeIfAbsent(plan.flight().exposures().get(i).line(), line -> new int[2]);
            counts[1]++;
            if (!taken.contains(i + 1)) {
                missing.add(i + 1);
                counts[0]++;
            }
        }
        List<Strip> left = strips.entrySet().stream()
                .filter(entry -> entry.getValue()[0] > 0)
                .map(entry -> new Strip(entry.getKey(), entry.getValue()[0], entry.getValue()[1]))
                .toList();
        return new Debrief(flight, told, missing, left, causes(flight, missing), again(plan, missing));
    }

    private static Told told(Came one) {
        String words = one.by().isEmpty()
                ? "Nothing was done about it%s."
                        .formatted(
                                Double.isNaN(one.ended())
                                        ? ""
                                        : "; it passed after %.0f s".formatted(one.ended() - one.began()))
                : "%.0f s later: %s."
                        .formatted(
                                one.answered() - one.began(),
                                one.by().orElseThrow().words());
        boolean good = one.by().isPresent() && one.answered() - one.began() <= PROMPT_S;
        return new Told(one.fault(), one.began(), words, one.fault().advice(), good);
    }

    /** Why stations are missing: the last photo of each says it. */
    private static Map<String, Integer> causes(SimulatedFlight flight, List<Integer> missing) {
        Map<Integer, Shot> last = new TreeMap<>();
        flight.shots().forEach(shot -> last.put(shot.station(), shot));
        Map<String, Integer> causes = new TreeMap<>();
        for (int station : missing) {
            Shot shot = last.get(station);
            String cause = shot == null
                    ? "not flown"
                    : shot.flaws().stream()
                            .filter(flaw -> flaw != Shot.Flaw.UNFIXED)
                            .sorted()
                            .findFirst()
                            .map(Shot.Flaw::words)
                            .orElse("not flown");
            causes.merge(cause, 1, Integer::sum);
        }
        return causes;
    }

    /** What is missing, with a photo more on each side, joined anew and laid over the same ground. */
    private static Optional<Flight> again(BlockPlan plan, List<Integer> missing) {
        if (missing.isEmpty()) {
            return Optional.empty();
        }
        List<Exposure> all = plan.flight().exposures();
        boolean[] wanted = new boolean[all.size()];
        for (int station : missing) {
            for (int i = Math.max(0, station - 1 - ROUND); i <= Math.min(all.size() - 1, station - 1 + ROUND); i++) {
                wanted[i] |= all.get(i).line() == all.get(station - 1).line();
            }
        }
        Flight kept = FlightBuilder.keeping(
                plan.flight(), plan.request().aircraft(), yalos.core.site.Detour.NONE, photo -> wanted[photo.id() - 1]);
        return Optional.of(
                plan.heights().map((HeightPlan heights) -> heights.alike(kept)).orElse(kept));
    }

    /** Seconds to fly again what is missing; 0 where nothing is. */
    public double againS() {
        return again.map(flight ->
                        Timeline.of(flight, of.sortie().homing().pace()).totalS())
                .orElse(0.0);
    }

    /** What was photographed, where it truly was: a flight like any other, to be proved. */
    public Flight flown() {
        BlockPlan plan = of.sorties().given().plan();
        Lens lens = Lens.of(plan.request().camera());
        List<yalos.core.flight.Leg> legs = new ArrayList<>();
        List<Exposure> photos = new ArrayList<>();
        List<Shot> good = of.shots().stream()
                .filter(shot -> shot.written() && shot.station() > 0)
                .toList();
        int line = 0;
        for (int from = 0, to; from < good.size(); from = to) {
            int strip = strip(plan, good.get(from));
            to = from + 1;
            while (to < good.size() && strip(plan, good.get(to)) == strip) {
                to++;
            }
            line++;
            legs.add(line(good.subList(from, to), line, strip, photos.size()));
            for (Shot shot : good.subList(from, to)) {
                Exposure planned = plan.flight().exposures().get(shot.station() - 1);
                photos.add(new Exposure(
                        photos.size() + 1,
                        planned.pass(),
                        line,
                        shot.truly(),
                        planned.lens() == null ? lens : planned.lens(),
                        planned.trackRad()));
            }
        }
        return new Flight(legs, photos, plan.flight().launch(), plan.flight().takeOffUpM());
    }

    private static int strip(BlockPlan plan, Shot shot) {
        return plan.flight().exposures().get(shot.station() - 1).line();
    }

    private static Line line(List<Shot> shots, int number, int strip, int first) {
        Shot begin = shots.get(0);
        Shot end = shots.get(shots.size() - 1);
        PlanePoint from = new PlanePoint(begin.truly().eastM(), begin.truly().northM());
        PlanePoint to = new PlanePoint(end.truly().eastM(), end.truly().northM());
        double track = from.distanceM(to) == 0 ? begin.truly().yawRad() : from.bearingRad(to);
        double[] up = shots.size() == 1
                ? Way.level(begin.truly().upM())
                : shots.stream().mapToDouble(shot -> shot.truly().upM()).toArray();
        double seconds = Math.max(0.1, end.seconds() - begin.seconds());
        return new Line(
                1,
                number,
                strip,
                from,
                to,
                track,
                up,
                Math.max(0.1, from.distanceM(to) / seconds),
                first,
                shots.size());
    }
}
