package yalos.core.basemap;

import java.io.Closeable;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import yalos.core.geodesy.LonLat;

/** A map made of picture tiles in several levels. May be asked by several threads. */
public interface TilePyramid extends Closeable {
    /** The plane its tiles lie in. */
    MapSystem system();

    /** Its levels, the coarsest first; at least one. */
    List<TileMatrix> levels();

    /**
     * The picture of a tile as it lies there, in PNG, JPEG or WebP; empty where there is none.
     *
     * @throws IOException where it cannot be read
     * @throws yalos.core.fault.InputFault where the map is damaged
     */
    Optional<byte[]> tile(TileMatrix level, long column, long row) throws IOException;

    /** Who is to be named beside the map; may be empty. */
    String attribution();

    /** About the middle of what it shows, where it says so. */
    Optional<LonLat> middle();

    @Override
    default void close() throws IOException {}
}
