package yalos.web.maps;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.basemap.MapSystem;
import yalos.core.basemap.TileMatrix;
import yalos.core.basemap.TilePyramid;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/** The first tile pyramid of a GeoPackage (OGC 12-128r18), in whatever grid it has. */
final class GeoPackageTiles implements TilePyramid {
    private static final int MOST_PIXELS = 4096;

    private final SqliteFile file;
    private final List<TileMatrix> levels = new ArrayList<>();
    private final String sql;
    private MapSystem system;
    private String table = "";
    private double west;
    private double north;

    private GeoPackageTiles(SqliteFile file) {
        this.file = file;
        file.each("""
                select c.table_name, s.min_x, s.max_y, r.organization_coordsys_id
                from gpkg_contents c join gpkg_tile_matrix_set s on s.table_name = c.table_name
                join gpkg_spatial_ref_sys r on r.srs_id = s.srs_id
                where c.data_type = 'tiles' order by c.table_name limit 1""", row -> {
            table = row.getString(1);
            west = row.getDouble(2);
            north = row.getDouble(3);
            system = MapSystem.ofEpsg(row.getInt(4));
            return null;
        });
        if (table.isEmpty()) {
            throw new InputFault("map", "GeoPackage", "The GeoPackage holds no tiles; it is no map.");
        }
        file.each(
                """
                select zoom_level, matrix_width, matrix_height, tile_width, tile_height, pixel_x_size, pixel_y_size
                from gpkg_tile_matrix where table_name = ? order by pixel_x_size desc limit 40""",
                row -> {
                    TileMatrix level = new TileMatrix(
                            row.getInt(1),
                            west,
                            north,
                            row.getDouble(6),
                            row.getDouble(7),
                            row.getInt(4),
                            row.getInt(5),
                            row.getLong(2),
                            row.getLong(3));
                    boolean sound = level.pixelX() > 0
                            && level.pixelY() > 0
                            && level.tileWidth() > 0
                            && level.tileHeight() > 0
                            && level.tileWidth() <= MOST_PIXELS
                            && level.tileHeight() <= MOST_PIXELS;
                    return sound && levels.add(level);
                },
                table);
        if (levels.isEmpty()) {
            throw new InputFault("map", "GeoPackage", "The GeoPackage says nothing of the levels of its tiles.");
        }
        sql = "select tile_data from \"%s\" where zoom_level = ? and tile_column = ? and tile_row = ? limit 1"
                .formatted(table.replace("\"", "\"\""));
    }

    static GeoPackageTiles open(Path path) throws IOException {
        return SqliteFile.open(path, GeoPackageTiles::new);
    }

    @Override
    public MapSystem system() {
        return system;
    }

    @Override
    public List<TileMatrix> levels() {
        return levels;
    }

    @Override
    public Optional<byte[]> tile(TileMatrix level, long column, long row) {
        byte[][] found = new byte[1][];
        file.each(sql, one -> found[0] = one.getBytes(1), level.zoom(), column, row);
        return Optional.ofNullable(found[0]);
    }

    @Override
    public String attribution() {
        return "";
    }

    @Override
    public Optional<LonLat> middle() {
        return Optional.empty();
    }

    @Override
    public void close() throws IOException {
        file.close();
    }
}
