package yalos.web.elevation;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Iterator;
import java.util.Optional;
import java.util.OptionalInt;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.springframework.stereotype.Service;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.terrain.ElevationModel;
import yalos.core.terrain.GeoTiff;
import yalos.core.terrain.Georeference;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.Raster;
import yalos.core.terrain.VerticalDatum;
import yalos.core.terrain.WorldFile;
import yalos.web.shell.NotThere;
import yalos.web.store.ModelMapper;
import yalos.web.store.ModelMapper.ModelRow;
import yalos.web.store.SafeFiles;

/** Takes georeferenced pictures in, and lays them into the plane of a block, to lie under the plan. */
@Service
public class Pictures {
    private static final String PICTURE = "PICTURE";
    private static final long MOST_PIXELS = 100_000_000;

    private final ModelMapper rows;
    private final ModelFiles files;

    Pictures(ModelMapper rows, ModelFiles files) {
        this.rows = rows;
        this.files = files;
    }

    /**
     * @param world text of the world file; empty for a GeoTIFF
     * @param epsg of the world file's positions; the GeoTIFF's own where empty
     * @throws InputFault for a picture that cannot be read or placed
     */
    public long take(long job, String name, InputStream content, String world, OptionalInt epsg) throws IOException {
        Path upload = files.aside(content);
        try {
            int code = checked(upload, name, world, epsg);
            String shortName = name.length() > 200 ? name.substring(0, 200) : name;
            return files.keep(upload, ModelFiles.PICTURE, () -> {
                long id = rows.insert(job, PICTURE, shortName, code, "picture", "", "");
                keepWorld(id, world);
                return id;
            });
        } finally {
            Files.deleteIfExists(upload);
        }
    }

