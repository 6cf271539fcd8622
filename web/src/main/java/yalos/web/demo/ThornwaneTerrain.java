package yalos.web.demo;

import java.io.IOException;
import java.io.OutputStream;
import java.util.OptionalInt;
import yalos.core.terrain.GeoTiffWriter;
import yalos.core.terrain.Georeference;

/**
 * The ground of the demo site, made by formula: a hill with the ramparts of a fort, a tarn, a wooded slope, an overgrown tramway
 * and the mound of a beacon tower. Invented; heights above the geoid in metres, UTM 30N, cells of 2.5 m.
 */
final class ThornwaneTerrain {
    private static final double WEST = 411_900;
    private static final double NORTH = 6_042_300;
    private static final double CELL = 2.5;
    private static final int COLUMNS = 840;
    private static final int ROWS = 680;

    private static final double HILL_EAST = 412_717;
    private static final double HILL_NORTH = 6_041_540;
    private static final double TARN_LEVEL = 262;

    private ThornwaneTerrain() {}

    static void write(OutputStream out) throws IOException {
        GeoTiffWriter.write(
                out, COLUMNS, ROWS, Georeference.northUp(WEST, NORTH, CELL, CELL), OptionalInt.of(32630), row -> {
                    float[] heights = new float[COLUMNS];
                    for (int column = 0; column < COLUMNS; column++) {
                        double height = height(WEST + (column + 0.5) * CELL, NORTH - (row + 0.5) * CELL);
                        heights[column] = Math.round(height * 100) / 100f;
                    }
                    return heights;
                });
    }

    static double height(double east, double north) {
        double country = 258
                + 9 * Math.sin((east - 411_900) / 410)
                + 7 * Math.cos((north - 6_040_600) / 360)
                + 3 * Math.sin((east + north) / 190)
                + 0.012 * (east - 412_000);
        double across = (east - HILL_EAST) / 300;
        double along = (north - HILL_NORTH) / 250;
        double fromTop = Math.hypot(across, along);
        double hill = 128 * Math.exp(-Math.pow(fromTop, 2.2) * 0.95);
        double ring = Math.hypot((east - HILL_EAST) / 1.15, north - HILL_NORTH);
        double gate = 1 - Math.exp(-Math.pow((Math.atan2(north - HILL_NORTH, east - HILL_EAST) + 0.6) / 0.09, 2));
        double ramparts = gate
                * (4.2 * bump(ring, 128, 7)
                        - 3.1 * bump(ring, 142, 7)
                        + 3.4 * bump(ring, 158, 7)
                        - 2.2 * bump(ring, 170, 6));
        double mound = 5 * bump(Math.hypot(east - 412_690, north - 6_041_575), 0, 14);
        double rough = 0.35 * Math.sin(east / 7.3) * Math.cos(north / 9.1) + 0.25 * Math.sin((east - north) / 4.7);
        double tramway = -2.2 * bump((north - 6_041_180) - 0.18 * (east - 412_300), 0, 8);
        double ground = country + hill + ramparts + mound + rough + tramway;
        double shore = Math.hypot((east - 413_326) / 34, (north - 6_041_069) / 30);
        if (shore < 1) {
            return TARN_LEVEL;
        }
        double blend = Math.exp(-(shore - 1) * 2.2);
        return ground * (1 - blend) + (TARN_LEVEL + 1.5 * (shore - 1)) * blend;
    }

    private static double bump(double at, double middle, double width) {
        return Math.exp(-Math.pow((at - middle) / width, 2));
    }
}
