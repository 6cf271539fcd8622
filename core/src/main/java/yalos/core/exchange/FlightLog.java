package yalos.core.exchange;

import io.jenetics.jpx.GPX;
import io.jenetics.jpx.Length;
import io.jenetics.jpx.WayPoint;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/** Where an aircraft was when, as its log has it: a GPX track with times, or a table. Heights above the geoid. */
public final class FlightLog {
    private FlightLog() {}

    /**
     * A moment.
     *
     * @param yawDeg clockwise from true north
     */
    public record Moment(
            Instant at,
            LonLat place,
            OptionalDouble upM,
            OptionalDouble yawDeg,
            OptionalDouble pitchDeg,
            OptionalDouble rollDeg) {}

    private static final Map<String, List<String>> COLUMNS = Map.of(
            "time", List.of("time", "utc", "timestamp", "datetime", "time_utc", "gps_time", "date_time"),
            "seconds", List.of("seconds", "elapsed_s", "time_s"),
            "lon", List.of("longitude", "lon", "lng", "longitude_deg", "lon_deg"),
            "lat", List.of("latitude", "lat", "latitude_deg", "lat_deg"),
            "up",
                    List.of(
                            "height_above_geoid_m",
                            "height_geoid_m",
                            "altitude_m",
                            "altitude",
                            "height_m",
                            "height",
                            "elevation",
                            "ele"),
            "yaw", List.of("yaw_true_deg", "yaw_deg", "yaw", "heading_deg", "heading"),
            "pitch", List.of("camera_pitch_deg", "pitch_deg"),
            "roll", List.of("camera_roll_deg"));

    /** Track points with a time. */
    public static List<Moment> gpx(byte[] content) {
        SafeXml.check(content, "GPX");
        List<Moment> moments = new ArrayList<>();
        try {
            GPX gpx = GPX.Reader.of(GPX.Reader.Mode.LENIENT).read(new ByteArrayInputStream(content));
            gpx.tracks()
                    .forEach(track -> track.segments()
                            .forEach(segment -> segment.points()
                                    .forEach(point -> moment(point).ifPresent(moments::add))));
        } catch (IOException | IllegalArgumentException e) {
            throw new InputFault(
                    "file", "GPX", "The GPX cannot be read: a point lacks its position or has one out of range.");
        }
        return moments;
    }

    private static Optional<Moment> moment(WayPoint point) {
        return point.getTime()
                .map(time -> new Moment(
                        time,
                        LonLat.of(
                                point.getLongitude().doubleValue(),
                                point.getLatitude().doubleValue()),
                        point.getElevation()
                                .map(up -> OptionalDouble.of(up.to(Length.Unit.METER)))
                                .orElse(OptionalDouble.empty()),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.empty()));
    }

    /**
     * A table with a heading: a time (by UTC where it names no zone) or seconds, latitude and longitude, and whatever of height and heading it has.
     *
     * @param began when its seconds count from, where it has seconds alone
     */
    public static List<Moment> csv(byte[] content, Optional<Instant> began) {
        PointTable table = PointTable.read(content, 3);
        List<String> heading = table.heading().stream()
                .map(name -> name.strip().toLowerCase(Locale.ROOT).replace(' ', '_'))
                .toList();
        Map<String, Integer> at = new HashMap<>();
        COLUMNS.forEach((column, names) -> names.stream()
                .filter(heading::contains)
                .findFirst()
                .ifPresent(name -> at.put(column, heading.indexOf(name))));
        boolean timed = at.containsKey("time") || at.containsKey("seconds");
        if (!timed || !at.containsKey("lat") || !at.containsKey("lon")) {
            throw new InputFault(
                    "file",
                    String.join(", ", table.heading()),
                    "The log needs a heading with a time (or seconds), latitude and longitude; it has “%s”."
                            .formatted(String.join(", ", table.heading())));
        }
        if (!at.containsKey("time") && began.isEmpty()) {
            throw new InputFault(
                    "began",
                    "",
                    "This log counts seconds only. Give the day and time of its first line, such as 2026-05-14 10:42:00, and bring it again.");
        }
        List<Moment> moments = new ArrayList<>();
        for (int row = 0; row < table.rows().size(); row++) {
            List<String> cells = table.rows().get(row);
            int shown = row + 2;
            OptionalDouble lat = figure(cells, at.get("lat"), shown);
            OptionalDouble lon = figure(cells, at.get("lon"), shown);
            if (lat.isPresent() && lon.isPresent()) {
                Instant when = at.containsKey("time")
                        ? time(cells.get(at.get("time")), shown)
                        : began.orElseThrow()
                                .plusNanos(Math.round(
                                        figure(cells, at.get("seconds"), shown).orElse(0) * 1e9));
                moments.add(new Moment(
                        when,
                        LonLat.of(lon.getAsDouble(), lat.getAsDouble()),
                        figure(cells, at.get("up"), shown),
                        figure(cells, at.get("yaw"), shown),
                        figure(cells, at.get("pitch"), shown),
                        figure(cells, at.get("roll"), shown)));
            }
        }
        return moments;
    }

    /**
     * A moment as logs write it, by UTC where it names no zone.
     *
     * @throws InputFault naming the row where it is none
     */
    public static Instant time(String text, int row) {
        String plain = text.strip().replace(' ', 'T');
        try {
            return OffsetDateTime.parse(plain).toInstant();
        } catch (DateTimeException withoutZone) {
            try {
                return LocalDateTime.parse(plain).toInstant(ZoneOffset.UTC);
            } catch (DateTimeException none) {
                throw new InputFault(
                        "file",
                        text,
                        "Row %d: “%s” is no time such as 2026-05-14 10:42:00.5. Nothing was kept."
                                .formatted(row, text));
            }
        }
    }

    private static OptionalDouble figure(List<String> cells, Integer column, int row) {
        if (column == null || cells.get(column).isBlank()) {
            return OptionalDouble.empty();
        }
        try {
            double value = Double.parseDouble(cells.get(column).strip());
            return Double.isFinite(value) ? OptionalDouble.of(value) : OptionalDouble.empty();
        } catch (NumberFormatException noFigure) {
            throw new InputFault(
                    "file",
                    cells.get(column),
                    "Row %d: “%s” is no figure. Nothing was kept.".formatted(row, cells.get(column)));
        }
    }
}
