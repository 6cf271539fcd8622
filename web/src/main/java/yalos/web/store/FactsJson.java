package yalos.web.store;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Function;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;

/**
 * {@link BlockFacts} as the text they are stored as. Every form that was ever written has a number and plain records of its own; an older
 * one is lifted from form to form up to the present, a newer one is refused. Lenient in what it reads: see {@link FactsForm11}.
 */
public final class FactsJson {
    /** The form that is written. */
    static final int PRESENT = 11;

    private static final JsonMapper JSON = JsonMapper.builder()
            .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();

    /** Facts read lately, by their text: a page and a change read the same ones again and again. */
    private static final Map<String, BlockFacts> LATELY =
            Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
                @Override
                protected boolean removeEldestEntry(Map.Entry<String, BlockFacts> eldest) {
                    return size() > MOST_LATELY;
                }
            });

    private static final int MOST_LATELY = 100;

    private FactsJson() {}

    /** Facts as they are stored: packed, since every change keeps them whole. */
    public static String write(BlockFacts facts) {
        return Packed.of(plain(facts));
    }

    /** Facts as JSON. */
    static String plain(BlockFacts facts) {
        return JSON.writeValueAsString(FactsForm11.of(facts));
    }

    /**
     * Facts as plain JSON in the present form, with other numbers for their models and pictures, for what leaves this machine.
     *
     * @param number of a model elsewhere; null where it is not there
     * @return empty for facts that cannot be read
     */
    public static Optional<String> renumbered(String stored, Function<Long, Long> number) {
        try {
            return Optional.of(plain(renumbered(read(stored), number)));
        } catch (Unreadable lost) {
            return Optional.empty();
        }
    }

    /** Facts with other numbers for their models and pictures; the camera's number of the catalogue is left out. */
    public static BlockFacts renumbered(BlockFacts facts, Function<Long, Long> number) {
        GroundFacts ground = facts.ground();
        List<GroundFacts.ModelUse> models = ground.models().stream()
                .filter(model -> number.apply(model.id()) != null)
                .map(model -> new GroundFacts.ModelUse(number.apply(model.id()), model.epsg(), model.datum()))
                .toList();
        OptionalLong picture =
                ground.picture().isPresent() && number.apply(ground.picture().getAsLong()) != null
                        ? OptionalLong.of(number.apply(ground.picture().getAsLong()))
                        : OptionalLong.empty();
        return facts.with(ground.withModels(models).withPicture(picture)).with(facts.kit());
    }

    /** SHA-256 of facts as they are stored, in hexadecimal. */
    public static String hash(String facts) {
        return Sha256.hex(facts);
    }

    /**
     * @throws Unreadable for facts of a newer form, or text that holds no facts
     */
    public static BlockFacts read(String text) {
        BlockFacts known = LATELY.get(text);
        if (known != null) {
            return known;
        }
        BlockFacts facts = unpacked(text);
        LATELY.put(text, facts);
        return facts;
    }

    private static BlockFacts unpacked(String text) {
        try {
            JsonNode root = JSON.readTree(Packed.plain(text));
            int shape = root.path("shape").asInt(0);
            return switch (shape) {
                case 1 ->
                    JSON.treeToValue(root, FactsForm1.class)
                            .upgraded()
                            .upgraded()
                            .upgraded()
                            .facts();
                case 2 ->
                    JSON.treeToValue(root, FactsForm2.class)
                            .upgraded()
                            .upgraded()
                            .facts();
                case 3, 4 -> JSON.treeToValue(root, FactsForm4.class).upgraded().facts();
                case 5, 6, 7, 8, 9, 10, PRESENT ->
                    JSON.treeToValue(root, FactsForm11.class).facts();
                default -> throw refused(shape);
            };
        } catch (JacksonException | InputFault e) {
            throw new Unreadable("It cannot be read: " + e.getMessage(), e);
        }
    }

    private static Unreadable refused(int shape) {
        return shape > PRESENT
                ? new Unreadable(
                        "It was written by a newer Yalos (form %d; this one reads up to form %d). Update the program."
                                .formatted(shape, PRESENT))
                : new Unreadable("It does not say in which form it was written.");
    }
}