    private static boolean isTiff(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            byte[] start = in.readNBytes(2);
            return start.length == 2 && start[0] == start[1] && (start[0] == 'I' || start[0] == 'M');
        }
    }

    private static int checked(Path file, String name, String world, OptionalInt epsg) throws IOException {
        if (isTiff(file)) {
            try (GeoTiff tiff = GeoTiff.open(file)) {
                if (!tiff.isPicture()) {
                    throw new InputFault(
                            "file",
                            name,
                            "“%s” is no picture of red, green and blue in 8 bits. Bring heights in as an elevation model."
                                    .formatted(name));
                }
                return ElevationModel.of(tiff, epsg, VerticalDatum.GEOID_METRES).epsg();
            }
        }
        if (world.isBlank()) {
            throw new InputFault(
                    "world",
                    "none",
                    "A PNG or JPEG needs its world file (.pgw, .jgw, .wld), which says where it lies. Choose both.");
        }
        WorldFile.read(world);
        image(file, name, true);
        return epsg.orElseThrow(
                () -> new InputFault("epsg", "none", "A world file does not name its grid. Give the EPSG code."));
    }

    /** Decodes a picture after looking at its size; only looks where asked to. */
    private static Optional<BufferedImage> image(Path file, String name, boolean onlyLook) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(file.toFile())) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw new InputFault(
                        "file", name, "“%s” is no GeoTIFF, PNG or JPEG, whatever its name says.".formatted(name));
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in);
                long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
                if (pixels > MOST_PIXELS) {
                    throw new InputFault(
                            "file",
                            pixels,
                            "The picture has %,d pixels; up to %,d are read. Make it smaller."
                                    .formatted(pixels, MOST_PIXELS));
                }
                return onlyLook ? Optional.empty() : Optional.of(reader.read(0));
            } finally {
                reader.dispose();
            }
        } catch (IOException | IllegalArgumentException | IndexOutOfBoundsException e) {
            throw new InputFault("file", name, "“%s” is damaged; it cannot be read as a picture.".formatted(name));
        }
    }

    private void keepWorld(long id, String world) {
        if (!world.isBlank()) {
            try {
                SafeFiles.write(files.file(id, ModelFiles.WORLD), world.getBytes(StandardCharsets.UTF_8));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    private Path file(long id) {
        return files.file(id, ModelFiles.PICTURE);
    }

    /** One band of a decoded picture as a raster. */
    private record Band(BufferedImage image, int shift, Georeference georeference, int code) implements Raster {
        @Override
        public int columns() {
            return image.getWidth();
        }

        @Override
        public int rows() {
            return image.getHeight();
        }

        @Override
        public OptionalInt epsg() {
            return OptionalInt.of(code);
        }

        @Override
        public float[] window(int firstColumn, int firstRow, int wide, int high) {
            float[] values = new float[wide * high];
            for (int row = 0; row < high; row++) {
                for (int column = 0; column < wide; column++) {
                    int c = firstColumn + column;
                    int r = firstRow + row;
                    boolean inside = c >= 0 && r >= 0 && c < columns() && r < rows();
                    values[row * wide + column] = inside ? image.getRGB(c, r) >> shift & 0xff : Float.NaN;
                }
            }
            return values;
        }

        @Override
        public void close() {
            // nothing is held open
        }
    }

    /** One band of a GeoTIFF as a raster of its own. */
    private record TiffBand(GeoTiff tiff, int band) implements Raster {
        @Override
        public int columns() {
            return tiff.columns();
        }

        @Override
        public int rows() {
            return tiff.rows();
        }

        @Override
        public Georeference georeference() {
            return tiff.georeference();
        }

        @Override
        public OptionalInt epsg() {
            return tiff.epsg();
        }

        @Override
        public float[] window(int firstColumn, int firstRow, int wide, int high) {
            return tiff.band(band, firstColumn, firstRow, wide, high);
        }

        @Override
        public void close() {
            tiff.close();
        }
    }

    /** What {@link #over} takes of memory at the most: the picture unpacked, and three grids of the rectangle. */
    public long bytes(long id, int columns, int rowCount) {
        try {
            return (isTiff(file(id)) ? 0 : 4 * MOST_PIXELS) + 16L * columns * rowCount;
        } catch (IOException gone) {
            return 0;
        }
    }

    /** The picture over a rectangle of the block's plane, as PNG; transparent where it does not reach. */
    public byte[] over(long id, LocalPlane plane, double west, double north, double cell, int columns, int rowCount) {
        ModelRow row = rows.byId(id).orElseThrow(() -> new NotThere("There is no such picture any more."));
        HeightGrid[] bands = new HeightGrid[3];
        try {
            if (isTiff(file(id))) {
                try (GeoTiff tiff = GeoTiff.open(file(id))) {
                    for (int band = 0; band < 3; band++) {
                        bands[band] = filled(
                                new TiffBand(tiff, band), row.epsg(), plane, west, north, cell, columns, rowCount);
                    }
                }
            } else {
                BufferedImage image = image(file(id), row.name(), false).orElseThrow();
                Georeference place =
                        WorldFile.read(Files.readString(files.file(id, ModelFiles.WORLD), StandardCharsets.UTF_8));
                for (int band = 0; band < 3; band++) {
                    Band one = new Band(image, 16 - 8 * band, place, row.epsg());
                    bands[band] = filled(one, row.epsg(), plane, west, north, cell, columns, rowCount);
                }
            }
            return png(bands, columns, rowCount);
        } catch (IOException | UncheckedIOException | InputFault gone) {
            throw new NotThere(
                    "The file of picture “%s” is gone or damaged. Take it away on the Ground stage, and lay it under again."
                            .formatted(row.name()));
        }
    }

    private static HeightGrid filled(
            Raster raster, int epsg, LocalPlane plane, double west, double north, double cell, int columns, int rows) {
        HeightGrid grid = HeightGrid.level(west, north, cell, columns, rows, Double.NaN);
        new ElevationModel(raster, epsg, VerticalDatum.GEOID_METRES).fill(grid, plane);
        return grid;
    }

    private static byte[] png(HeightGrid[] bands, int columns, int rows) throws IOException {
        BufferedImage image = new BufferedImage(columns, rows, BufferedImage.TYPE_INT_ARGB);
        for (int row = 0; row < rows; row++) {
            for (int column = 0; column < columns; column++) {
                float red = bands[0].cell(column, row);
                if (!Float.isNaN(red)) {
                    image.setRGB(
                            column,
                            row,
                            0xff000000
                                    | Math.round(red) << 16
                                    | Math.round(bands[1].cell(column, row)) << 8
                                    | Math.round(bands[2].cell(column, row)));
                }
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }
}
