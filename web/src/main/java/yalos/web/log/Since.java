package yalos.web.log;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.kit.Kit;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;
import yalos.web.store.BlockFacts;
import yalos.web.store.ControlMapper.ObservationRow;
import yalos.web.store.GroundFacts;

/** What has changed on a site since it was flown, as far as it bears on flying it again. */
final class Since {
    /** Control older than this is looked at before it is trusted (common practice). */
    private static final long OLD_DAYS = 365;

    private Since() {}

    /**
     * A change, with what is proposed.
     *
     * @param part what may be taken as it is now
     * @param words what changed
     * @param take whether the present state is proposed
     */
    record Change(String part, String title, String words, boolean take, String mood) {}

    /**
     * A point that was measured then.
     *
     * @param age in words
     */
    record Point(String name, String role, String measured, String age, boolean old) {}

    static List<Change> of(BlockFacts then, BlockFacts now, Kit catalogue) {
        List<Change> all = new ArrayList<>();
        GroundFacts before = then.ground();
        GroundFacts present = now.ground();
        if (!before.obstacles().equals(present.obstacles())) {
            all.add(new Change(
                    "obstacles",
                    "Obstacles",
                    differ(
                            before.obstacles(),
                            present.obstacles(),
                            one -> one.kind().words() + " " + one.name()),
                    true,
                    "mind"));
        }
        if (!before.zones().equals(present.zones())) {
            all.add(new Change(
                    "zones",
                    "Zones",
                    differ(before.zones(), present.zones(), one -> one.kind().words() + " " + one.name()),
                    true,
                    "mind"));
        }
        if (!before.models().equals(present.models())) {
            all.add(new Change(
                    "terrain",
                    "Terrain",
                    "another elevation model is used now; heights above the ground follow it",
                    true,
                    "mind"));
        }
        if (!then.kit().equals(now.kit())) {
            all.add(new Change(
                    "kit",
                    "Kit",
                    then.kit().name().equals(now.kit().name())
                            ? "figures of “%s” changed in this block"
                                    .formatted(now.kit().name())
                            : "flown with “%s”, now “%s”; another camera gives another footprint"
                                    .formatted(then.kit().name(), now.kit().name()),
                    false,
                    "mind"));
        } else if (catalogue != null && !then.kit().equals(catalogue)) {
            all.add(new Change(
                    "catalogue",
                    "Kit",
                    "the catalogue has other figures for “%s” now: %s"
                            .formatted(then.kit().name(), service(then.kit(), catalogue)),
                    false,
                    "mind"));
        }
        if (!then.pins().of(Quantity.CEILING).equals(now.pins().of(Quantity.CEILING))) {
            all.add(new Change(
                    "ceiling", "Ceiling", "%s then, %s now".formatted(ceiling(then), ceiling(now)), true, "mind"));
        }
        if (!then.field().day().limits().equals(now.field().day().limits())
                || !then.field().day().papers().equals(now.field().day().papers())) {
            all.add(new Change(
                    "limits",
                    "Limits and papers",
                    "weather limits, checklist, contacts or what is asked here changed",
                    true,
                    "mind"));
        }
        if (!then.field().sorties().equals(now.field().sorties())) {
            all.add(new Change(
                    "sorties",
                    "Launch points and safety",
                    "launch points, return height, fence or charge changed",
                    true,
                    "mind"));
        }
        return all;
    }

    private static String ceiling(BlockFacts facts) {
        return facts.pins().of(Quantity.CEILING).map(Measure::asTyped).orElse("none");
    }

    private static String service(Kit then, Kit now) {
        if (!then.service().equals(now.service())) {
            return "firmware “%s”, calibrated %s"
                    .formatted(
                            now.service().firmware(),
                            now.service()
                                    .calibratedOn()
                                    .map(LocalDate::toString)
                                    .orElse("never"));
        }
        return then.aircraft().equals(now.aircraft()) ? "camera or scanner" : "aircraft";
    }

    private static <T> String differ(List<T> then, List<T> now, Function<T, String> name) {
        Set<T> before = Set.copyOf(then);
        Set<T> present = Set.copyOf(now);
        String come =
                now.stream().filter(one -> !before.contains(one)).map(name).collect(Collectors.joining(", "));
        String gone =
                then.stream().filter(one -> !present.contains(one)).map(name).collect(Collectors.joining(", "));
        return "%d then, %d now%s%s"
                .formatted(
                        then.size(),
                        now.size(),
                        come.isEmpty() ? "" : "; new: " + come,
                        gone.isEmpty() ? "" : "; gone or changed: " + gone);
    }

    /** Points with their last observation, and how old it is on a day. */
    static List<Point> points(BlockFacts then, List<ObservationRow> rows, LocalDate day) {
        List<Point> all = new ArrayList<>();
        for (ControlPoint point : then.control().points()) {
            LocalDateTime last = null;
            int count = 0;
            for (ObservationRow row : rows) {
                if (ControlLayout.key(row.point()).equals(ControlLayout.key(point.name()))
                        && !row.verdict().equals("REJECTED")) {
                    count++;
                    LocalDateTime at = row.measuredAt() == null ? row.keptAt() : row.measuredAt();
                    last = last == null || at.isAfter(last) ? at : last;
                }
            }
            long days = last == null ? -1 : ChronoUnit.DAYS.between(last.toLocalDate(), day);
            all.add(new Point(
                    point.name(),
                    point.role().words(),
                    last == null
                            ? "never measured"
                            : last.toLocalDate() + (count > 1 ? ", %d times".formatted(count) : ""),
                    last == null ? "" : age(days),
                    last != null && days > OLD_DAYS));
        }
        return all;
    }

    private static String age(long days) {
        return days < 0
                ? "measured after that day"
                : days < 60 ? days + " days" : days < 730 ? days / 30 + " months" : days / 365 + " years";
    }
}
