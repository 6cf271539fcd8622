package yalos.web.store;

import java.time.LocalDate;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.TreeMap;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.brief.Positioning;
import yalos.core.brief.Priority;
import yalos.core.brief.Purpose;
import yalos.core.brief.Surface;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.ledger.Pins;
import yalos.core.ledger.Quantity;
import yalos.core.units.Measure;

/**
 * {@link BlockFacts} as the text they are stored as. The shape has a number of its own, so that facts of older versions can
 * be read for ever.
 */
public final class FactsJson {
    private static final int SHAPE = 1;
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private FactsJson() {}

    private record Stored(
            int shape,
            List<StoredPart> outline,
            double[] launch,
            Integer epsg,
            Long cameraId,
            CameraRow camera,
            Aircraft aircraft,
            Map<String, String> pins,
            StoredBrief brief) {}

    private record StoredBrief(
            Purpose purpose,
            String decision,
            Double smallestM,
            Double horizontalM,
            Double verticalM,
            Surface surface,
            Priority priority,
            Positioning positioning,
            String delivery,
            String client,
            String due,
            Map<String, Brief.Ruling> rulings) {

        static StoredBrief of(Brief brief) {
            return new StoredBrief(
                    brief.purpose().orElse(null),
                    brief.decision(),
                    orNull(brief.smallestM()),
                    orNull(brief.horizontalM()),
                    orNull(brief.verticalM()),
                    brief.surface(),
                    brief.priority(),
                    brief.positioning(),
                    brief.delivery(),
                    brief.client(),
                    brief.due().map(LocalDate::toString).orElse(null),
                    new TreeMap<>(brief.rulings()));
        }

        Brief brief() {
            return new Brief(
                    Optional.ofNullable(purpose),
                    decision,
                    orEmpty(smallestM),
                    orEmpty(horizontalM),
                    orEmpty(verticalM),
                    surface,
                    priority,
                    positioning,
                    delivery,
                    client,
                    Optional.ofNullable(due).map(LocalDate::parse),
                    rulings);
        }

        private static Double orNull(OptionalDouble figure) {
            return figure.isPresent() ? figure.getAsDouble() : null;
        }

        private static OptionalDouble orEmpty(Double figure) {
            return figure == null ? OptionalDouble.empty() : OptionalDouble.of(figure);
        }
    }

    private record StoredPart(List<double[]> outer, List<List<double[]>> holes) {}

    public static String write(BlockFacts facts) {
        Map<String, String> pins = new LinkedHashMap<>();
        facts.pins().asMap().forEach((quantity, value) -> pins.put(quantity.key(), value.asTyped()));
        return JSON.writeValueAsString(new Stored(
                SHAPE,
                facts.outline().parts().stream()
                        .map(part -> new StoredPart(
                                pairs(part.outer()),
                                part.holes().stream().map(FactsJson::pairs).toList()))
                        .toList(),
                facts.launch()
                        .map(at -> new double[] {at.lonDeg(), at.latDeg()})
                        .orElse(null),
                facts.epsg().isPresent() ? facts.epsg().getAsInt() : null,
                facts.cameraId().isPresent() ? facts.cameraId().getAsLong() : null,
                CameraRow.of(facts.cameraId().orElse(0), facts.camera()),
                facts.aircraft(),
                pins,
                StoredBrief.of(facts.brief())));
    }

    public static BlockFacts read(String text) {
        Stored stored = JSON.readValue(text, Stored.class);
        Map<Quantity, Measure> pins = new EnumMap<>(Quantity.class);
        stored.pins()
                .forEach((key, typed) -> Quantity.ofKey(key)
                        .ifPresent(quantity -> pins.put(
                                quantity,
                                Measure.typed(
                                        key,
                                        typed,
                                        quantity.kind().choices().get(0).unit()))));
        return new BlockFacts(
                new Outline(stored.outline().stream()
                        .map(part -> new Outline.Part(
                                corners(part.outer()),
                                part.holes().stream().map(FactsJson::corners).toList()))
                        .toList()),
                Optional.ofNullable(stored.launch()).map(FactsJson::corner),
                stored.epsg() == null ? OptionalInt.empty() : OptionalInt.of(stored.epsg()),
                stored.cameraId() == null ? OptionalLong.empty() : OptionalLong.of(stored.cameraId()),
                stored.camera().camera(),
                stored.aircraft(),
                Pins.of(pins),
                stored.brief() == null ? Brief.EMPTY : stored.brief().brief());
    }

    private static List<double[]> pairs(List<LonLat> ring) {
        return ring.stream()
                .map(corner -> new double[] {corner.lonDeg(), corner.latDeg()})
                .toList();
    }

    private static List<LonLat> corners(List<double[]> pairs) {
        return pairs.stream().map(FactsJson::corner).toList();
    }

    private static LonLat corner(double[] pair) {
        return LonLat.of(pair[0], pair[1]);
    }

    /** A camera in the units of catalogues: millimetres, megabytes. Both the stored form and the row of the table. */
    public record CameraRow(
            long id,
            String name,
            int pixelsWide,
            int pixelsHigh,
            double sensorWidthMm,
            double sensorHeightMm,
            double focalLengthMm,
            String shutter,
            double readoutS,
            double minIntervalS,
            String mount,
            double megabytesPerPhoto,
            double cardGigabytes,
            int photosPerFlight) {

        public static CameraRow of(long id, Camera camera) {
            return new CameraRow(
                    id,
                    camera.name(),
                    camera.sensor().pixelsWide(),
                    camera.sensor().pixelsHigh(),
                    rounded(camera.sensor().widthM() * 1000),
                    rounded(camera.sensor().heightM() * 1000),
                    rounded(camera.focalLengthM() * 1000),
                    camera.shutter().kind().name(),
                    camera.shutter().readoutS(),
                    camera.minIntervalS(),
                    camera.mount().name(),
                    rounded(camera.storage().bytesPerPhoto() / 1e6),
                    rounded(camera.storage().cardBytes() / 1e9),
                    camera.storage().photosPerFlight());
        }

        private static double rounded(double figure) {
            return Math.round(figure * 1e9) / 1e9;
        }

        public Camera camera() {
            return new Camera(
                    name,
                    Sensor.ofMillimetres(pixelsWide, pixelsHigh, sensorWidthMm, sensorHeightMm),
                    focalLengthMm / 1000,
                    new Shutter(Shutter.Kind.valueOf(shutter), readoutS),
                    minIntervalS,
                    Mount.valueOf(mount),
                    Camera.Storage.of(megabytesPerPhoto, cardGigabytes, photosPerFlight));
        }
    }
}
