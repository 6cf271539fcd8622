package yalos.web.maps;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferInt;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import yalos.core.basemap.MapWindow;
import yalos.core.basemap.TileMatrix;
import yalos.core.basemap.TilePyramid;
import yalos.core.fault.InputFault;
import yalos.web.work.Recent;

/**
 * Paints a square of the job's grid from a map: the tiles that reach into it are laid side by side, and each pixel takes its colour from
 * between the four nearest of theirs. Where a level lacks a tile, coarser ones stand in.
 */
final class MapPainter {
    private static final Logger LOG = LoggerFactory.getLogger(MapPainter.class);
    private static final int MOST_TILES = 48;
    private static final int MOST_SIDE = 4096;
    private static final int COARSER = 6;
    private static final int STEP = 16;

    /** Pictures of tiles as they were unpacked, by map and place. */
    private final Map<String, BufferedImage> unpacked = Recent.map(Recent.fitting(16, 256L * 256 * Integer.BYTES, 32));

    /**
     * A painted square.
     *
     * @param png the picture
     * @param whole whether nothing was missing that may come later
     */
    record Painted(byte[] png, boolean whole) {}

    /**
     * @param key of the map and its state, for remembering its tiles
     */
    Painted paint(String key, TilePyramid map, MapWindow window) throws IOException {
        Square square = new Square(key, map, window);
        BufferedImage picture = square.picture();
        ByteArrayOutputStream out = new ByteArrayOutputStream(64_000);
        ImageIO.write(picture, "png", out);
        return new Painted(out.toByteArray(), square.whole);
    }

    /** One square in the making. */
    private final class Square {
        private final String key;
        private final TilePyramid map;
        private final MapWindow window;
        private final MapWindow.Laid laid;
        private boolean whole = true;
        private long firstColumn;
        private long firstRow;
        private long lastColumn;
        private long lastRow;

        Square(String key, TilePyramid map, MapWindow window) {
            this.key = key;
            this.map = map;
            this.window = window;
            this.laid = window.laid(map.system());
        }

        BufferedImage picture() {
            BufferedImage picture = new BufferedImage(window.size(), window.size(), BufferedImage.TYPE_INT_ARGB);
            List<TileMatrix> levels = map.levels();
            int at = levels.indexOf(window.level(map));
            while (at >= 0 && !reaches(levels.get(at))) {
                at--;
            }
            if (at >= 0 && firstColumn <= lastColumn) {
                sample(picture, mosaic(levels, at), levels.get(at));
            }
            return picture;
        }

        /** Which tiles of a level reach into the square; false for too many. */
        private boolean reaches(TileMatrix level) {
            double left = Double.POSITIVE_INFINITY;
            double right = Double.NEGATIVE_INFINITY;
            double above = Double.POSITIVE_INFINITY;
            double below = Double.NEGATIVE_INFINITY;
            for (int row = 0; row < window.size() + STEP; row += STEP) {
                for (int column = 0; column < window.size() + STEP; column += STEP) {
                    int c = Math.min(column, window.size() - 1);
                    int r = Math.min(row, window.size() - 1);
                    double x = level.column(laid.east(c, r));
                    double y = level.row(laid.north(c, r));
                    if (!Double.isNaN(x) && !Double.isNaN(y)) {
                        left = Math.min(left, x);
                        right = Math.max(right, x);
                        above = Math.min(above, y);
                        below = Math.max(below, y);
                    }
                }
            }
            // A pixel more on each side, to draw colours out between pixels.
            firstColumn = (long) Math.max(0, Math.floor((left - 1) / level.tileWidth()));
            lastColumn = (long) Math.min(level.columns() - 1, Math.floor((right + 1) / level.tileWidth()));
            firstRow = (long) Math.max(0, Math.floor((above - 1) / level.tileHeight()));
            lastRow = (long) Math.min(level.rows() - 1, Math.floor((below + 1) / level.tileHeight()));
            if (firstColumn > lastColumn || firstRow > lastRow) {
                lastColumn = firstColumn - 1;
                return true;
            }
            return (lastColumn - firstColumn + 1) * (lastRow - firstRow + 1) <= MOST_TILES;
        }

        private BufferedImage mosaic(List<TileMatrix> levels, int at) {
            TileMatrix level = levels.get(at);
            BufferedImage mosaic = new BufferedImage(
                    (int) (lastColumn - firstColumn + 1) * level.tileWidth(),
                    (int) (lastRow - firstRow + 1) * level.tileHeight(),
                    BufferedImage.TYPE_INT_ARGB);
            Graphics2D pen = mosaic.createGraphics();
            pen.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
            for (long row = firstRow; row <= lastRow; row++) {
                for (long column = firstColumn; column <= lastColumn; column++) {
                    int x = (int) (column - firstColumn) * level.tileWidth();
                    int y = (int) (row - firstRow) * level.tileHeight();
                    Optional<BufferedImage> tile = tile(level, column, row);
                    if (tile.isPresent()) {
                        pen.drawImage(tile.get(), x, y, level.tileWidth(), level.tileHeight(), null);
                    } else {
                        coarser(pen, levels, at, column, row, x, y);
                    }
                }
            }
            pen.dispose();
            return mosaic;
        }

