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
import yalos.core.brief.Crop;
import yalos.core.brief.Day;
import yalos.core.brief.Priority;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.brief.Surface;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Kit;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
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
            Kit kit,
            Map<String, String> pins,
            StoredBrief brief,
            Map<String, String> notes,
            GroundFacts ground) {}

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
            Site site,
            Crop crop,
            Day day,
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
                    brief.site(),
                    brief.crop(),
                    brief.day(),
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
                    site,
                    crop,
                    day,
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
        Map<String, String> notes = new LinkedHashMap<>();
        new TreeMap<>(facts.notes()).forEach((quantity, note) -> notes.put(quantity.key(), note));
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
                facts.kit(),
                pins,
                StoredBrief.of(facts.brief()),
                notes,
                facts.ground()));
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
        Map<Quantity, String> notes = new EnumMap<>(Quantity.class);
        stored.notes().forEach((key, note) -> Quantity.ofKey(key).ifPresent(quantity -> notes.put(quantity, note)));
        return new BlockFacts(
                new Outline(stored.outline().stream()
                        .map(part -> new Outline.Part(
                                corners(part.outer()),
                                part.holes().stream().map(FactsJson::corners).toList()))
                        .toList()),
                Optional.ofNullable(stored.launch()).map(FactsJson::corner),
                stored.epsg() == null ? OptionalInt.empty() : OptionalInt.of(stored.epsg()),
                stored.cameraId() == null ? OptionalLong.empty() : OptionalLong.of(stored.cameraId()),
                stored.kit(),
                Pins.of(pins),
                stored.brief().brief(),
                notes,
                stored.ground());
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
}
