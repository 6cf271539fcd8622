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
import yalos.core.flight.FlownLines;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.FlyAgain;
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
        Optional<FlyAgain> again) {
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
        return new Debrief(flight, told, missing, left, causes(flight, missing), FlyAgain.of(plan, missing));
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

    /** Seconds to fly again what is missing; 0 where nothing is. */
    public double againS() {
        return again.map(FlyAgain::seconds).orElse(0.0);
    }

    /** What was photographed, where it truly was: a flight like any other, to be proved. */
    public Flight flown() {
        BlockPlan plan = of.sorties().given().plan();
        Lens lens = Lens.of(plan.request().camera());
        List<FlownLines.Release> releases = of.shots().stream()
                .filter(shot -> shot.written() && shot.station() > 0)
                .map(shot -> {
                    Exposure planned = plan.flight().exposures().get(shot.station() - 1);
                    Lens own = planned.lens() == null ? lens : planned.lens();
                    return new FlownLines.Release(
                            new Exposure(1, planned.pass(), 1, shot.truly(), own, planned.trackRad()),
                            planned.line(),
                            shot.seconds());
                })
                .toList();
        return FlownLines.of(releases, plan.flight().launch(), plan.flight().takeOffUpM());
    }
}
