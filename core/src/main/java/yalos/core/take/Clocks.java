package yalos.core.take;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.figures.Median;

/**
 * What time it was when each photo was taken. The camera's clock has fractions and goes evenly, but stands off; the satellites' time is right and often whole seconds. So the clock counts, moved by what it
 * stands off from the satellites in the middle of all photos that have both.
 *
 * @param offsetS camera's clock less satellites' time; empty where no photo has both
 * @param zone of the camera's clock, as the files say or as it follows
 * @param seconds of each photo, counted from {@code from}; NaN where nothing says
 * @param from what seconds count from
 */
record Clocks(OptionalDouble offsetS, ZoneOffset zone, double[] seconds, Instant from) {
    private static final double QUARTER_S = 900;
    /** So much beside the common offset, a photo's own satellite time counts. */
    private static final double JUMP_S = 5;

    static Clocks of(List<Taken> photos, Optional<ZoneOffset> place) {
        ZoneOffset zone = zone(photos).or(() -> place).orElseGet(() -> followed(photos));
        double[] off = photos.stream()
                .filter(photo ->
                        photo.facts().clock().isPresent() && photo.facts().gps().isPresent())
                .mapToDouble(photo -> seconds(
                        photo.facts().gps().orElseThrow(), clock(photo, zone).orElseThrow()))
                .toArray();
        OptionalDouble offset = off.length == 0 ? OptionalDouble.empty() : OptionalDouble.of(Median.of(off));
        Instant from = photos.stream()
                .map(photo -> at(photo, zone, offset))
                .flatMap(Optional::stream)
                .min(Comparator.naturalOrder())
                .orElse(Instant.EPOCH);
        double[] seconds = photos.stream()
                .mapToDouble(photo -> at(photo, zone, offset)
                        .map(instant -> seconds(from, instant))
                        .orElse(Double.NaN))
                .toArray();
        return new Clocks(offset, zone, seconds, from);
    }

    /** The zone that most files name. */
    private static Optional<ZoneOffset> zone(List<Taken> photos) {
        Map<ZoneOffset, Integer> counts = new HashMap<>();
        photos.forEach(photo -> photo.facts().offset().ifPresent(zone -> counts.merge(zone, 1, Integer::sum)));
        return counts.entrySet().stream().max(Map.Entry.comparingByValue()).map(Map.Entry::getKey);
    }

    /** The zone in which clock and satellites differ least: zones are whole quarters of an hour. */
    private static ZoneOffset followed(List<Taken> photos) {
        double[] apart = photos.stream()
                .filter(photo ->
                        photo.facts().clock().isPresent() && photo.facts().gps().isPresent())
                .mapToDouble(photo -> seconds(
                        photo.facts().gps().orElseThrow(),
                        photo.facts().clock().orElseThrow().toInstant(ZoneOffset.UTC)))
                .toArray();
        double quarters = apart.length == 0 ? 0 : Math.rint(Median.of(apart) / QUARTER_S);
        return ZoneOffset.ofTotalSeconds((int) (Math.max(-72, Math.min(72, quarters)) * QUARTER_S));
    }

    private static Optional<Instant> clock(Taken photo, ZoneOffset zone) {
        return photo.facts()
                .clock()
                .map(clock -> clock.toInstant(photo.facts().offset().orElse(zone)));
    }

    private static Optional<Instant> at(Taken photo, ZoneOffset zone, OptionalDouble offset) {
        Optional<Instant> clock =
                clock(photo, zone).map(instant -> instant.minusNanos(Math.round(offset.orElse(0) * 1e9)));
        Optional<Instant> gps = photo.facts().gps();
        boolean jumps = clock.isPresent()
                && gps.isPresent()
                && Math.abs(seconds(clock.orElseThrow(), gps.orElseThrow())) > JUMP_S;
        return clock.isEmpty() || jumps ? gps : clock;
    }

    private static double seconds(Instant from, Instant to) {
        return Duration.between(from, to).toNanos() / 1e9;
    }

    /** Whether the clock stands an hour off, or half a one: a zone or summer time set wrong. */
    boolean hoursOff() {
        double off = Math.abs(offsetS.orElse(0));
        double halves = Math.rint(off / 1800);
        return halves >= 1 && halves <= 48 && Math.abs(off - halves * 1800) < 120;
    }
}
