package yalos.core.basemap;

/**
 * One level of a pyramid: tiles of one size side by side, counted from the upper left, in the plane of its {@link MapSystem}.
 *
 * @param zoom its number; a greater one is finer
 * @param west of the first column
 * @param north of the first row
 * @param pixelX width of a pixel
 * @param pixelY height of a pixel
 * @param tileWidth pixels in a tile's row
 * @param tileHeight pixels in a tile's column
 * @param columns of tiles
 * @param rows of tiles
 */
public record TileMatrix(
        int zoom,
        double west,
        double north,
        double pixelX,
        double pixelY,
        int tileWidth,
        int tileHeight,
        long columns,
        long rows) {

    /** Tiles of the finest level of web maps that is ever looked at. */
    public static final int FINEST = 24;

    /** Level of the usual web pyramid, in {@link MapSystem.WebMercator}. */
    public static TileMatrix web(int zoom, int tileSize) {
        double half = MapSystem.WebMercator.HALF;
        long tiles = 1L << zoom;
        double pixel = 2 * half / tiles / tileSize;
        return new TileMatrix(zoom, -half, half, pixel, pixel, tileSize, tileSize, tiles, tiles);
    }

    /** Pixels to the right of the first column. */
    public double column(double east) {
        return (east - west) / pixelX;
    }

    /** Pixels below the first row. */
    public double row(double northing) {
        return (north - northing) / pixelY;
    }
}
