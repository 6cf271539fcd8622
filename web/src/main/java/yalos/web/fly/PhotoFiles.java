package yalos.web.fly;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.DoublePredicate;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.MemoryCacheImageOutputStream;
import org.apache.commons.imaging.common.RationalNumber;
import org.apache.commons.imaging.formats.jpeg.exif.ExifRewriter;
import org.apache.commons.imaging.formats.tiff.constants.ExifTagConstants;
import org.apache.commons.imaging.formats.tiff.constants.GpsTagConstants;
import org.apache.commons.imaging.formats.tiff.constants.TiffDirectoryType;
import org.apache.commons.imaging.formats.tiff.constants.TiffTagConstants;
import org.apache.commons.imaging.formats.tiff.taginfos.TagInfoAscii;
import org.apache.commons.imaging.formats.tiff.taginfos.TagInfoRational;
import org.apache.commons.imaging.formats.tiff.taginfos.TagInfoSRational;
import org.apache.commons.imaging.formats.tiff.write.TiffOutputDirectory;
import org.apache.commons.imaging.formats.tiff.write.TiffOutputSet;
import yalos.core.block.LocalPlane;
import yalos.core.camera.Lens;
import yalos.core.control.Targets;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Positioning;
import yalos.core.ledger.CameraCard;
import yalos.core.plan.BlockPlan;
import yalos.core.rehearsal.Shot;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.sortie.Surroundings;

/**
 * The photos of a simulated flight as JPEG files with EXIF (CIPA DC-008, Exif 3.0): position and what it counts from, time with fractions and its zone, direction from true north, the camera's elevation angle,
 * positioning error, differential flag. What was not written on the card is not written here.
 */
final class PhotoFiles {
    /** Exif 2.31 and later: the camera's tilt from the horizontal, negative downwards. */
    private static final TagInfoSRational ELEVATION =
            new TagInfoSRational("CameraElevationAngle", 0x9405, TiffDirectoryType.EXIF_DIRECTORY_EXIF_IFD);

    private static final TagInfoAscii OFFSET =
            new TagInfoAscii("OffsetTimeOriginal", 0x9011, -1, TiffDirectoryType.EXIF_DIRECTORY_EXIF_IFD);

    private static final TagInfoRational POSITIONING_ERROR =
            new TagInfoRational("GPSHPositioningError", 0x1f, TiffDirectoryType.EXIF_DIRECTORY_GPS);

    private static final DateTimeFormatter EXIF = DateTimeFormatter.ofPattern("uuuu:MM:dd HH:mm:ss");
    private static final float QUALITY = 0.86f;
    private static final int ISO = 200;

    private final SimulatedFlight flight;
    private final BlockPlan plan;
    private final LocalPlane plane;
    private final Lens lens;
    private SimulatedPhoto painter;
    private ZonedDateTime began;

    /**
     * @param site its own picture, where there is one
     * @param targets on the ground
     * @param began when the rehearsal was begun, by the clock of the place
     */
    PhotoFiles(
            SimulatedFlight flight,
            Optional<SimulatedPhoto.Site> site,
            List<PlanePoint> targets,
            LocalDateTime began,
            ZoneId zone) {
        this.flight = flight;
        this.plan = flight.sorties().given().plan();
        this.plane = plan.block().plane();
        this.lens = Lens.of(plan.request().camera());
        Surroundings around = flight.sorties().given().around();
        this.painter = new SimulatedPhoto(
                around.ground(),
                site,
                targets,
                Targets.sideM(plan.design().scale().gsdM()));
        this.began = began.atZone(zone);
    }

