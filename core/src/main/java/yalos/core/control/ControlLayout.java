package yalos.core.control;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import yalos.core.control.ControlPoint.Role;
import yalos.core.fault.InputFault;

/**
 * What the operator decided about the points of a block.
 *
 * @param points in the order of their making
 * @param avoided ground on which none may lie
 */
public record ControlLayout(List<ControlPoint> points, List<Avoided> avoided, Assumptions assumptions) {
    public static final ControlLayout NONE = new ControlLayout(List.of(), List.of(), Assumptions.USUAL);
    /** More are walked by nobody in a day. */
    public static final int MOST = 200;

    private static final int MOST_AVOIDED = 200;

    public ControlLayout {
        points = List.copyOf(points);
        avoided = List.copyOf(avoided);
        if (points.size() > MOST) {
            throw new InputFault("points", points.size(), "A block holds up to %d points.".formatted(MOST));
        }
        if (avoided.size() > MOST_AVOIDED) {
            throw new InputFault("avoided", avoided.size(), "Up to %d such areas.".formatted(MOST_AVOIDED));
        }
        Set<String> names = new HashSet<>();
        for (ControlPoint point : points) {
            if (!names.add(key(point.name()))) {
                throw new InputFault(
                        "name",
                        point.name(),
                        "There is a point %s already; give it another name.".formatted(point.name()));
            }
        }
    }

    /** Names that differ only in letter case or spaces are one name to a crew. */
    public static String key(String name) {
        return name.strip().replaceAll("\\s+", " ").toLowerCase(Locale.ROOT);
    }

    public List<ControlPoint> of(Role role) {
        return points.stream().filter(point -> point.role() == role).toList();
    }

    public Optional<ControlPoint> named(String name) {
        return points.stream()
                .filter(point -> key(point.name()).equals(key(name)))
                .findFirst();
    }

    public ControlLayout with(List<ControlPoint> others) {
        return new ControlLayout(others, avoided, assumptions);
    }

    public ControlLayout with(Assumptions others) {
        return new ControlLayout(points, avoided, others);
    }

    public ControlLayout avoiding(List<Avoided> others) {
        return new ControlLayout(points, others, assumptions);
    }

    /** One more. */
    public ControlLayout plus(ControlPoint point) {
        List<ControlPoint> more = new ArrayList<>(points);
        more.add(point);
        return with(more);
    }

    /**
     * One changed.
     *
     * @throws InputFault where there is none of that name
     */
    public ControlLayout changed(String name, UnaryOperator<ControlPoint> change) {
        needed(name);
        return with(points.stream()
                .map(point -> key(point.name()).equals(key(name)) ? change.apply(point) : point)
                .toList());
    }

    /**
     * One less.
     *
     * @throws InputFault where there is none of that name
     */
    public ControlLayout without(String name) {
        needed(name);
        return with(points.stream()
                .filter(point -> !key(point.name()).equals(key(name)))
                .toList());
    }

    private void needed(String name) {
        if (named(name).isEmpty()) {
            throw new InputFault("name", name, "There is no point %s any more; reload the page.".formatted(name));
        }
    }

    /** The next free number as a name: 1, 2, 3 … */
    public String nextName() {
        int number = 1;
        while (named(String.valueOf(number)).isPresent()) {
            number++;
        }
        return String.valueOf(number);
    }
}
