package yalos.web.control;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.block.LocalPlane;
import yalos.core.control.ControlLayout;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.measured.BaseShift;
import yalos.core.measured.Benchmarks;
import yalos.core.measured.MeasuredPoint;
import yalos.core.measured.Observation;
import yalos.core.measured.Observation.Solution;
import yalos.core.measured.ObservationRules;
import yalos.web.shell.Person;
import yalos.web.store.ControlMapper;
import yalos.web.store.ControlMapper.BaseRow;
import yalos.web.store.ControlMapper.MarkRow;
import yalos.web.store.ControlMapper.ObservationRow;
import yalos.web.store.ControlMapper.ShiftRow;

/**
 * What was measured on the ground. Observations stand as they were brought; a base put right afterwards and the shift of benchmarks are laid over them when they are read, once the
 * operator has applied them.
 */
@Component
public class MeasuredPoints {
    static final String AUTO = "AUTO";
    static final String USED = "USED";
    static final String REJECTED = "REJECTED";
    private static final int LONGEST_WHAT = 500;

    private final ControlMapper rows;

    MeasuredPoints(ControlMapper rows) {
        this.rows = rows;
    }

    /**
     * An observation judged.
     *
     * @param one with all shifts that are applied
     * @param used whether it counts
     */
    public record Judged(ObservationRow row, Observation one, List<ObservationRules.Remark> remarks, boolean used) {}

