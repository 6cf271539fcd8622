package yalos.web.maps;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import yalos.core.basemap.MapAddress;
import yalos.core.basemap.PmTiles;
import yalos.core.basemap.TilePyramid;
import yalos.core.fault.InputFault;
import yalos.web.shell.NotThere;
import yalos.web.store.MapMapper;
import yalos.web.store.MapMapper.AddressRow;
import yalos.web.store.SafeFiles;

/**
 * All maps there are: packages in the folder {@code maps} of the data folder, of any size, read where they lie, and web maps whose addresses
 * were typed. A map is named {@code file:NAME} or {@code web:NUMBER}.
 */
@Component
public class MapShelf {
    private static final Logger LOG = LoggerFactory.getLogger(MapShelf.class);
    private static final String FILE = "file:";
    private static final String WEB = "web:";
    private static final Pattern ENDING = Pattern.compile("(?i).*\\.(mbtiles|pmtiles|gpkg)");
    private static final Pattern NAME = Pattern.compile("[^/\\\\\\p{Cntrl}]{1,200}");

    private final MapMapper rows;
    private final TileFetch fetch;
    private final Path folder;
    private final Path kept;
    private final Map<String, Open> open = new HashMap<>();

    MapShelf(MapMapper rows, TileFetch fetch, @Value("${yalos.data}") Path data) {
        this.rows = rows;
        this.fetch = fetch;
        this.folder = data.resolve("maps");
        this.kept = data.resolve("maps-kept");
    }

    /** A map that is open, as it was then. */
    private record Open(String state, TilePyramid map, String fault) {}

    /**
     * A map on the shelf.
     *
     * @param of its name for the program
     * @param state changes when the map does
     * @param map empty where it cannot be shown
     * @param fault why not, as a sentence; empty where it can
     * @param bytes of its file
     * @param address of a web map
     */
    record OnShelf(
            String of,
            String name,
            String state,
            Optional<TilePyramid> map,
            String fault,
            long bytes,
            Optional<AddressRow> address) {}

    /** What a sheet must know to show a map. */
    public record Under(String of, String state, String attribution) {
        /** Where its squares are, less grid and place. */
        public String squares() {
            return "/maps/squares?of=" + URLEncoder.encode(of, StandardCharsets.UTF_8) + "&state=" + state;
        }
    }

    /** The map under the sheets of a job, where there is one that can be shown. */
    public Optional<Under> under(long job) {
        return rows.under(job)
                .flatMap(this::find)
                .flatMap(found -> found.map().map(map -> new Under(found.of(), found.state(), map.attribution())));
    }

    /** Lays a map under the sheets of a job, or takes it away where the name is empty. */
    void lay(long job, String of) {
        if (of.isEmpty()) {
            rows.takeAway(job);
        } else {
            rows.lay(
                    job,
                    find(of).filter(found -> found.map().isPresent())
                            .orElseThrow(() -> new NotThere("There is no such map any more."))
                            .of());
        }
    }

    /** Which map was laid under the sheets of a job. */
    String laid(long job) {
        return rows.under(job).orElse("");
    }

    /** All of them, packages first. */
    List<OnShelf> all() {
        List<OnShelf> all = new ArrayList<>();
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                files.filter(file ->
                                ENDING.matcher(file.getFileName().toString()).matches())
                        .sorted(Comparator.comparing(file -> file.getFileName().toString()))
                        .forEach(file -> package_(file).ifPresent(all::add));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        rows.addresses().forEach(row -> all.add(web(row)));
        return all;
    }

    /** One of them. */
    Optional<OnShelf> find(String of) {
        if (of.startsWith(FILE)) {
            String name = of.substring(FILE.length());
            return NAME.matcher(name).matches() && ENDING.matcher(name).matches()
                    ? package_(folder.resolve(name))
                    : Optional.empty();
        }
        try {
            return of.startsWith(WEB)
                    ? rows.address(Long.parseLong(of.substring(WEB.length()))).map(this::web)
                    : Optional.empty();
        } catch (NumberFormatException none) {
            return Optional.empty();
        }
    }

    private Optional<OnShelf> package_(Path file) {
        try {
            if (!Files.isRegularFile(file)) {
                return Optional.empty();
            }
            long bytes = Files.size(file);
            String name = file.getFileName().toString();
            String state = Long.toHexString(Files.getLastModifiedTime(file).toMillis()) + Long.toHexString(bytes);
            Open map = opened(FILE + name, state, () -> read(file, name));
            return Optional.of(new OnShelf(
                    FILE + name, name, state, Optional.ofNullable(map.map()), map.fault(), bytes, Optional.empty()));
        } catch (IOException gone) {
            return Optional.empty();
        }
    }

