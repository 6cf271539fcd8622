package yalos.core.day;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import yalos.core.weather.Limits.Verdict;

/**
 * A stretch of the day in which can be flown.
 *
 * @param from minute of the day
 * @param to minute of the day
 * @param verdict go, or mind where something speaks against some of it
 * @param fits whether all sorties fit into it
 * @param lowestRad sun at its lowest
 * @param highestRad sun at its highest
 * @param windMps strongest wind near the ground; not a number where unknown
 * @param reasons what speaks against it
 */
public record Window(
        int from,
        int to,
        Verdict verdict,
        boolean fits,
        double lowestRad,
        double highestRad,
        double windMps,
        List<String> reasons) {
    private static final int MOST = 3;

    /** Minutes it lasts. */
    public int minutes() {
        return to - from;
    }

    /**
     * The best few: what is clear and long enough first, then what is long enough but asks to be minded, then by length.
     *
     * @param neededMin that all sorties take with their battery changes
     */
    public static List<Window> best(List<Slot> slots, double neededMin) {
        List<Window> windows = new ArrayList<>(runs(slots, Verdict.GO, neededMin));
        runs(slots, Verdict.MIND, neededMin).stream()
                .filter(wide -> windows.stream().noneMatch(clear -> clear.from == wide.from && clear.to == wide.to))
                .forEach(windows::add);
        windows.sort(Comparator.comparing((Window window) -> !window.fits)
                .thenComparing(window -> window.verdict != Verdict.GO)
                .thenComparing(window -> -window.minutes()));
        return windows.subList(0, Math.min(MOST, windows.size()));
    }

    /** Longest runs of slots no worse than a verdict. */
    private static List<Window> runs(List<Slot> slots, Verdict worst, double neededMin) {
        List<Window> runs = new ArrayList<>();
        for (int from = 0, to; from < slots.size(); from = to) {
            to = from + 1;
            if (slots.get(from).verdict().compareTo(worst) > 0) {
                continue;
            }
            while (to < slots.size() && slots.get(to).verdict().compareTo(worst) <= 0) {
                to++;
            }
            runs.add(window(slots.subList(from, to), neededMin));
        }
        return runs;
    }

    private static Window window(List<Slot> run, double neededMin) {
        int from = run.get(0).minute();
        int to = run.get(run.size() - 1).minute() + Slot.MINUTES;
        Verdict verdict = Verdict.GO;
        double lowest = Double.POSITIVE_INFINITY;
        double highest = Double.NEGATIVE_INFINITY;
        double wind = Double.NaN;
        Set<String> reasons = new LinkedHashSet<>();
        for (Slot slot : run) {
            verdict = verdict.worse(slot.verdict());
            lowest = Math.min(lowest, slot.elevationRad());
            highest = Math.max(highest, slot.elevationRad());
            wind = Double.isNaN(wind) || slot.windMps() > wind ? slot.windMps() : wind;
            reasons.addAll(slot.reasons());
        }
        return new Window(from, to, verdict, to - from >= neededMin, lowest, highest, wind, told(reasons));
    }

    /** One reason of each kind: the first of those that differ in their figures only. */
    private static List<String> told(Set<String> reasons) {
        Map<String, String> kinds = new LinkedHashMap<>();
        reasons.forEach(reason -> kinds.putIfAbsent(reason.replaceAll("[0-9.]+", "#"), reason));
        return kinds.values().stream().limit(MOST).toList();
    }
}
