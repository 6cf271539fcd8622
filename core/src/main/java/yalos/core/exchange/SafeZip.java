package yalos.core.exchange;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.Predicate;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import yalos.core.fault.InputFault;

/**
 * Files out of a zip somebody sent. Nothing is ever written to disk; what unpacks to more than {@value #MOST_MEGABYTES} MB, or names files
 * outside itself, is refused.
 */
final class SafeZip {
    static final int MOST_MEGABYTES = 64;

    private static final int MOST_ENTRIES = 2000;
    private static final long MOST_BYTES = MOST_MEGABYTES * 1_000_000L;

    private SafeZip() {}

    /**
     * The wanted files by their names in lower case, in the order they stand.
     *
     * @param kind what the zip is called in messages
     * @param wanted asked with names in lower case
     * @throws InputFault for a damaged or hostile zip
     */
    static Map<String, byte[]> files(byte[] content, String kind, Predicate<String> wanted) {
        Map<String, byte[]> files = new LinkedHashMap<>();
        long unpacked = 0;
        int entries = 0;
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(content))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                refuseWandering(entry.getName(), kind);
                if (++entries > MOST_ENTRIES) {
                    throw fault("more than %d entries".formatted(MOST_ENTRIES), "The %s holds too many files.", kind);
                }
                String name = entry.getName().toLowerCase(Locale.ROOT);
                boolean keep = wanted.test(name) && !files.containsKey(name);
                ByteArrayOutputStream kept = new ByteArrayOutputStream();
                byte[] buffer = new byte[65_536];
                for (int read = zip.read(buffer); read >= 0; read = zip.read(buffer)) {
                    unpacked += read;
                    if (unpacked > MOST_BYTES) {
                        throw fault(
                                "over %d MB".formatted(MOST_MEGABYTES),
                                "The %s unpacks to more than " + MOST_MEGABYTES
                                        + " MB and is refused; a boundary needs a few kB. Export it without pictures.",
                                kind);
                    }
                    if (keep) {
                        kept.write(buffer, 0, read);
                    }
                }
                if (keep) {
                    files.put(name, kept.toByteArray());
                }
            }
        } catch (IOException | IllegalArgumentException e) {
            throw fault("damaged", "The %s is damaged or cut off and cannot be unpacked. Export it again.", kind);
        }
        return files;
    }

    private static void refuseWandering(String name, String kind) {
        String path = name.replace('\\', '/');
        if (path.startsWith("/") || path.contains("../") || path.endsWith("..") || path.matches("^[A-Za-z]:.*")) {
            throw fault(
                    name,
                    "The %s names a file outside itself (“" + name.replace("%", "%%") + "”) and is refused.",
                    kind);
        }
    }

    private static InputFault fault(String value, String sentence, String kind) {
        return new InputFault("file", value, sentence.formatted(kind));
    }
}