    private static TilePyramid read(Path file, String name) throws IOException {
        String lower = name.toLowerCase(Locale.ROOT);
        if (lower.endsWith(".pmtiles")) {
            return PmTiles.open(file);
        }
        return lower.endsWith(".gpkg") ? GeoPackageTiles.open(file) : MbTiles.open(file);
    }

    private OnShelf web(AddressRow row) {
        String state = Integer.toHexString(row.hashCode());
        Path path = kept.resolve(row.id() + ".mbtiles");
        Open map = opened(WEB + row.id(), state, () -> {
            Files.createDirectories(kept);
            return new KeptMap(row, path, fetch);
        });
        long bytes = path.toFile().length();
        return new OnShelf(
                WEB + row.id(),
                row.name(),
                state,
                Optional.ofNullable(map.map()),
                map.fault(),
                bytes,
                Optional.of(row));
    }

    private interface Opening {
        TilePyramid open() throws IOException;
    }

    /** Opened once for each state; one that cannot be opened is not tried again before it changes. */
    private synchronized Open opened(String of, String state, Opening opening) {
        Open known = open.get(of);
        if (known != null && known.state().equals(state)) {
            return known;
        }
        close(known);
        Open made;
        try {
            made = new Open(state, opening.open(), "");
        } catch (InputFault told) {
            made = new Open(state, null, told.getMessage());
        } catch (IOException unread) {
            LOG.warn("A map cannot be opened: {}", of, unread);
            made = new Open(state, null, "The map cannot be opened; the log of the program says more.");
        }
        open.put(of, made);
        return made;
    }

    private static void close(Open known) {
        try {
            if (known != null && known.map() != null) {
                known.map().close();
            }
        } catch (IOException e) {
            LOG.warn("A map was not closed", e);
        }
    }

    /**
     * Keeps a package that was sent; one of the same name is replaced.
     *
     * @throws InputFault for a file that is no map that can be shown
     */
    String take(String name, InputStream content) throws IOException {
        String last = name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1);
        if (!NAME.matcher(last).matches() || !ENDING.matcher(last).matches()) {
            throw new InputFault(
                    "file", name, "A map is an .mbtiles, .pmtiles or .gpkg file; “%s” is none.".formatted(last));
        }
        Files.createDirectories(folder);
        Path aside = Files.createTempFile(folder, "aside", ".part");
        try {
            Files.copy(content, aside, StandardCopyOption.REPLACE_EXISTING);
            read(aside, last).close();
            SafeFiles.keep(aside, folder.resolve(last));
        } finally {
            Files.deleteIfExists(aside);
        }
        return FILE + last;
    }

    /** Keeps the address of a web map; nothing is fetched from it yet. */
    void add(AddressRow row) {
        if (rows.addresses().stream().anyMatch(other -> other.name().equals(row.name()))) {
            throw new InputFault(
                    "name", row.name(), "There is a map “%s” already. Choose another name.".formatted(row.name()));
        }
        rows.add(row.name(), row.address(), row.layers(), row.attribution(), row.mostZoom(), row.home());
    }

    /** Switches fetching on or off; a server in trouble is tried again. */
    void activate(long id, boolean active) {
        rows.activate(id, active);
        rows.address(id).map(row -> server(row)).ifPresent(fetch::forgive);
    }

    /** What is wrong with the server of a web map just now. */
    Optional<String> trouble(AddressRow row) {
        return fetch.trouble(server(row));
    }

    private static String server(AddressRow row) {
        return new MapAddress(row.address(), row.layers()).server();
    }

    /** Takes a map from the shelf, with what was kept of it. */
    synchronized void remove(OnShelf map) throws IOException {
        close(open.remove(map.of()));
        if (map.address().isPresent()) {
            long id = map.address().get().id();
            rows.remove(id);
            for (String ending : new String[] {".mbtiles", ".mbtiles-wal", ".mbtiles-shm"}) {
                Files.deleteIfExists(kept.resolve(id + ending));
            }
        } else {
            Files.deleteIfExists(folder.resolve(map.name()));
        }
    }

    @PreDestroy
    synchronized void close() {
        open.values().forEach(MapShelf::close);
        open.clear();
    }
}