        /** Draws the piece of the next coarser tile there is. */
        private void coarser(Graphics2D pen, List<TileMatrix> levels, int at, long column, long row, int x, int y) {
            TileMatrix level = levels.get(at);
            double west = level.west() + column * level.tileWidth() * level.pixelX();
            double north = level.north() - row * level.tileHeight() * level.pixelY();
            double east = west + level.tileWidth() * level.pixelX();
            double south = north - level.tileHeight() * level.pixelY();
            for (int up = at - 1; up >= Math.max(0, at - COARSER); up--) {
                TileMatrix parent = levels.get(up);
                long parentColumn = (long) Math.floor(parent.column((west + east) / 2) / parent.tileWidth());
                long parentRow = (long) Math.floor(parent.row((north + south) / 2) / parent.tileHeight());
                Optional<BufferedImage> tile = tile(parent, parentColumn, parentRow);
                if (tile.isPresent()) {
                    double shareX = (double) tile.get().getWidth() / parent.tileWidth();
                    double shareY = (double) tile.get().getHeight() / parent.tileHeight();
                    double left = parent.column(west) - parentColumn * parent.tileWidth();
                    double above = parent.row(north) - parentRow * parent.tileHeight();
                    double right = parent.column(east) - parentColumn * parent.tileWidth();
                    double below = parent.row(south) - parentRow * parent.tileHeight();
                    pen.drawImage(
                            tile.get(),
                            x,
                            y,
                            x + level.tileWidth(),
                            y + level.tileHeight(),
                            (int) Math.round(left * shareX),
                            (int) Math.round(above * shareY),
                            (int) Math.ceil(right * shareX),
                            (int) Math.ceil(below * shareY),
                            null);
                    return;
                }
            }
        }

        private Optional<BufferedImage> tile(TileMatrix level, long column, long row) {
            if (column < 0 || row < 0 || column >= level.columns() || row >= level.rows()) {
                return Optional.empty();
            }
            String name = key + ' ' + level.zoom() + ' ' + column + ' ' + row;
            BufferedImage known = unpacked.get(name);
            if (known != null) {
                return Optional.of(known);
            }
            try {
                Optional<BufferedImage> read = map.tile(level, column, row).flatMap(MapPainter::read);
                read.ifPresent(image -> unpacked.put(name, image));
                return read;
            } catch (TileFetch.NotFetched later) {
                whole = false;
                return Optional.empty();
            } catch (IOException | InputFault damaged) {
                LOG.warn("A tile of a map cannot be read: {}", damaged.getMessage());
                return Optional.empty();
            }
        }

        private void sample(BufferedImage picture, BufferedImage mosaic, TileMatrix level) {
            int[] to = ((DataBufferInt) picture.getRaster().getDataBuffer()).getData();
            int[] from = ((DataBufferInt) mosaic.getRaster().getDataBuffer()).getData();
            int width = mosaic.getWidth();
            int height = mosaic.getHeight();
            double left = firstColumn * (double) level.tileWidth();
            double above = firstRow * (double) level.tileHeight();
            for (int row = 0; row < window.size(); row++) {
                for (int column = 0; column < window.size(); column++) {
                    double x = level.column(laid.east(column, row)) - left - 0.5;
                    double y = level.row(laid.north(column, row)) - above - 0.5;
                    if (x > -1 && y > -1 && x < width && y < height) {
                        to[row * window.size() + column] = between(from, width, height, x, y);
                    }
                }
            }
        }
    }

    private static int between(int[] pixels, int width, int height, double x, double y) {
        int left = (int) Math.floor(x);
        int above = (int) Math.floor(y);
        double right = x - left;
        double down = y - above;
        int x0 = Math.max(0, left);
        int x1 = Math.min(width - 1, left + 1);
        int y0 = Math.max(0, above) * width;
        int y1 = Math.min(height - 1, above + 1) * width;
        int a = pixels[y0 + x0];
        int b = pixels[y0 + x1];
        int c = pixels[y1 + x0];
        int d = pixels[y1 + x1];
        int mixed = 0;
        for (int shift = 0; shift < 32; shift += 8) {
            double upper = (a >>> shift & 0xff) * (1 - right) + (b >>> shift & 0xff) * right;
            double lower = (c >>> shift & 0xff) * (1 - right) + (d >>> shift & 0xff) * right;
            mixed |= (int) (upper * (1 - down) + lower * down + 0.5) << shift;
        }
        return mixed;
    }

    /** A tile's picture; its size is looked at before it is unpacked. */
    private static Optional<BufferedImage> read(byte[] bytes) {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                return Optional.empty();
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                boolean sane = reader.getWidth(0) <= MOST_SIDE && reader.getHeight(0) <= MOST_SIDE;
                return sane ? Optional.of(reader.read(0)) : Optional.empty();
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException damaged) {
            return Optional.empty();
        }
    }
}
