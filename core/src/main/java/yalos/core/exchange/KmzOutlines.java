package yalos.core.exchange;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Locale;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import yalos.core.fault.InputFault;

/**
 * Outlines from KMZ: a zip whose first KML is the document. Nothing is ever written to disk; what unpacks to more than
 * {@value #MOST_MEGABYTES} MB, or names files outside itself, is refused.
 */
public final class KmzOutlines {
    static final int MOST_MEGABYTES = 64;

    private static final int MOST_ENTRIES = 2000;
    private static final long MOST_BYTES = MOST_MEGABYTES * 1_000_000L;

    private KmzOutlines() {}

    /**
     * @throws InputFault for a damaged or hostile zip, or one without a KML
     */
    public static ImportedOutlines read(byte[] content, Axes axes) {
        byte[] kml = document(content);
        return KmlOutlines.read(kml, axes);
    }

    private static byte[] document(byte[] content) {
        long unpacked = 0;
        int entries = 0;
        byte[] kml = null;
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(content))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                refuseWandering(entry.getName());
                if (++entries > MOST_ENTRIES) {
                    throw fault("more than %d entries".formatted(MOST_ENTRIES), "The KMZ holds too many files.");
                }
                boolean document =
                        kml == null && entry.getName().toLowerCase(Locale.ROOT).endsWith(".kml");
                ByteArrayOutputStream kept = new ByteArrayOutputStream();
                byte[] buffer = new byte[65_536];
                for (int read = zip.read(buffer); read >= 0; read = zip.read(buffer)) {
                    unpacked += read;
                    if (unpacked > MOST_BYTES) {
                        throw fault(
                                "over %d MB".formatted(MOST_MEGABYTES),
                                "The KMZ unpacks to more than %d MB and is refused; a boundary needs a few kB. Export it without pictures."
                                        .formatted(MOST_MEGABYTES));
                    }
                    if (document) {
                        kept.write(buffer, 0, read);
                    }
                }
                if (document) {
                    kml = kept.toByteArray();
                }
            }
        } catch (IOException | IllegalArgumentException e) {
            throw fault("damaged", "The KMZ is damaged or cut off and cannot be unpacked. Export it again.");
        }
        if (kml == null) {
            throw fault(entries + " files", "The zip holds no .kml file. A KMZ has one, usually doc.kml.");
        }
        return kml;
    }

    private static void refuseWandering(String name) {
        String path = name.replace('\\', '/');
        if (path.startsWith("/") || path.contains("../") || path.endsWith("..") || path.matches("^[A-Za-z]:.*")) {
            throw fault(name, "The KMZ names a file outside itself (“%s”) and is refused.".formatted(name));
        }
    }

    private static InputFault fault(String value, String sentence) {
        return new InputFault("file", value, sentence);
    }
}
