package yalos.web.store;

import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.exc.ValueInstantiationException;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;

/** Aircraft, scanners, kits and height systems as the text they are stored and handed out as. Figures are SI, as the core has them. */
public final class GearJson {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private GearJson() {}

    public static String write(Object gear) {
        return JSON.writeValueAsString(gear);
    }

    /** Gear that was written by {@link #write}. */
    public static <T> T read(String content, Class<T> type) {
        return JSON.readValue(content, type);
    }

    /**
     * Gear out of a file that somebody else may have written.
     *
     * @param name of the entry, for the message
     * @throws InputFault for a figure that cannot be, or an entry of another shape
     */
    public static <T> T imported(JsonNode node, Class<T> type, String name) {
        try {
            T read = JSON.treeToValue(node, type);
            if (read == null) {
                throw new InputFault("file", name, "“%s” is empty.".formatted(name));
            }
            return read;
        } catch (ValueInstantiationException e) {
            throw e.getCause() instanceof InputFault fault
                    ? new InputFault("file", fault.value(), "“%s”: %s".formatted(name, fault.getMessage()))
                    : misshapen(name, e);
        } catch (JacksonException e) {
            throw misshapen(name, e);
        }
    }

    private static InputFault misshapen(String name, JacksonException e) {
        String where = e.getPath().isEmpty()
                ? "it"
                : String.valueOf(e.getPath().get(e.getPath().size() - 1).getPropertyName());
        return new InputFault(
                "file",
                name,
                "“%s” is no entry of a catalogue: %s is missing or of the wrong kind.".formatted(name, where));
    }
}
