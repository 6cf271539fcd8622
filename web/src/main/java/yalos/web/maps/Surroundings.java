package yalos.web.maps;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import yalos.core.basemap.TileMatrix;
import yalos.core.basemap.TilePyramid;
import yalos.core.block.Outline;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;
import yalos.web.work.Work;

/**
 * The tiles of a map round a block, level by level, as many as a sheet of it is likely to show.
 *
 * @param corners of the outline
 */
record Surroundings(List<LonLat> corners) {
    private static final int MOST_TILES = 1500;
    /** So much of the block's own extent is added on each side. */
    private static final double ROUND = 0.5;

    static Surroundings of(Outline outline) {
        return new Surroundings(outline.corners());
    }

    /**
     * What is kept now.
     *
     * @param finest level down to which it is whole
     * @param trouble what stopped it; empty where nothing did
     */
    record Kept(int tiles, int finest, String trouble) {
        String words() {
            String what = "%d tiles round this block are kept, down to level %d.".formatted(tiles, finest);
            return trouble.isEmpty() ? what : what + " Then: " + trouble;
        }
    }

    /** Asks for every tile, which keeps it. */
    Kept keep(TilePyramid map, Work<?> work) throws IOException {
        int tiles = 0;
        int finest = 0;
        for (TileMatrix level : map.levels()) {
            List<long[]> round = round(map, level);
            if (tiles + round.size() > MOST_TILES) {
                break;
            }
            for (long[] tile : round) {
                work.check();
                try {
                    map.tile(level, tile[0], tile[1]);
                } catch (TileFetch.NotFetched fault) {
                    return new Kept(tiles, finest, fault.getMessage());
                }
                tiles++;
                work.goOn((double) tiles / MOST_TILES);
            }
            finest = level.zoom();
        }
        return new Kept(tiles, finest, "");
    }

    private List<long[]> round(TilePyramid map, TileMatrix level) {
        double left = Double.POSITIVE_INFINITY;
        double right = Double.NEGATIVE_INFINITY;
        double above = Double.POSITIVE_INFINITY;
        double below = Double.NEGATIVE_INFINITY;
        for (LonLat corner : corners) {
            EastNorth at = map.system().of(corner);
            left = Math.min(left, level.column(at.east()));
            right = Math.max(right, level.column(at.east()));
            above = Math.min(above, level.row(at.north()));
            below = Math.max(below, level.row(at.north()));
        }
        double aside = ROUND * Math.max(right - left, below - above);
        List<long[]> tiles = new ArrayList<>();
        long lastColumn = tile(right + aside, level.tileWidth(), level.columns());
        long lastRow = tile(below + aside, level.tileHeight(), level.rows());
        for (long row = tile(above - aside, level.tileHeight(), level.rows()); row <= lastRow; row++) {
            for (long column = tile(left - aside, level.tileWidth(), level.columns()); column <= lastColumn; column++) {
                tiles.add(new long[] {column, row});
                if (tiles.size() > MOST_TILES) {
                    return tiles;
                }
            }
        }
        return tiles;
    }

    private static long tile(double pixel, int side, long count) {
        return (long) Math.max(0, Math.min(count - 1, Math.floor(pixel / side)));
    }
}
