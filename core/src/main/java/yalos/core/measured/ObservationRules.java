package yalos.core.measured;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.measured.Observation.Solution;

/** Whether a point was measured well enough (common practice). */
public final class ObservationRules {
    /** What is aimed at, horizontal and vertical, in metres. */
    public static final double WANTED_M = 0.02;
    /** Never worse. */
    public static final double WORST_M = 0.05;

    public static final int LEAST_EPOCHS = 5;
    private static final int FEW_SATELLITES = 6;
    private static final double POLE_ALIKE_M = 0.0015;

    private ObservationRules() {}

    /**
     * Something about an observation.
     *
     * @param rejects whether it must not be used; otherwise a practitioner would think twice
     */
    public record Remark(boolean rejects, String words) {}

    /**
     * @param epochs asked of a point in its surroundings
     * @param usualPoleM the pole's height on that day; empty where nobody knows
     */
    public static List<Remark> remarks(Observation one, int epochs, OptionalDouble usualPoleM) {
        List<Remark> remarks = new ArrayList<>();
        if (one.upM().isEmpty()) {
            remarks.add(new Remark(true, "no height"));
        }
        estimate(one.horizontalM(), "position", remarks);
        estimate(one.verticalM(), "height", remarks);
        one.rmsM().ifPresent(m -> {
            if (m > WORST_M) {
                remarks.add(new Remark(true, "RMS %.1f cm, never above 5 cm".formatted(m * 100)));
            }
        });
        if (one.solution() == Solution.FLOAT || one.solution() == Solution.SINGLE) {
            remarks.add(new Remark(true, one.solution().words() + " solution, not fixed"));
        } else if (one.solution() == Solution.UNKNOWN) {
            remarks.add(new Remark(false, "solution not recorded"));
        }
        if (one.epochs().isEmpty()) {
            remarks.add(new Remark(false, "epochs not recorded"));
        } else if (one.epochs().getAsInt() < LEAST_EPOCHS) {
            remarks.add(new Remark(
                    true, "%d epochs, at least 5".formatted(one.epochs().getAsInt())));
        } else if (one.epochs().getAsInt() < epochs) {
            remarks.add(new Remark(
                    false, "%d epochs, %d asked".formatted(one.epochs().getAsInt(), epochs)));
        }
        one.satellites().ifPresent(n -> {
            if (n < FEW_SATELLITES) {
                remarks.add(new Remark(false, n + " satellites only"));
            }
        });
        if (one.poleM().isPresent()
                && usualPoleM.isPresent()
                && Math.abs(one.poleM().getAsDouble() - usualPoleM.getAsDouble()) > POLE_ALIKE_M) {
            remarks.add(new Remark(
                    false,
                    "pole %.3f m, %.3f m the rest of the day"
                            .formatted(one.poleM().getAsDouble(), usualPoleM.getAsDouble())));
        }
        return remarks;
    }

    private static void estimate(OptionalDouble estimate, String what, List<Remark> remarks) {
        if (estimate.isEmpty()) {
            remarks.add(new Remark(false, what + " accuracy not recorded"));
        } else if (estimate.getAsDouble() > WORST_M) {
            remarks.add(
                    new Remark(true, "%s to %.1f cm, never above 5 cm".formatted(what, estimate.getAsDouble() * 100)));
        } else if (estimate.getAsDouble() > WANTED_M + 1e-9) {
            remarks.add(new Remark(false, "%s to %.1f cm, 2 cm wanted".formatted(what, estimate.getAsDouble() * 100)));
        }
    }

    public static boolean rejects(List<Remark> remarks) {
        return remarks.stream().anyMatch(Remark::rejects);
    }

    /** The pole's height that most observations of each day have; days without a date count as one. */
    public static Map<Optional<LocalDate>, Double> usualPoles(List<Observation> all) {
        Map<Optional<LocalDate>, Map<Long, Integer>> counts = new HashMap<>();
        for (Observation one : all) {
            one.poleM()
                    .ifPresent(m -> counts.computeIfAbsent(
                                    one.at().map(time -> time.toLocalDate()), day -> new HashMap<>())
                            .merge(Math.round(m * 1000), 1, Integer::sum));
        }
        Map<Optional<LocalDate>, Double> usual = new HashMap<>();
        counts.forEach((day, poles) -> poles.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .ifPresent(most -> usual.put(day, most.getKey() / 1000.0)));
        return usual;
    }
}
