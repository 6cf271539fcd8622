package yalos.web.maps;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import yalos.core.basemap.MapSystem;
import yalos.core.basemap.TileMatrix;
import yalos.core.basemap.TilePyramid;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/** A map after the MBTiles specification, version 1.3: rows of tiles counted from the south. */
final class MbTiles implements TilePyramid {
    private static final int PIXELS = 256;

    private final SqliteFile file;
    private final Map<String, String> metadata = new HashMap<>();
    private final List<TileMatrix> levels;

    private MbTiles(SqliteFile file) {
        this.file = file;
        file.each("select name, value from metadata limit 200", row -> {
            String name = row.getString(1);
            String value = row.getString(2);
            return name == null || value == null ? null : metadata.put(name.toLowerCase(Locale.ROOT), value);
        });
        String format = metadata.getOrDefault("format", "png").toLowerCase(Locale.ROOT);
        if (format.equals("pbf")) {
            throw new InputFault(
                    "map", format, "The map holds vectors. A map of PNG, JPEG or WebP pictures can be shown.");
        }
        int[] ends = {Integer.MAX_VALUE, -1};
        file.each("select (select min(zoom_level) from tiles), (select max(zoom_level) from tiles)", row -> {
            if (row.getString(1) != null) {
                ends[0] = row.getInt(1);
                ends[1] = row.getInt(2);
            }
            return null;
        });
        if (ends[0] < 0 || ends[1] < ends[0] || ends[1] > TileMatrix.FINEST) {
            throw new InputFault("map", "MBTiles", "The map holds no tiles.");
        }
        levels = IntStream.rangeClosed(ends[0], ends[1])
                .mapToObj(zoom -> TileMatrix.web(zoom, PIXELS))
                .toList();
    }

    static MbTiles open(Path path) throws IOException {
        return SqliteFile.open(path, MbTiles::new);
    }

    @Override
    public MapSystem system() {
        return new MapSystem.WebMercator();
    }

    @Override
    public List<TileMatrix> levels() {
        return levels;
    }

    @Override
    public Optional<byte[]> tile(TileMatrix level, long column, long row) {
        byte[][] found = new byte[1][];
        file.each(
                "select tile_data from tiles where zoom_level = ? and tile_column = ? and tile_row = ? limit 1",
                one -> found[0] = one.getBytes(1),
                level.zoom(),
                column,
                level.rows() - 1 - row);
        return Optional.ofNullable(found[0]);
    }

    @Override
    public String attribution() {
        return metadata.getOrDefault("attribution", "");
    }

    @Override
    public Optional<LonLat> middle() {
        try {
            String[] edges = metadata.getOrDefault("bounds", "").split(",");
            return edges.length == 4
                    ? Optional.of(LonLat.of(
                            (Double.parseDouble(edges[0]) + Double.parseDouble(edges[2])) / 2,
                            (Double.parseDouble(edges[1]) + Double.parseDouble(edges[3])) / 2))
                    : Optional.empty();
        } catch (NumberFormatException | InputFault crooked) {
            return Optional.empty();
        }
    }

    @Override
    public void close() throws IOException {
        file.close();
    }
}
