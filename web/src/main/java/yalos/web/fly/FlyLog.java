package yalos.web.fly;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yalos.core.block.LocalPlane;
import yalos.core.flight.Place;
import yalos.core.geodesy.LonLat;
import yalos.core.rehearsal.Event;
import yalos.core.rehearsal.Sample;
import yalos.core.rehearsal.Shot;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.web.shell.NotThere;

/** The log of a simulated flight in open files: time, position, battery, satellites, wind, events. */
final class FlyLog {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private FlyLog() {}

    /** A file. */
    record File(String type, byte[] content) {}

    static File of(SimulatedFlight flight, String format) {
        return switch (format) {
            case "csv" -> new File("text/csv;charset=UTF-8", csv(flight).getBytes(StandardCharsets.UTF_8));
            case "geojson" ->
                new File("application/geo+json", geoJson(flight).toString().getBytes(StandardCharsets.UTF_8));
            default -> throw new NotThere("A log is written as csv and geojson, not as " + format + ".");
        };
    }

    private static LocalPlane plane(SimulatedFlight flight) {
        return flight.sorties().given().plan().block().plane();
    }

    private static String csv(SimulatedFlight flight) {
        StringBuilder text = new StringBuilder();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader(
                        "seconds",
                        "phase",
                        "longitude",
                        "latitude",
                        "height_above_geoid_m",
                        "height_above_take_off_m",
                        "ground_speed_mps",
                        "yaw_deg",
                        "battery_percent",
                        "home_needs_percent",
                        "satellites",
                        "solution",
                        "wind_mps",
                        "wind_from_deg",
                        "link_percent",
                        "photos",
                        "event")
                .get();
        double zero = flight.sortie().homing().takeOffUpM();
        boolean known = flight.sorties().given().plan().overGround().isPresent();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            int event = 0;
            for (Sample one : flight.samples()) {
                StringBuilder told = new StringBuilder();
                while (event < flight.events().size()
                        && flight.events().get(event).seconds() <= one.seconds()) {
                    Event happened = flight.events().get(event++);
                    told.append(told.isEmpty() ? "" : "; ")
                            .append(happened.words())
                            .append(happened.who().isEmpty() ? "" : " (" + happened.who() + ")");
                }
                LonLat at = plane(flight).toLonLat(one.known().point());
                printer.printRecord(
                        figure(one.seconds(), 1),
                        one.phase().name(),
                        figure(at.lonDeg(), 8),
                        figure(at.latDeg(), 8),
                        known ? figure(one.known().upM(), 2) : "",
                        figure(one.known().upM() - zero, 2),
                        figure(one.groundMps(), 2),
                        figure((Math.toDegrees(one.yawRad()) % 360 + 360) % 360, 1),
                        figure(100 * one.charge(), 1),
                        figure(100 * one.home(), 1),
                        one.satellites(),
                        one.solution(),
                        figure(one.windMps(), 1),
                        figure(Math.toDegrees(one.windFromRad()), 0),
                        figure(100 * one.link(), 0),
                        one.photos(),
                        told);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }

    private static String figure(double value, int decimals) {
        return String.format(Locale.ROOT, "%." + decimals + "f", value);
    }

    private static ObjectNode geoJson(SimulatedFlight flight) {
        ObjectNode root = JSON.createObjectNode();
        root.put("type", "FeatureCollection");
        ArrayNode features = root.putArray("features");
        ObjectNode path = feature(features, "LineString", "path");
        ArrayNode places = path.putArray("coordinates");
        ArrayNode times = ((ObjectNode) features.get(0).get("properties")).putArray("seconds");
        for (Sample one : flight.samples()) {
            position(places.addArray(), flight, one.known());
            times.add(Math.round(one.seconds() * 10) / 10.0);
        }
        for (Shot shot : flight.shots()) {
            ObjectNode point = feature(features, "Point", "photo");
            ObjectNode properties =
                    (ObjectNode) features.get(features.size() - 1).get("properties");
            properties.put("number", shot.number());
            properties.put("station", shot.station());
            properties.put("seconds", Math.round(shot.seconds() * 1000) / 1000.0);
            properties.put("written", shot.written());
            ArrayNode flaws = properties.putArray("flaws");
            shot.flaws().stream().sorted().forEach(flaw -> flaws.add(flaw.words()));
            position(
                    point.putArray("coordinates"),
                    flight,
                    new Place(
                            shot.known().eastM(),
                            shot.known().northM(),
                            shot.known().upM()));
        }
        for (Event event : flight.events()) {
            ObjectNode point = feature(features, "Point", "event");
            ObjectNode properties =
                    (ObjectNode) features.get(features.size() - 1).get("properties");
            properties.put("seconds", Math.round(event.seconds() * 10) / 10.0);
            properties.put("what", event.kind());
            properties.put("words", event.words());
            properties.put("who", event.who());
            position(point.putArray("coordinates"), flight, at(flight, event.seconds()));
        }
        return root;
    }

    private static Place at(SimulatedFlight flight, double seconds) {
        int index = (int) Math.max(0, Math.min(flight.samples().size() - 1.0, Math.floor(seconds) - 1));
        return flight.samples().isEmpty()
                ? flight.known()
                : flight.samples().get(index).known();
    }

    private static ObjectNode feature(ArrayNode features, String type, String kind) {
        ObjectNode feature = features.addObject();
        feature.put("type", "Feature");
        feature.putObject("properties").put("kind", kind);
        ObjectNode geometry = feature.putObject("geometry");
        geometry.put("type", type);
        return geometry;
    }

    /** Heights above the geoid; above the take-off over level ground of no known height. */
    private static void position(ArrayNode to, SimulatedFlight flight, Place place) {
        LonLat at = plane(flight).toLonLat(place.point());
        to.add(Math.round(at.lonDeg() * 1e8) / 1e8)
                .add(Math.round(at.latDeg() * 1e8) / 1e8)
                .add(Math.round(place.upM() * 100) / 100.0);
    }
}