    /**
     * All of them in a zip, with a table of what they are.
     *
     * @param on told how far it is, 0..1; asks whether to go on
     */
    void zip(OutputStream out, DoublePredicate on) throws IOException {
        List<Shot> written = flight.shots().stream().filter(Shot::written).toList();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            // Pictures are packed already.
            zip.setLevel(1);
            zip.putNextEntry(new ZipEntry("README.txt"));
            zip.write(
                    ("Photos of a simulated flight: sortie %d of %s.%nNothing real was photographed. Positions and times lie in the files (EXIF); heights are above the geoid, where the ground is known.%n"
                                    .formatted(
                                            flight.sortie().number(),
                                            plan.request().camera().name()))
                            .replace("\r\n", "\n")
                            .getBytes(StandardCharsets.UTF_8));
            zip.closeEntry();
            for (int i = 0; i < written.size(); i++) {
                if (!on.test((double) i / written.size())) {
                    return;
                }
                zip.putNextEntry(new ZipEntry(name(i + 1)));
                zip.write(jpeg(written.get(i)));
                zip.closeEntry();
            }
        }
    }

    /** The same with small pictures, taken so many minutes later. */
    PhotoFiles small(int laterMin) {
        painter = painter.small();
        began = began.plusMinutes(laterMin);
        return this;
    }

    /** File names count what was written. */
    String name(int number) {
        return String.format(Locale.ROOT, "SIM%d_%04d.JPG", flight.sortie().number(), number);
    }

    byte[] jpeg(Shot shot) throws IOException {
        byte[] plain = compressed(painter.of(shot, lens));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        new ExifRewriter().updateExifMetadataLossless(plain, out, exif(shot));
        return out.toByteArray();
    }

    private static byte[] compressed(BufferedImage image) throws IOException {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (MemoryCacheImageOutputStream stream = new MemoryCacheImageOutputStream(out)) {
            writer.setOutput(stream);
            ImageWriteParam how = writer.getDefaultWriteParam();
            how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            how.setCompressionQuality(QUALITY);
            writer.write(null, new IIOImage(image, null, null), how);
        } finally {
            writer.dispose();
        }
        return out.toByteArray();
    }

    private TiffOutputSet exif(Shot shot) throws IOException {
        TiffOutputSet set = new TiffOutputSet();
        ZonedDateTime at = began.plusNanos(Math.round(shot.seconds() * 1e9));
        TiffOutputDirectory root = set.getOrCreateRootDirectory();
        root.add(TiffTagConstants.TIFF_TAG_MAKE, "Yalos");
        root.add(TiffTagConstants.TIFF_TAG_MODEL, ascii(plan.request().camera().name()));
        root.add(TiffTagConstants.TIFF_TAG_SOFTWARE, "Yalos, simulated");
        root.add(TiffTagConstants.TIFF_TAG_DATE_TIME, at.format(EXIF));
        TiffOutputDirectory exif = set.getOrCreateExifDirectory();
        exif.add(ExifTagConstants.EXIF_TAG_DATE_TIME_ORIGINAL, at.format(EXIF));
        exif.add(
                ExifTagConstants.EXIF_TAG_SUB_SEC_TIME_ORIGINAL,
                String.format(Locale.ROOT, "%03d", at.getNano() / 1_000_000));
        exif.add(OFFSET, offset(at));
        exif.add(ExifTagConstants.EXIF_TAG_EXPOSURE_TIME, new RationalNumber(1, (int)
                Math.ceil(1 / Math.min(1 / 800.0, CameraCard.longestShutterS(plan)))));
        exif.add(ExifTagConstants.EXIF_TAG_ISO, (short) ISO);
        exif.add(
                ExifTagConstants.EXIF_TAG_FOCAL_LENGTH,
                RationalNumber.valueOf(plan.request().camera().focalLengthM() * 1000));
        exif.add(ELEVATION, RationalNumber.valueOf(Math.toDegrees(shot.truly().pitchRad())));
        gps(set.getOrCreateGpsDirectory(), shot, at);
        return set;
    }

    private void gps(TiffOutputDirectory gps, Shot shot, ZonedDateTime at) throws IOException {
        LonLat place =
                plane.toLonLat(new PlanePoint(shot.known().eastM(), shot.known().northM()));
        gps.add(GpsTagConstants.GPS_TAG_GPS_VERSION_ID, new byte[] {2, 4, 0, 0});
        gps.add(GpsTagConstants.GPS_TAG_GPS_LATITUDE_REF, place.latDeg() < 0 ? "S" : "N");
        gps.add(GpsTagConstants.GPS_TAG_GPS_LATITUDE, degrees(place.latDeg()));
        gps.add(GpsTagConstants.GPS_TAG_GPS_LONGITUDE_REF, place.lonDeg() < 0 ? "W" : "E");
        gps.add(GpsTagConstants.GPS_TAG_GPS_LONGITUDE, degrees(place.lonDeg()));
        // Over level ground of no known height nobody knows how high that is above the sea, so nothing is said.
        if (plan.overGround().isPresent()) {
            gps.add(GpsTagConstants.GPS_TAG_GPS_ALTITUDE_REF, (byte)
                    (shot.known().upM() < 0 ? 1 : 0));
            gps.add(
                    GpsTagConstants.GPS_TAG_GPS_ALTITUDE,
                    new RationalNumber((int) Math.round(Math.abs(shot.known().upM()) * 1000), 1000));
        }
        double direction = Math.toDegrees(shot.known().yawRad() + plane.convergenceRad());
        gps.add(GpsTagConstants.GPS_TAG_GPS_IMG_DIRECTION_REF, "T");
        gps.add(
                GpsTagConstants.GPS_TAG_GPS_IMG_DIRECTION,
                new RationalNumber((int) Math.round((direction % 360 + 360) % 360 * 100), 100));
        gps.add(GpsTagConstants.GPS_TAG_GPS_MAP_DATUM, "WGS-84");
        gps.add(POSITIONING_ERROR, new RationalNumber((int) Math.round(shot.sigmaM() * 1000), 1000));
        boolean corrected = shot.fixed() && plan.request().aircraft().positioning() != Positioning.SINGLE;
        gps.add(GpsTagConstants.GPS_TAG_GPS_DIFFERENTIAL, (short) (corrected ? 1 : 0));
        ZonedDateTime world = at.withZoneSameInstant(ZoneOffset.UTC);
        gps.add(GpsTagConstants.GPS_TAG_GPS_DATE_STAMP, world.format(DateTimeFormatter.ofPattern("uuuu:MM:dd")));
        gps.add(
                GpsTagConstants.GPS_TAG_GPS_TIME_STAMP,
                new RationalNumber(world.getHour(), 1),
                new RationalNumber(world.getMinute(), 1),
                new RationalNumber(world.getSecond() * 1000 + world.getNano() / 1_000_000, 1000));
    }

    private static String offset(ZonedDateTime at) {
        String id = at.getOffset().getId();
        return id.equals("Z") ? "+00:00" : id.substring(0, 6);
    }

    /** Degrees, minutes and seconds to a hundred-thousandth: 0.3 mm. */
    private static RationalNumber[] degrees(double degrees) {
        double whole = Math.abs(degrees);
        long units = Math.round(whole * 3600 * 100_000);
        int deg = (int) (units / (3600L * 100_000));
        int min = (int) (units / (60L * 100_000) % 60);
        int sec = (int) (units % (60L * 100_000));
        return new RationalNumber[] {
            new RationalNumber(deg, 1), new RationalNumber(min, 1), new RationalNumber(sec, 100_000)
        };
    }

    private static String ascii(String text) {
        return text.replaceAll("[^\\x20-\\x7e]", "?");
    }
}
