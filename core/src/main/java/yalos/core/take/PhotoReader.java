package yalos.core.take;

import com.adobe.internal.xmp.XMPException;
import com.adobe.internal.xmp.XMPMeta;
import com.drew.imaging.FileType;
import com.drew.imaging.FileTypeDetector;
import com.drew.imaging.ImageMetadataReader;
import com.drew.imaging.ImageProcessingException;
import com.drew.imaging.jpeg.JpegMetadataReader;
import com.drew.lang.Rational;
import com.drew.metadata.Directory;
import com.drew.metadata.Metadata;
import com.drew.metadata.exif.ExifIFD0Directory;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import com.drew.metadata.exif.GpsDirectory;
import com.drew.metadata.jpeg.JpegDirectory;
import com.drew.metadata.xmp.XmpDirectory;
import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.LonLat;
import yalos.core.take.PhotoFacts.Position;
import yalos.core.take.PhotoFacts.Readable;
import yalos.core.take.PhotoFacts.View;
import yalos.core.terrain.VerticalDatum.Zero;

/**
 * Reads what JPEG and TIFF files say of themselves: EXIF (CIPA DC-008, Exif 2.3 and 3.0) and XMP in EXIF's names. Only the head of a file is read, no pixel of it; nothing a file says can run, grow or lead anywhere.
 *
 * <p>Altitudes: up to Exif 2.32 they count from sea level, taken as the geoid; from Exif 3.0 on 0 and 1 count from the ellipsoid, 2 and 3 from sea level.
 */
public final class PhotoReader {
    private static final int ELEVATION = 0x9405;
    private static final int OFFSET = 0x9011;
    private static final int POSITIONING_ERROR = 0x1f;
    private static final String XMP_EXIF = "http://ns.adobe.com/exif/1.0/";
    private static final int EXIF_3 = 300;
    /** No camera that flies has more; a head that says so is damaged or hostile. */
    private static final long MOST_PIXELS = 1_000_000_000L;

    private static final int LARGEST_SIDE = 65_000;
    /** Makers write padding and previews behind a picture. */
    private static final int TAIL_BYTES = 1 << 16;

    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("uuuu:MM:dd HH:mm:ss");

    private final Metadata metadata;
    private final int version;

    private PhotoReader(Metadata metadata) {
        this.metadata = metadata;
        this.version = version();
    }

