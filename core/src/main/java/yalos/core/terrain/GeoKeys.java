package yalos.core.terrain;

import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;

/** What a TIFF says about where it lies (OGC GeoTIFF 1.1, from memory). */
final class GeoKeys {
    private static final int PIXEL_SCALE = 33550;
    private static final int TIE_POINTS = 33922;
    private static final int TRANSFORMATION = 34264;
    private static final int DIRECTORY = 34735;

    private static final int RASTER_TYPE = 1025;
    private static final int GEOGRAPHIC = 2048;
    private static final int PROJECTED = 3072;
    private static final int VERTICAL_UNITS = 4099;
    private static final int USER_DEFINED = 32767;

    private final Map<Integer, Integer> keys = new HashMap<>();

    private GeoKeys() {}

    static GeoKeys of(TiffDirectory tags) throws IOException {
        GeoKeys read = new GeoKeys();
        long[] directory = tags.wholes(DIRECTORY);
        for (int i = 4; i + 3 < directory.length; i += 4) {
            if (directory[i + 1] == 0) {
                read.keys.put((int) directory[i], (int) directory[i + 3]);
            }
        }
        return read;
    }

    OptionalInt epsg() {
        Integer code = keys.getOrDefault(PROJECTED, keys.get(GEOGRAPHIC));
        return code == null || code == USER_DEFINED || code == 0 ? OptionalInt.empty() : OptionalInt.of(code);
    }

    OptionalDouble verticalUnitM() {
        return switch (keys.getOrDefault(VERTICAL_UNITS, 0)) {
            case 9001 -> OptionalDouble.of(1);
            case 9002 -> OptionalDouble.of(0.3048);
            case 9003 -> OptionalDouble.of(1200.0 / 3937);
            default -> OptionalDouble.empty();
        };
    }

    /** Of the cells' corners; a file that ties the centre of the first cell is moved by half a cell. */
    Georeference georeference(TiffDirectory tags) throws IOException {
        double[] matrix = tags.numbers(TRANSFORMATION);
        double[] scale = tags.numbers(PIXEL_SCALE);
        double[] ties = tags.numbers(TIE_POINTS);
        Georeference found;
        if (matrix.length >= 8) {
            found = new Georeference(matrix[3], matrix[7], matrix[0], matrix[1], matrix[4], matrix[5]);
        } else if (scale.length >= 2 && ties.length >= 6) {
            found = Georeference.northUp(
                    ties[3] - ties[0] * scale[0], ties[4] + ties[1] * scale[1], scale[0], scale[1]);
        } else {
            throw new InputFault(
                    "file",
                    "no georeference",
                    "The TIFF does not say where it lies. Save it with its georeference; it is not guessed.");
        }
        if (!found.isSound()) {
            throw new InputFault("file", "georeference", "The georeference of the TIFF maps every cell to one place.");
        }
        boolean point = keys.getOrDefault(RASTER_TYPE, 1) == 2;
        return point
                ? new Georeference(
                        found.x(-0.5, -0.5),
                        found.y(-0.5, -0.5),
                        found.xPerColumn(),
                        found.xPerRow(),
                        found.yPerColumn(),
                        found.yPerRow())
                : found;
    }
}
