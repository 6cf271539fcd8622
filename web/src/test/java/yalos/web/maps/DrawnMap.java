package yalos.web.maps;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;
import yalos.core.basemap.MapSystem;
import yalos.core.basemap.PmTilesFile;
import yalos.core.basemap.TileMatrix;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;

/** A made-up map of moor, wood, a lane and a burn round a place, for pictures. */
public final class DrawnMap {
    private static final int TILE = 256;
    private static final int AROUND = 3;

    private DrawnMap() {}

    /** Three levels of it as a PMTiles file. */
    public static byte[] round(LonLat middle) throws IOException {
        EastNorth at = new MapSystem.WebMercator().of(middle);
        PmTilesFile file = new PmTilesFile();
        for (int zoom = 14; zoom <= 16; zoom++) {
            TileMatrix level = TileMatrix.web(zoom, TILE);
            long column = (long) level.column(at.east()) / TILE;
            long row = (long) level.row(at.north()) / TILE;
            for (long x = column - AROUND; x <= column + AROUND; x++) {
                for (long y = row - AROUND; y <= row + AROUND; y++) {
                    file.with(zoom, x, y, tile(level, x, y, at));
                }
            }
        }
        return file.bytes();
    }

    private static byte[] tile(TileMatrix level, long column, long row, EastNorth middle) throws IOException {
        BufferedImage image = new BufferedImage(TILE, TILE, BufferedImage.TYPE_INT_RGB);
        double west = level.west() + column * TILE * level.pixelX() - middle.east();
        double north = level.north() - row * TILE * level.pixelY() - middle.north();
        for (int y = 0; y < TILE; y++) {
            for (int x = 0; x < TILE; x++) {
                double e = west + x * level.pixelX();
                double n = north - y * level.pixelY();
                double wood = Math.sin(e / 310) + Math.cos(n / 370) + 0.5 * Math.sin((e + n) / 160);
                image.setRGB(x, y, wood > 1.1 ? 0xc9d9b4 : wood > 0.2 ? 0xe0e6cb : 0xece7d3);
            }
        }
        Graphics2D pen = image.createGraphics();
        pen.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        line(pen, level, west, north, new Color(0x9c8f78), 14, -0.35, 260);
        line(pen, level, west, north, Color.WHITE, 10, -0.35, 260);
        line(pen, level, west, north, new Color(0x8fb3c9), 8, 1.9, -900);
        pen.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static void line(
            Graphics2D pen,
            TileMatrix level,
            double west,
            double north,
            Color colour,
            double wideM,
            double slope,
            double off) {
        Path2D path = new Path2D.Double();
        for (double e = -9000; e <= 9000; e += 60) {
            double x = (e - west) / level.pixelX();
            double y = (north - (slope * e + off + 90 * Math.sin(e / 400))) / level.pixelY();
            if (e == -9000) {
                path.moveTo(x, y);
            } else {
                path.lineTo(x, y);
            }
        }
        pen.setColor(colour);
        pen.setStroke(new BasicStroke((float) (wideM / level.pixelX())));
        pen.draw(path);
    }
}
