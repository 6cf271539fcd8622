package yalos.web.keep;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;
import yalos.web.store.Disk;
import yalos.web.store.Sha256;

/** Looks at an archive before anything of it is used: names, sizes, sums, and whether this program can read it. */
@Component
class ArchiveCheck {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Pattern NAMES = Pattern.compile(
            "manifest\\.json|README\\.txt|tables/[a-z_]{1,40}\\.json|models/\\d{1,9}\\.(tif|pic|wld)|open/[^\\\\]{1,200}");
    private static final int MOST_ENTRIES = 50_000;
    private static final long MOST_MANIFEST = 64L << 20;
    private static final long MOST_TABLE = 2L << 30;
    private static final long MOST_WHOLE = 64L << 30;
    private static final long LARGE = 100L << 20;
    private static final long BOMB = 900;
    private static final List<String> NEEDED = List.of("job", "block", "block_step");

    private final JobArchive archives;
    private final Disk disk;

    ArchiveCheck(JobArchive archives, Disk disk) {
        this.archives = archives;
        this.disk = disk;
    }

    /** Names, sizes and sums of all that is in it. */
    Map<String, Manifest.Part> parts(ZipFile zip, JobArchive.Going going) throws IOException {
        Map<String, ZipEntry> entries = entries(zip);
        Manifest manifest = manifest(zip, entries);
        Map<String, Manifest.Part> parts = new LinkedHashMap<>();
        long whole = 0;
        for (Manifest.Part part : manifest.files() == null ? List.<Manifest.Part>of() : manifest.files()) {
            if (part.name() == null || part.bytes() == null || part.sha256() == null || part.bytes() < 0) {
                throw new InputFault("file", "manifest", "The manifest is damaged. Write the archive again.");
            }
            parts.put(part.name(), part);
            whole += part.bytes();
        }
        if (whole > MOST_WHOLE) {
            throw new InputFault(
                    "file", whole, "It would unpack to %,d GB; no job is that large.".formatted(whole >> 30));
        }
        String trouble = disk.trouble(whole);
        if (!trouble.isEmpty()) {
            throw new InputFault("file", whole, trouble);
        }
        for (String name : entries.keySet()) {
            if (!name.equals(Manifest.NAME) && !parts.containsKey(name)) {
                throw new InputFault(
                        "file",
                        name,
                        "“%s” is in the archive and not in its manifest: somebody added it.".formatted(shown(name)));
            }
        }
        for (Manifest.Part part : parts.values()) {
            going.check();
            ZipEntry entry = entries.get(part.name());
            if (entry == null) {
                throw new InputFault(
                        "file", part.name(), "“%s” is missing from the archive.".formatted(shown(part.name())));
            }
            sum(zip, entry, part);
        }
        for (String table : NEEDED) {
            if (!parts.containsKey("tables/" + table + ".json")) {
                throw new InputFault("file", table, "“tables/%s.json” is missing from the archive.".formatted(table));
            }
        }
        return parts;
    }

    private static Map<String, ZipEntry> entries(ZipFile zip) {
        if (zip.size() > MOST_ENTRIES) {
            throw new InputFault("file", zip.size(), "An archive has no more than %,d parts.".formatted(MOST_ENTRIES));
        }
        Map<String, ZipEntry> entries = new LinkedHashMap<>();
        zip.stream().forEach(entry -> {
            String name = entry.getName();
            if (name.contains("..")
                    || name.startsWith("/")
                    || name.contains("\\")
                    || !NAMES.matcher(name).matches()) {
                throw new InputFault(
                        "file", name, "“%s” is no part of an archive; nothing was unpacked.".formatted(shown(name)));
            }
            if (entries.put(name, entry) != null) {
                throw new InputFault("file", name, "“%s” is twice in the archive.".formatted(shown(name)));
            }
        });
        return entries;
    }

    static String shown(String name) {
        String plain = name.replaceAll("\\p{Cntrl}", "?");
        return plain.length() > 80 ? plain.substring(0, 80) + "…" : plain;
    }

    private Manifest manifest(ZipFile zip, Map<String, ZipEntry> entries) throws IOException {
        if (!entries.containsKey(Manifest.NAME)) {
            throw new InputFault(
                    "file",
                    zip.getName(),
                    "This zip holds no job: it has no manifest.json. Choose one written by “Job as one file”.");
        }
        byte[] bytes;
        try (InputStream in = zip.getInputStream(zip.getEntry(Manifest.NAME))) {
            bytes = in.readNBytes((int) MOST_MANIFEST);
        }
        Manifest manifest;
        try {
            manifest = JSON.readValue(bytes, Manifest.class);
        } catch (JacksonException broken) {
            throw new InputFault("file", "manifest", "The manifest cannot be read. Copy the archive again.");
        }
        if (!Manifest.FORMAT.equals(manifest.format()) || manifest.version() == null || manifest.schema() == null) {
            throw new InputFault("file", manifest.format(), "This zip holds no job of Yalos.");
        }
        if (manifest.version() > Manifest.VERSION || manifest.schema() > archives.schema()) {
            throw new InputFault(
                    "file",
                    manifest.version(),
                    "It was written by a newer Yalos (layout %d of data %d; this one reads up to %d of %d). Update the program."
                            .formatted(manifest.version(), manifest.schema(), Manifest.VERSION, archives.schema()));
        }
        return manifest;
    }

    /** Reads a part to its end, no farther than it says it is long. */
    private static void sum(ZipFile zip, ZipEntry entry, Manifest.Part part) throws IOException {
        long most = part.name().startsWith("tables/") ? MOST_TABLE : MOST_WHOLE;
        long packed = Math.max(1, entry.getCompressedSize());
        if (part.bytes() > most || part.bytes() > LARGE && part.bytes() / packed > BOMB) {
            throw new InputFault(
                    "file",
                    part.name(),
                    "“%s” would unpack to %,d MB from %,d kB; that is no part of a job."
                            .formatted(shown(part.name()), part.bytes() >> 20, packed >> 10));
        }
        MessageDigest digest = Sha256.digest();
        long read = 0;
        try (InputStream in = zip.getInputStream(entry)) {
            byte[] some = new byte[1 << 16];
            for (int count = in.read(some); count >= 0 && read <= part.bytes(); count = in.read(some)) {
                digest.update(some, 0, count);
                read += count;
            }
        }
        if (read != part.bytes() || !HexFormat.of().formatHex(digest.digest()).equals(part.sha256())) {
            throw new InputFault(
                    "file",
                    part.name(),
                    "“%s” is not what was written: it was changed or damaged since. Bring the original archive."
                            .formatted(shown(part.name())));
        }
    }
}