    /** All of a block, in the order they were brought. */
    @Transactional(readOnly = true)
    public List<Judged> judged(long block, LocalPlane plane, int epochs) {
        List<ObservationRow> kept = rows.observations(block);
        Optional<BaseShift> base = rows.base(block).filter(BaseRow::applied).flatMap(MeasuredPoints::shift);
        Optional<ShiftRow> shift = rows.shift(block);
        List<Observation> all = kept.stream()
                .map(MeasuredPoints::observation)
                .map(one -> base.map(moved -> moved.moved(one)).orElse(one))
                .map(one -> shift.map(moved -> moved(plane, one, moved)).orElse(one))
                .toList();
        Map<Optional<LocalDate>, Double> poles = ObservationRules.usualPoles(all);
        List<Judged> judged = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            Observation one = all.get(i);
            Double pole = poles.get(one.at().map(LocalDateTime::toLocalDate));
            List<ObservationRules.Remark> remarks = ObservationRules.remarks(
                    one, epochs, pole == null ? OptionalDouble.empty() : OptionalDouble.of(pole));
            String verdict = kept.get(i).verdict();
            boolean used = verdict.equals(USED) || verdict.equals(AUTO) && !ObservationRules.rejects(remarks);
            judged.add(new Judged(kept.get(i), one, remarks, used));
        }
        return judged;
    }

    private static Observation moved(LocalPlane plane, Observation one, ShiftRow by) {
        PlanePoint at = plane.toPlane(one.place());
        return one.moved(
                plane.toLonLat(at.xM() + by.east(), at.yM() + by.north()),
                one.upM().isPresent() ? OptionalDouble.of(one.upM().getAsDouble() + by.up()) : OptionalDouble.empty());
    }

    /** The vector from where a base was set up to where it truly stood, where both are known. */
    static Optional<BaseShift> shift(BaseRow base) {
        return base.trueLon() == null || base.trueLat() == null || base.trueEllipsoid() == null
                ? Optional.empty()
                : Optional.of(BaseShift.between(
                        LonLat.of(base.lon(), base.lat()),
                        base.ellipsoid(),
                        LonLat.of(base.trueLon(), base.trueLat()),
                        base.trueEllipsoid()));
    }

    static Observation observation(ObservationRow row) {
        return new Observation(
                row.point(),
                Optional.ofNullable(row.measuredAt()),
                LonLat.of(row.lon(), row.lat()),
                figure(row.up()),
                count(row.epochs()),
                figure(row.horizontal()),
                figure(row.vertical()),
                figure(row.rms()),
                Solution.valueOf(row.solution()),
                count(row.satellites()),
                figure(row.pole()),
                row.note());
    }

    private static OptionalDouble figure(Double kept) {
        return kept == null ? OptionalDouble.empty() : OptionalDouble.of(kept);
    }

    private static OptionalInt count(Integer kept) {
        return kept == null ? OptionalInt.empty() : OptionalInt.of(kept);
    }

    private static Double orNull(OptionalDouble figure) {
        return figure.isPresent() ? figure.getAsDouble() : null;
    }

    private static Integer orNull(OptionalInt count) {
        return count.isPresent() ? count.getAsInt() : null;
    }

    /** Keeps observations; all of them or none. */
    @Transactional
    public void append(long block, List<Observation> all, String source) {
        for (Observation one : all) {
            rows.append(
                    block,
                    new ObservationRow(
                            0,
                            one.point(),
                            one.at().orElse(null),
                            one.place().lonDeg(),
                            one.place().latDeg(),
                            orNull(one.upM()),
                            orNull(one.epochs()),
                            orNull(one.horizontalM()),
                            orNull(one.verticalM()),
                            orNull(one.rmsM()),
                            one.solution().name(),
                            orNull(one.satellites()),
                            orNull(one.poleM()),
                            shortened(one.note(), 300),
                            shortened(source, 200),
                            null,
                            Person.present(),
                            AUTO,
                            ""));
        }
        noted(block, all.size() == 1 ? all.get(0).point() : "", all.size() + " measured, " + source);
    }

    private static String shortened(String text, int longest) {
        return text.length() <= longest ? text : text.substring(0, longest);
    }

    /**
     * Uses or rejects an observation by hand.
     *
     * @throws InputFault without a reason, where the rules say otherwise
     */
    @Transactional
    public void judge(long block, long id, String verdict, String reason) {
        if (!Set.of(AUTO, USED, REJECTED).contains(verdict)) {
            throw new InputFault("verdict", verdict, "An observation is used or rejected.");
        }
        if (!verdict.equals(AUTO) && reason.isBlank()) {
            throw new InputFault("reason", "", "Give a reason; it stays with the observation.");
        }
        if (rows.judge(block, id, verdict, shortened(reason.strip(), 300)) == 0) {
            throw new InputFault("id", id, "There is no such observation any more; reload the page.");
        }
        noted(
                block,
                "",
                "observation %d %s: %s"
                        .formatted(
                                id,
                                verdict.equals(USED) ? "used" : verdict.equals(REJECTED) ? "rejected" : "by the rules",
                                reason.strip()));
    }

    /** The points as all observations that are used make them, by the key of the name. */
    public Map<String, MeasuredPoint> points(List<Judged> judged, LocalPlane plane) {
        Map<String, List<Observation>> byName = new LinkedHashMap<>();
        judged.stream()
                .filter(Judged::used)
                .forEach(one -> byName.computeIfAbsent(
                                ControlLayout.key(one.one().point()), name -> new ArrayList<>())
                        .add(one.one()));
        Map<String, MeasuredPoint> points = new LinkedHashMap<>();
        byName.forEach((name, used) -> points.put(name, MeasuredPoint.of(plane, used)));
        return points;
    }

    /** Residuals of the known marks that were measured with a height; empty where none was. */
    public Optional<Benchmarks> benchmarks(long block, Map<String, MeasuredPoint> points, LocalPlane plane) {
        List<Benchmarks.Residual> residuals = new ArrayList<>();
        for (MarkRow mark : rows.marks(block)) {
            MeasuredPoint measured = points.get(ControlLayout.key(mark.name()));
            if (measured != null && measured.upM().isPresent()) {
                Benchmarks.Mark known = new Benchmarks.Mark(mark.name(), LonLat.of(mark.lon(), mark.lat()), mark.up());
                residuals.add(Benchmarks.residual(plane, known, measured));
            }
        }
        return residuals.isEmpty() ? Optional.empty() : Optional.of(Benchmarks.of(residuals));
    }

    /** How often each point was measured, by the key of its name. */
    public Map<String, Integer> counts(long block) {
        Map<String, Integer> counts = new HashMap<>();
        rows.observations(block).forEach(row -> counts.merge(ControlLayout.key(row.point()), 1, Integer::sum));
        return counts;
    }

    /** Keys of the names of the points that were measured: their roles stand. */
    Set<String> names(long block) {
        return counts(block).keySet();
    }

    /** The base of a block, where one was told. */
    public Optional<BaseRow> base(long block) {
        return rows.base(block);
    }

    /** Keeps what was decided of something measured. */
    void noted(long block, String point, String what) {
        String words = point.isEmpty() ? what : "point " + point + ": " + what;
        rows.note(block, Person.present(), shortened(words, LONGEST_WHAT));
    }
}