    /**
     * What a file says; where it cannot be read, why.
     *
     * @param name it is known by
     * @throws IOException where the disk does not give it
     */
    public static PhotoFacts read(String name, Path file) throws IOException {
        String known =
                Names.given(name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1), "photo");
        long bytes = Files.size(file);
        if (bytes == 0) {
            return PhotoFacts.unreadable(known, 0, "The file is empty (0 bytes): copy it again from the card.");
        }
        try (InputStream in = new BufferedInputStream(Files.newInputStream(file))) {
            FileType type = FileTypeDetector.detectFileType(in);
            if (type != FileType.Jpeg && type != FileType.Tiff) {
                return PhotoFacts.unreadable(
                        known, bytes, "This is no JPEG or TIFF picture, whatever its name says. It was left out.");
            }
            Metadata metadata = type == FileType.Jpeg
                    ? JpegMetadataReader.readMetadata(in)
                    : ImageMetadataReader.readMetadata(file.toFile());
            return new PhotoReader(metadata).facts(known, bytes, type == FileType.Jpeg && !ends(file, bytes));
        } catch (ImageProcessingException | EOFException | RuntimeException | StackOverflowError damaged) {
            // Whatever a reader of a damaged file trips over, the file is the cause.
            return PhotoFacts.unreadable(
                    known, bytes, "The file is damaged at its beginning: copy it again from the card.");
        }
    }

    private PhotoFacts facts(String name, long bytes, boolean cut) {
        PhotoFacts.Camera camera = camera();
        if (camera.width() > LARGEST_SIDE
                || camera.height() > LARGEST_SIDE
                || (long) camera.width() * camera.height() > MOST_PIXELS) {
            return PhotoFacts.unreadable(
                    name,
                    bytes,
                    "Its head says %,d × %,d pixels, more than any camera that flies. It was left out."
                            .formatted(camera.width(), camera.height()));
        }
        Position own = position();
        boolean placed = own.place().isPresent();
        return new PhotoFacts(
                name,
                bytes,
                cut ? Readable.METADATA : Readable.ALL,
                cut ? "The file ends before its picture does: copy it again from the card." : "",
                clock(),
                offset(),
                placed || gpsTime().isPresent() ? gpsTime() : xmpTime(),
                placed ? own : xmpPosition(),
                view(),
                camera);
    }

    /** Whether a JPEG has its end mark. */
    private static boolean ends(Path file, long bytes) throws IOException {
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            int count = (int) Math.min(TAIL_BYTES, bytes);
            byte[] tail = new byte[count];
            in.seek(bytes - count);
            in.readFully(tail);
            for (int i = count - 2; i >= 0; i--) {
                if ((tail[i] & 0xff) == 0xff && (tail[i + 1] & 0xff) == 0xd9) {
                    return true;
                }
            }
            return false;
        }
    }

    private Optional<ExifSubIFDDirectory> exif() {
        // Some writers put a second directory of that kind for a preview.
        return metadata.getDirectoriesOfType(ExifSubIFDDirectory.class).stream().findFirst();
    }

    private Optional<GpsDirectory> gps() {
        return Optional.ofNullable(metadata.getFirstDirectoryOfType(GpsDirectory.class));
    }

    private int version() {
        String text = exif().map(exif -> exif.getByteArray(ExifSubIFDDirectory.TAG_EXIF_VERSION))
                .map(bytes -> new String(bytes, StandardCharsets.US_ASCII))
                .orElse("");
        return text.matches("\\d{4}") ? Integer.parseInt(text) : 0;
    }

    private Optional<String> text(Class<? extends Directory> kind, int tag) {
        return Optional.ofNullable(metadata.getFirstDirectoryOfType(kind))
                .map(directory -> directory.getString(tag))
                .map(text -> text.replace("\0", "").strip())
                .filter(text -> !text.isEmpty());
    }

    private static OptionalDouble figure(Directory directory, int tag) {
        Rational value = directory.getRational(tag);
        return value == null || value.getDenominator() == 0
                ? OptionalDouble.empty()
                : OptionalDouble.of(value.doubleValue());
    }

    private OptionalDouble exifFigure(int tag) {
        return exif().map(exif -> figure(exif, tag)).orElse(OptionalDouble.empty());
    }

    private Optional<LocalDateTime> clock() {
        String text = text(ExifSubIFDDirectory.class, ExifSubIFDDirectory.TAG_DATETIME_ORIGINAL)
                .orElse("");
        try {
            LocalDateTime whole = LocalDateTime.parse(text, CLOCK);
            String fraction = text(ExifSubIFDDirectory.class, ExifSubIFDDirectory.TAG_SUBSECOND_TIME_ORIGINAL)
                    .filter(digits -> digits.matches("\\d{1,9}"))
                    .orElse("0");
            return Optional.of(whole.plusNanos(Long.parseLong((fraction + "000000000").substring(0, 9))));
        } catch (DateTimeException none) {
            return Optional.empty();
        }
    }

    private Optional<ZoneOffset> offset() {
        try {
            return text(ExifSubIFDDirectory.class, OFFSET).map(ZoneOffset::of);
        } catch (DateTimeException none) {
            return Optional.empty();
        }
    }

    private Optional<Instant> gpsTime() {
        return gps().flatMap(gps -> {
            Rational[] parts = gps.getRationalArray(GpsDirectory.TAG_TIME_STAMP);
            String day = Optional.ofNullable(gps.getString(GpsDirectory.TAG_DATE_STAMP))
                    .orElse("")
                    .strip();
            if (parts == null || parts.length != 3 || !day.matches("\\d{4}[:-]\\d{2}[:-]\\d{2}")) {
                return Optional.empty();
            }
            try {
                double seconds = parts[0].doubleValue() * 3600 + parts[1].doubleValue() * 60 + parts[2].doubleValue();
                return Optional.of(LocalDate.parse(day.replace(':', '-'))
                        .atStartOfDay()
                        .toInstant(ZoneOffset.UTC)
                        .plusNanos(Math.round(seconds * 1e9)));
            } catch (DateTimeException none) {
                return Optional.empty();
            }
        });
    }

    private Position position() {
        return gps().map(gps -> {
                    Optional<LonLat> place = place(
                            degrees(gps, GpsDirectory.TAG_LONGITUDE, GpsDirectory.TAG_LONGITUDE_REF, "W"),
                            degrees(gps, GpsDirectory.TAG_LATITUDE, GpsDirectory.TAG_LATITUDE_REF, "S"));
                    Integer reference = gps.getInteger(GpsDirectory.TAG_ALTITUDE_REF);
                    int from = reference == null ? 0 : reference;
                    OptionalDouble up = figure(gps, GpsDirectory.TAG_ALTITUDE);
                    Integer corrected = gps.getInteger(GpsDirectory.TAG_DIFFERENTIAL);
                    return new Position(
                            place,
                            height(up, from),
                            zero(from),
                            figure(gps, POSITIONING_ERROR),
                            Optional.ofNullable(corrected).map(flag -> flag == 1));
                })
                .orElse(Position.NONE);
    }

    private static OptionalDouble height(OptionalDouble up, int from) {
        return up.isEmpty() ? up : OptionalDouble.of(from == 1 || from == 3 ? -up.getAsDouble() : up.getAsDouble());
    }

    private Zero zero(int from) {
        return version >= EXIF_3 && from < 2 ? Zero.ELLIPSOID : Zero.GEOID;
    }

    private static double degrees(Directory gps, int tag, int side, String negative) {
        Rational[] parts = gps.getRationalArray(tag);
        if (parts == null || parts.length != 3) {
            return Double.NaN;
        }
        double degrees = 0;
        for (int i = 2; i >= 0; i--) {
            degrees = degrees / 60 + (parts[i].getDenominator() == 0 ? 0 : parts[i].doubleValue());
        }
        String letter = Optional.ofNullable(gps.getString(side)).orElse("");
        return letter.toUpperCase(Locale.ROOT).startsWith(negative) ? -degrees : degrees;
    }

    /** Null island is what receivers write that know nothing. */
    private static Optional<LonLat> place(double lon, double lat) {
        try {
            return Double.isNaN(lon) || Double.isNaN(lat) || lon == 0 && lat == 0
                    ? Optional.empty()
                    : Optional.of(LonLat.of(lon, lat));
        } catch (InputFault outside) {
            return Optional.empty();
        }
    }

    private View view() {
        OptionalDouble elevation = exifFigure(ELEVATION);
        Optional<GpsDirectory> gps = gps();
        OptionalDouble direction =
                gps.map(one -> figure(one, GpsDirectory.TAG_IMG_DIRECTION)).orElse(OptionalDouble.empty());
        String reference = gps.map(one -> one.getString(GpsDirectory.TAG_IMG_DIRECTION_REF))
                .orElse("");
        if (direction.isEmpty()) {
            direction = rational(xmp("GPSImgDirection"));
            reference = xmp("GPSImgDirectionRef").orElse("");
        }
        return new View(direction, reference.startsWith("M"), elevation);
    }

    private PhotoFacts.Camera camera() {
        Optional<JpegDirectory> jpeg = Optional.ofNullable(metadata.getFirstDirectoryOfType(JpegDirectory.class));
        Optional<ExifIFD0Directory> first =
                Optional.ofNullable(metadata.getFirstDirectoryOfType(ExifIFD0Directory.class));
        Integer iso = exif().map(exif -> exif.getInteger(ExifSubIFDDirectory.TAG_ISO_EQUIVALENT))
                .orElse(null);
        return new PhotoFacts.Camera(
                Names.clean(text(ExifIFD0Directory.class, ExifIFD0Directory.TAG_MODEL)
                        .map(model -> model.length() > 100 ? model.substring(0, 100) : model)
                        .orElse("")),
                exifFigure(ExifSubIFDDirectory.TAG_FOCAL_LENGTH),
                exifFigure(ExifSubIFDDirectory.TAG_EXPOSURE_TIME),
                exifFigure(ExifSubIFDDirectory.TAG_FNUMBER),
                iso == null ? OptionalInt.empty() : OptionalInt.of(iso),
                jpeg.map(one -> one.getInteger(JpegDirectory.TAG_IMAGE_WIDTH))
                        .orElseGet(() -> whole(first, ExifIFD0Directory.TAG_IMAGE_WIDTH)),
                jpeg.map(one -> one.getInteger(JpegDirectory.TAG_IMAGE_HEIGHT))
                        .orElseGet(() -> whole(first, ExifIFD0Directory.TAG_IMAGE_HEIGHT)),
                whole(exif(), ExifSubIFDDirectory.TAG_EXIF_IMAGE_WIDTH),
                whole(exif(), ExifSubIFDDirectory.TAG_EXIF_IMAGE_HEIGHT),
                Math.max(1, whole(first, ExifIFD0Directory.TAG_ORIENTATION)));
    }

    private static int whole(Optional<? extends Directory> directory, int tag) {
        Integer value = directory.map(one -> one.getInteger(tag)).orElse(null);
        return value == null ? 0 : value;
    }

    // XMP: the same by other names, where EXIF says nothing.

    private Optional<String> xmp(String name) {
        for (XmpDirectory one : metadata.getDirectoriesOfType(XmpDirectory.class)) {
            XMPMeta meta = one.getXMPMeta();
            try {
                String value = meta == null ? null : meta.getPropertyString(XMP_EXIF, name);
                if (value != null && !value.isBlank()) {
                    return Optional.of(value.strip());
                }
            } catch (XMPException none) {
                return Optional.empty();
            }
        }
        return Optional.empty();
    }

    private static OptionalDouble rational(Optional<String> text) {
        try {
            String[] parts = text.orElse("").split("/");
            double value = Double.parseDouble(parts[0]) / (parts.length > 1 ? Double.parseDouble(parts[1]) : 1);
            return Double.isFinite(value) ? OptionalDouble.of(value) : OptionalDouble.empty();
        } catch (NumberFormatException none) {
            return OptionalDouble.empty();
        }
    }

    private Position xmpPosition() {
        int from = (int) rational(xmp("GPSAltitudeRef")).orElse(0);
        Optional<LonLat> place = place(xmpDegrees("GPSLongitude"), xmpDegrees("GPSLatitude"));
        return place.isEmpty()
                ? Position.NONE
                : new Position(
                        place,
                        height(rational(xmp("GPSAltitude")), from),
                        zero(from),
                        rational(xmp("GPSHPositioningError")),
                        xmp("GPSDifferential").map(text -> text.equals("1")));
    }

    /** {@code 47,36.70887N} or {@code 47,36,42.5N}. */
    private double xmpDegrees(String name) {
        String text = xmp(name).orElse("");
        if (!text.matches("[0-9., ]+[NSEW]")) {
            return Double.NaN;
        }
        String[] parts = text.substring(0, text.length() - 1).split(",");
        double degrees = 0;
        try {
            for (int i = parts.length - 1; i >= 0; i--) {
                degrees = degrees / 60 + Double.parseDouble(parts[i].strip());
            }
        } catch (NumberFormatException none) {
            return Double.NaN;
        }
        return text.endsWith("S") || text.endsWith("W") ? -degrees : degrees;
    }

    private Optional<Instant> xmpTime() {
        try {
            return xmp("GPSTimeStamp").map(text -> OffsetDateTime.parse(text).toInstant());
        } catch (DateTimeException none) {
            return Optional.empty();
        }
    }
}
