package yalos.web.kit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Scanner;
import yalos.web.store.CameraRow;
import yalos.web.store.GearJson;

/** A catalogue as one JSON file: {@code {"yalosCatalogue": 1, "cameras": [], "aircraft": [], "scanners": [], "kits": []}}. */
record CatalogueFile(List<CameraRow> cameras, List<Aircraft> aircraft, List<Scanner> scanners, List<Kit> kits) {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String MARK = "yalosCatalogue";
    private static final int MOST_ENTRIES = 2000;

    byte[] bytes() {
        Map<String, Object> content = new TreeMap<>();
        content.put(MARK, 1);
        content.put("cameras", cameras);
        content.put("aircraft", aircraft);
        content.put("scanners", scanners);
        content.put("kits", kits);
        return JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(content);
    }

    /**
     * @throws InputFault for a file that is no catalogue, or holds a figure that cannot be; nothing is taken from it then
     */
    static CatalogueFile read(byte[] content) {
        JsonNode root;
        try {
            root = JSON.readTree(content);
        } catch (JacksonException e) {
            throw new InputFault("file", "broken", "This is not whole JSON; a catalogue is a JSON file.");
        }
        if (!root.path(MARK).isNumber()) {
            throw new InputFault(
                    "file", "no catalogue", "This file is no catalogue: it lacks the member “%s”.".formatted(MARK));
        }
        return new CatalogueFile(
                list(root, "cameras", CameraRow.class).stream()
                        .map(CatalogueFile::checked)
                        .toList(),
                list(root, "aircraft", Aircraft.class),
                list(root, "scanners", Scanner.class),
                list(root, "kits", Kit.class));
    }

    /** A camera row is plain figures; making the camera checks them. */
    private static CameraRow checked(CameraRow row) {
        try {
            CameraForm form = CameraForm.of(row);
            return CameraRow.of(0, form.camera(), form.lenses());
        } catch (InputFault fault) {
            throw new InputFault("file", fault.value(), "“%s”: %s".formatted(row.name(), fault.getMessage()));
        }
    }

    private static <T> List<T> list(JsonNode root, String member, Class<T> type) {
        JsonNode entries = root.path(member);
        if (entries.size() > MOST_ENTRIES) {
            throw new InputFault(
                    "file",
                    entries.size(),
                    "The file holds %d %s; %d are the most.".formatted(entries.size(), member, MOST_ENTRIES));
        }
        List<T> read = new ArrayList<>();
        for (JsonNode entry : entries) {
            read.add(GearJson.imported(entry, type, entry.path("name").asString(member)));
        }
        return read;
    }
}
