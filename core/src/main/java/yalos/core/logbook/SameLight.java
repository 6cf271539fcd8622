package yalos.core.logbook;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.geodesy.LonLat;
import yalos.core.light.Sun;
import yalos.core.light.SunDay;

/**
 * When the sun stands within some degrees of where it stood on an earlier flight: the same shadows, so that differences are of the ground and not of the light.
 *
 * @param closest when it comes nearest that day
 * @param offRad how far it is off then, as an angle on the sky
 * @param spans in which it is near enough; none where it never is
 */
public record SameLight(LocalDate date, Instant closest, double offRad, List<Span> spans) {
    private static final int STEP_S = 60;
    private static final double GOLDEN = (Math.sqrt(5) - 1) / 2;

    /** From when till when. */
    public record Span(Instant from, Instant to) {
        public Duration length() {
            return Duration.between(from, to);
        }
    }

    /**
     * One day looked at minute by minute, the ends of spans to a second.
     *
     * @param toleranceRad on the sky
     * @return empty where the sun does not rise
     */
    public static Optional<SameLight> of(LonLat place, Sun before, LocalDate date, double toleranceRad) {
        SunDay day = SunDay.of(place, date);
        if (day.alwaysDown()) {
            return Optional.empty();
        }
        Instant from = day.rise().orElse(day.noon().minusSeconds(12 * 3600));
        Instant to = day.set().orElse(day.noon().plusSeconds(12 * 3600));
        List<Span> spans = new ArrayList<>();
        Instant closest = from;
        double least = off(place, before, from);
        Instant opened = least <= toleranceRad ? from : null;
        double last = least;
        for (Instant at = from.plusSeconds(STEP_S); !at.isAfter(to); at = at.plusSeconds(STEP_S)) {
            double off = off(place, before, at);
            if (off < least) {
                least = off;
                closest = at;
            }
            if (opened == null && off <= toleranceRad) {
                opened = crossing(place, before, at.minusSeconds(STEP_S), at, toleranceRad);
            } else if (opened != null && off > toleranceRad) {
                spans.add(new Span(opened, crossing(place, before, at.minusSeconds(STEP_S), at, toleranceRad)));
                opened = null;
            }
            last = off;
        }
        if (opened != null && last <= toleranceRad) {
            spans.add(new Span(opened, to));
        }
        Instant nearest = least(place, before, closest);
        double off = off(place, before, nearest);
        if (spans.isEmpty() && off <= toleranceRad) {
            spans.add(new Span(nearest, nearest));
        }
        return Optional.of(new SameLight(date, nearest, off, List.copyOf(spans)));
    }

    /** Days on which the light comes back, of those from a date on; looked at day by day for a year. */
    public static List<SameLight> days(LonLat place, Sun before, LocalDate from, double toleranceRad) {
        List<SameLight> days = new ArrayList<>();
        for (int day = 0; day < 366; day++) {
            of(place, before, from.plusDays(day), toleranceRad)
                    .filter(light -> !light.spans().isEmpty())
                    .ifPresent(days::add);
        }
        return days;
    }

    /** Angle on the sky between where the sun stands and where it stood. */
    static double off(LonLat place, Sun before, Instant at) {
        return Sun.at(place, at).apartRad(before);
    }

    private static Instant crossing(LonLat place, Sun before, Instant low, Instant high, double tolerance) {
        boolean inside = off(place, before, low) <= tolerance;
        Instant from = low;
        Instant to = high;
        while (Duration.between(from, to).toMillis() > 500) {
            Instant middle = from.plusMillis(Duration.between(from, to).toMillis() / 2);
            if (off(place, before, middle) <= tolerance == inside) {
                from = middle;
            } else {
                to = middle;
            }
        }
        return inside ? from : to;
    }

    /** Golden section about the nearest minute. */
    private static Instant least(LonLat place, Sun before, Instant near) {
        Instant from = near.minusSeconds(STEP_S);
        Instant to = near.plusSeconds(STEP_S);
        while (Duration.between(from, to).toMillis() > 500) {
            long part = Math.round(Duration.between(from, to).toMillis() * (1 - GOLDEN));
            if (off(place, before, from.plusMillis(part)) < off(place, before, to.minusMillis(part))) {
                to = to.minusMillis(part);
            } else {
                from = from.plusMillis(part);
            }
        }
        return from;
    }
}
