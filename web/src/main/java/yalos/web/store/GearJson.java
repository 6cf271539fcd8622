package yalos.web.store;

import java.util.Map;
import java.util.function.Function;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Scanner;
import yalos.core.terrain.VerticalDatum;
import yalos.web.store.StoredGear.StoredAircraft;
import yalos.web.store.StoredGear.StoredDatum;
import yalos.web.store.StoredGear.StoredKit;
import yalos.web.store.StoredGear.StoredScanner;

/** Aircraft, scanners, kits and height systems as the text they are stored and handed out as. Figures are SI, as the core has them. */
public final class GearJson {
    private static final JsonMapper JSON = JsonMapper.builder()
            .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();

    private static final Map<Class<?>, Form<?, ?>> FORMS = Map.of(
            Aircraft.class, new Form<>(StoredAircraft.class, StoredAircraft::of, StoredAircraft::aircraft),
            Scanner.class, new Form<>(StoredScanner.class, StoredScanner::of, StoredScanner::scanner),
            CameraRow.class, new Form<CameraRow, CameraRow>(CameraRow.class, row -> row, row -> row),
            Kit.class, new Form<>(StoredKit.class, StoredKit::of, StoredKit::kit),
            VerticalDatum.class, new Form<>(StoredDatum.class, StoredDatum::of, StoredDatum::datum));

    private GearJson() {}

    /** A stored record and the way there and back. */
    private record Form<T, S extends Record>(Class<S> stored, Function<T, S> to, Function<S, T> from) {}

    @SuppressWarnings("unchecked")
    private static <T> Form<T, Record> form(Class<T> type) {
        Form<?, ?> form = FORMS.get(type);
        if (form == null) {
            throw new IllegalArgumentException(type + " is not stored");
        }
        return (Form<T, Record>) form;
    }

    @SuppressWarnings("unchecked")
    public static <T> String write(T gear) {
        return JSON.writeValueAsString(form((Class<T>) gear.getClass()).to.apply(gear));
    }

    /**
     * Gear that was written by {@link #write}, by this program or an earlier one. Lenient: what is missing is filled with what is usual.
     *
     * @throws Unreadable for text that is no such record, or figures that cannot be
     */
    public static <T> T read(String content, Class<T> type) {
        Form<T, Record> form = form(type);
        try {
            return form.from.apply(JSON.readValue(content, form.stored));
        } catch (JacksonException | InputFault e) {
            throw new Unreadable("It cannot be read: " + e.getMessage(), e);
        }
    }

    /**
     * Gear out of a file that somebody else may have written. Strict: whole, or refused.
     *
     * @param name of the entry, for the message
     * @throws InputFault for a figure that cannot be, or an entry of another shape
     */
    public static <T> T imported(JsonNode node, Class<T> type, String name) {
        Form<T, Record> form = form(type);
        try {
            Record read = JSON.treeToValue(node, form.stored);
            if (read == null) {
                throw new InputFault("file", name, "“%s” is empty.".formatted(name));
            }
            T gear = form.from.apply(Plain.whole(read, name));
            Plain.understood(read, form.to.apply(gear), name);
            return gear;
        } catch (InputFault fault) {
            throw fault.field().equals("file")
                    ? fault
                    : new InputFault("file", fault.value(), "“%s”: %s".formatted(name, fault.getMessage()));
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
