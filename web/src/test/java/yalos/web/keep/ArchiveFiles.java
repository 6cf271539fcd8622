package yalos.web.keep;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;
import yalos.web.store.Sha256;

/** Archives taken apart and put together again, for tests. */
public final class ArchiveFiles {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private ArchiveFiles() {}

    public static Map<String, byte[]> entries(byte[] zip) throws IOException {
        Map<String, byte[]> entries = new LinkedHashMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                entries.put(entry.getName(), in.readAllBytes());
            }
        }
        return entries;
    }

    public static byte[] zip(Map<String, byte[]> entries) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (Map.Entry<String, byte[]> entry : entries.entrySet()) {
                zip.putNextEntry(new ZipEntry(entry.getKey()));
                zip.write(entry.getValue());
                zip.closeEntry();
            }
        }
        return bytes.toByteArray();
    }

    /** The archive with less of one part than its index promises: it ends in the middle of what was packed. */
    public static byte[] cutShort(byte[] zip, String name) {
        byte[] cut = zip.clone();
        ByteBuffer bytes = ByteBuffer.wrap(cut).order(ByteOrder.LITTLE_ENDIAN);
        byte[] wanted = name.getBytes(StandardCharsets.UTF_8);
        for (int at = 0; at + 46 + wanted.length <= cut.length; at++) {
            // The head of an entry in the index: PK 1 2, its packed size 20 bytes on, its name 46 bytes on.
            if (bytes.getInt(at) == 0x02014b50
                    && Arrays.equals(cut, at + 46, at + 46 + wanted.length, wanted, 0, wanted.length)) {
                bytes.putInt(at + 20, bytes.getInt(at + 20) - 9);
                return cut;
            }
        }
        throw new IllegalArgumentException(name);
    }

    /** The archive with a sum of one part that fits what the part holds now, so that only the part itself is wrong. */
    public static byte[] mended(Map<String, byte[]> entries, String name) throws IOException {
        ObjectNode manifest = (ObjectNode) JSON.readTree(entries.get("manifest.json"));
        for (JsonNode part : manifest.get("files")) {
            if (part.get("name").asString().equals(name)) {
                ((ObjectNode) part).put("bytes", (long) entries.get(name).length);
                ((ObjectNode) part).put("sha256", Sha256.hex(entries.get(name)));
            }
        }
        entries.put("manifest.json", JSON.writeValueAsBytes(manifest));
        return zip(entries);
    }
}
