package yalos.web.take;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.exchange.FlightLog;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/** A flight log as GeoJSON: lines with the time of each of their places in {@code coordTimes}, {@code times} or {@code seconds}. */
final class LogJson {
    private static final JsonMapper JSON = new JsonMapper();

    private LogJson() {}

    /**
     * @param began when {@code seconds} count from
     * @throws InputFault for what is no GeoJSON, for times that are none, or not one for each place
     */
    static List<FlightLog.Moment> read(byte[] content, Optional<Instant> began) {
        JsonNode root;
        try {
            root = JSON.readTree(content);
        } catch (JacksonException broken) {
            throw new InputFault("file", "GeoJSON", "The file is no sound GeoJSON.");
        }
        List<FlightLog.Moment> moments = new ArrayList<>();
        int number = 0;
        for (JsonNode feature :
                root.path("type").asString("").equals("Feature") ? List.of(root) : root.path("features")) {
            number++;
            if (feature.path("geometry").path("type").asString("").equals("LineString")) {
                line(feature, number, began, moments);
            }
        }
        return moments;
    }

    private static void line(JsonNode feature, int number, Optional<Instant> began, List<FlightLog.Moment> moments) {
        JsonNode places = feature.path("geometry").path("coordinates");
        JsonNode properties = feature.path("properties");
        JsonNode times =
                properties.path("coordTimes").isArray() ? properties.path("coordTimes") : properties.path("times");
        JsonNode seconds = properties.path("seconds");
        JsonNode told = times.isArray() ? times : seconds;
        if (!told.isArray()) {
            return;
        }
        if (told.size() != places.size()) {
            throw new InputFault(
                    "file",
                    told.size(),
                    "Line %d has %d places and %d times; it needs a time for each place. Nothing was kept."
                            .formatted(number, places.size(), told.size()));
        }
        if (told == seconds && began.isEmpty()) {
            throw new InputFault(
                    "began",
                    "",
                    "This log counts seconds only. Give the day and time of its beginning, such as 2026-05-14 10:42:00, and bring it again.");
        }
        for (int i = 0; i < places.size(); i++) {
            JsonNode at = places.path(i);
            moments.add(new FlightLog.Moment(
                    told == seconds
                            ? began.orElseThrow()
                                    .plusNanos(Math.round(seconds.path(i).asDouble(0) * 1e9))
                            : FlightLog.time(times.path(i).asString(""), i + 1),
                    LonLat.of(at.path(0).asDouble(Double.NaN), at.path(1).asDouble(Double.NaN)),
                    at.size() > 2 ? OptionalDouble.of(at.path(2).asDouble()) : OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty()));
        }
    }
}
