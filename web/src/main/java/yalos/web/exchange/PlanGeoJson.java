package yalos.web.exchange;

import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.stream.Stream;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yalos.core.block.Outline;
import yalos.core.exchange.PlanSheetData;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.Design;

/**
 * A plan as GeoJSON (RFC 7946): strips as lines, stations as points whose third coordinate is the height above take-off,
 * where it is known, and a member {@code summary} that carries what forbids flying the plan and why figures are pinned.
 */
public final class PlanGeoJson {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private PlanGeoJson() {}

    /** Strips and stations, as the plan service answers. */
    public static ObjectNode collection(PlanSheetData data) {
        ObjectNode root = JSON.createObjectNode();
        root.put("type", "FeatureCollection");
        ArrayNode features = root.putArray("features");
        for (PlanSheetData.StripLine line : data.strips()) {
            ObjectNode geometry = feature(
                    features,
                    "LineString",
                    Map.of(
                            "kind",
                            "strip",
                            "strip",
                            line.line().number(),
                            "pass",
                            line.line().pass()));
            ArrayNode coordinates = geometry.putArray("coordinates");
            for (Exposure at : data.along(line.line())) {
                position(
                        coordinates.addArray(),
                        data.position(at),
                        data.heights(at).aboveTakeOffM());
            }
        }
        for (PlanSheetData.StationPoint point : data.stations()) {
            ObjectNode geometry = feature(features, "Point", Map.of());
            ObjectNode properties =
                    (ObjectNode) features.get(features.size() - 1).get("properties");
            properties.put("kind", "station");
            properties.put("index", point.number());
            properties.put("strip", point.exposure().line());
            properties.put("yawDeg", point.yawDeg());
            properties.put("yawTrueDeg", point.yawTrueDeg());
            properties.put("pitchDeg", point.pitchDeg());
            properties.put("rollDeg", point.rollDeg());
            properties.put("pass", point.exposure().pass());
            PlanSheetData.StationHeights heights = data.heights(point.exposure());
            heights.aboveGeoidM().ifPresent(geoid -> {
                heights.aboveGroundM().ifPresent(ground -> properties.put("aboveGroundM", rounded(ground, 1e3)));
                properties.put("aboveGeoidM", rounded(geoid, 1e3));
                properties.put(
                        "aboveEllipsoidM", rounded(heights.aboveEllipsoidM().orElse(Double.NaN), 1e3));
            });
            position(geometry.putArray("coordinates"), point.at(), heights.aboveTakeOffM());
        }
        ObjectNode summary = summary(data.plan());
        if (data.flight() != data.plan().flight()) {
            // A part of the plan: what is counted is the part's.
            summary.put("strips", data.flight().strips());
            summary.put("stations", data.flight().exposures().size());
            summary.put("pathLengthM", data.flight().pathLengthM());
            summary.remove("flightTimeS");
        }
        data.stops().forEach(summary.putArray("stops")::add);
        data.reasons().forEach(summary.putArray("reasons")::add);
        root.set("summary", summary);
        return root;
    }

    /** The same with the block and the launch point, for a file that is to be read again. */
    public static ObjectNode file(PlanSheetData data) {
        ObjectNode root = collection(data);
        ArrayNode features = (ArrayNode) root.get("features");
        ObjectNode block = feature(features, "MultiPolygon", Map.of("role", "block", "name", data.title()));
        ArrayNode polygons = block.putArray("coordinates");
        for (Outline.Part part : data.plan().request().outline().parts()) {
            ArrayNode rings = polygons.addArray();
            part.rings().forEach(ring -> ring(rings.addArray(), ring));
        }
        data.plan().request().patterns().corridor().ifPresent(corridor -> {
            ObjectNode line = feature(features, "LineString", Map.of("role", "axis", "name", data.title()));
            ObjectNode properties =
                    (ObjectNode) features.get(features.size() - 1).get("properties");
            properties.put("leftM", corridor.left().si());
            properties.put("rightM", corridor.right().si());
            ArrayNode places = line.putArray("coordinates");
            corridor.axis().forEach(at -> places.addArray().add(at.lonDeg()).add(at.latDeg()));
        });
        data.plan().request().launch().ifPresent(launch -> {
            ObjectNode point = feature(features, "Point", Map.of("role", "launch"));
            point.putArray("coordinates").add(launch.lonDeg()).add(launch.latDeg());
        });
        return root;
    }

    private static ObjectNode feature(ArrayNode features, String type, Map<String, Object> properties) {
        ObjectNode feature = features.addObject();
        feature.put("type", "Feature");
        ObjectNode written = feature.putObject("properties");
        properties.entrySet().stream().sorted(Map.Entry.comparingByKey()).forEach(entry -> {
            if (entry.getValue() instanceof Integer number) {
                written.put(entry.getKey(), number);
            } else {
                written.put(entry.getKey(), entry.getValue().toString());
            }
        });
        ObjectNode geometry = feature.putObject("geometry");
        geometry.put("type", type);
        return geometry;
    }

    private static void ring(ArrayNode to, List<LonLat> ring) {
        Stream.concat(ring.stream(), Stream.of(ring.get(0)))
                .forEach(corner -> to.addArray().add(corner.lonDeg()).add(corner.latDeg()));
    }

    private static void position(ArrayNode to, LonLat at, OptionalDouble heightM) {
        to.add(rounded(at.lonDeg(), 1e9)).add(rounded(at.latDeg(), 1e9));
        heightM.ifPresent(height -> to.add(rounded(height, 1e3)));
    }

    private static double rounded(double figure, double by) {
        return Math.round(figure * by) / by;
    }

    private static ObjectNode summary(BlockPlan plan) {
        Design design = plan.design();
        ObjectNode summary = JSON.createObjectNode();
        summary.put("gsdCm", design.scale().gsdM() * 100);
        summary.put("heightM", design.scale().heightM());
        summary.put("footprintAcrossM", design.scale().footprintAcrossM());
        summary.put("footprintAlongM", design.scale().footprintAlongM());
        summary.put("stripSpacingM", design.spacingM());
        summary.put("airBaseM", design.baseM());
        summary.put(
                "directionDeg",
                Math.toDegrees(plan.mainPass().pattern().directionRad().orElse(Double.NaN)));
        summary.put("strips", plan.flight().strips());
        summary.put("passes", plan.passes().passes().size());
        summary.put("stations", plan.photos());
        summary.put("pathLengthM", plan.flight().pathLengthM());
        if (Double.isFinite(plan.flightTimeS())) {
            summary.put("flightTimeS", plan.flightTimeS());
        }
        summary.put("speedMps", design.speedMps());
        summary.put("speedLimit", design.binding().limit().key());
        summary.put("intervalS", design.intervalS());
        summary.put("blurPx", design.blurPx());
        summary.put("areaM2", plan.areaM2());
        summary.put("epsg", plan.block().plane().grid().epsg());
        return summary;
    }
}
