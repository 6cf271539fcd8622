package yalos.web.block;

import java.util.List;
import java.util.Locale;
import yalos.core.geodesy.LonLat;
import yalos.web.store.BlockFacts;

/** An outline drawn small, as the path of an SVG of 64 by 48. */
final class Thumbnail {
    private static final double WIDTH = 64;
    private static final double HEIGHT = 48;
    private static final double EDGE = 3;

    private Thumbnail() {}

    /** Path data; empty without an outline. Longitudes are shortened by the latitude, which is enough at this size. */
    static String path(BlockFacts facts) {
        if (facts.outline().isEmpty()) {
            return "";
        }
        LonLat middle = facts.outline().middle();
        double shorten = Math.cos(Math.toRadians(middle.latDeg()));
        double spanX = 1e-9;
        double spanY = 1e-9;
        for (LonLat corner : facts.outline().corners()) {
            spanX = Math.max(spanX, Math.abs(corner.lonNear(middle.lonDeg()) - middle.lonDeg()) * shorten);
            spanY = Math.max(spanY, Math.abs(corner.latDeg() - middle.latDeg()));
        }
        double scale = Math.min((WIDTH / 2 - EDGE) / spanX, (HEIGHT / 2 - EDGE) / spanY);
        StringBuilder path = new StringBuilder();
        for (List<LonLat> ring : facts.outline().rings()) {
            String command = "M";
            for (LonLat corner : ring) {
                double x = WIDTH / 2 + (corner.lonNear(middle.lonDeg()) - middle.lonDeg()) * shorten * scale;
                double y = HEIGHT / 2 - (corner.latDeg() - middle.latDeg()) * scale;
                path.append(String.format(Locale.ROOT, "%s%.1f %.1f", command, x, y));
                command = "L";
            }
            path.append("Z");
        }
        return path.toString();
    }
}
