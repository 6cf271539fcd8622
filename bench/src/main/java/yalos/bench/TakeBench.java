package yalos.bench;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Random;
import java.util.stream.Stream;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Positioning;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.PhotoCount;
import yalos.core.take.PhotoFacts;
import yalos.core.take.PhotoReader;
import yalos.core.take.PictureReader;
import yalos.core.take.Station;
import yalos.core.take.Take;
import yalos.core.take.Taken;
import yalos.core.terrain.VerticalDatum.Zero;

/**
 * A take of 1,000 photos of 10 MB.
 *
 * @param readMs what each file says of itself, of all
 * @param bytesMs every byte of the same files read
 * @param matchedMs each with its station, pictures judged
 * @param provedMs the ground under what was flown
 * @param plannedMs the ground under what was planned, over the same cells
 * @param seenMs one picture of 20 megapixels looked at
 * @param decodedMs the same decoded whole by the library
 */
record TakeBench(
        double readMs,
        double bytesMs,
        double matchedMs,
        double provedMs,
        double plannedMs,
        double seenMs,
        double decodedMs) {
    private static final int PHOTOS = 1000;
    private static final int DIFFERENT = 40;
    private static final int BYTES = 10_000_000;
    private static final int WIDE = 5184;
    private static final int HIGH = 3888;
    private static final Path TAGGED = Path.of("core/src/test/resources/reference/take/IMG_0010.JPG");

    static TakeBench measure() throws IOException {
        Path folder = Files.createTempDirectory("take");
        try {
            List<Path> files = files(folder);
            double read = ms(() -> files.forEach(TakeBench::head));
            double bytes = ms(() -> files.forEach(TakeBench::bytes));
            double seen = ms(() -> picture(files.get(1)));
            double decoded = ms(() -> decoded(files.get(1)));
            BlockPlan plan = Samples.squareKilometre().plan();
            List<Taken> photos = photos(plan);
            Take[] take = new Take[1];
            double matched = ms(() -> take[0] = Take.of(plan, photos, Optional.of(ZoneOffset.UTC)));
            PlanProof proof = PlanProof.of(plan, PhotoCount.cellSizeM(plan.block(), PhotoCount.SCREEN_CELLS));
            double planned = ms(() -> proof.judged(plan.flight(), Positioning.RTK_NETWORK, PlanProof.Accuracy.ANY));
            double proved =
                    ms(() -> proof.judged(take[0].flown().flight(), Positioning.RTK_NETWORK, PlanProof.Accuracy.ANY));
            return new TakeBench(read, bytes, matched, proved, planned, seen, decoded);
        } finally {
            try (Stream<Path> all = Files.walk(folder)) {
                all.sorted(Comparator.reverseOrder()).forEach(TakeBench::delete);
            }
        }
    }

    /** Some different files, each under many names. */
    private static List<Path> files(Path folder) throws IOException {
        byte[] tagged = Files.readAllBytes(TAGGED);
        int end = 2;
        while ((tagged[end + 1] & 0xf0) == 0xe0) {
            end += 2 + ((tagged[end + 2] & 0xff) << 8 | tagged[end + 3] & 0xff);
        }
        byte[] picture = jpeg();
        List<Path> files = new ArrayList<>();
        for (int i = 0; i < PHOTOS; i++) {
            Path file = folder.resolve("IMG_%04d.JPG".formatted(i));
            if (i < DIFFERENT) {
                ByteArrayOutputStream out = new ByteArrayOutputStream(BYTES + 100_000);
                out.write(tagged, 0, end);
                out.write(picture, 2, picture.length - 2);
                // Behind the end of a picture makers leave padding.
                out.write(new byte[Math.max(0, BYTES - out.size() - 1000)]);
                out.write(new byte[] {(byte) 0xff, (byte) 0xd9});
                Files.write(file, out.toByteArray());
            } else {
                Files.createLink(file, files.get(i % DIFFERENT));
            }
            files.add(file);
        }
        return files;
    }

    private static byte[] jpeg() throws IOException {
        BufferedImage image = new BufferedImage(WIDE, HIGH, BufferedImage.TYPE_INT_RGB);
        Random random = new Random(14);
        for (int y = 0; y < HIGH; y++) {
            for (int x = 0; x < WIDE; x++) {
                int level = (int) (110 + 50 * Math.sin(x / 60.0) * Math.cos(y / 47.0)) + random.nextInt(22);
                image.setRGB(x, y, level << 16 | level << 8 | level / 2);
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ImageWriteParam how = writer.getDefaultWriteParam();
        how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
        how.setCompressionQuality(0.94f);
        writer.setOutput(ImageIO.createImageOutputStream(out));
        writer.write(null, new IIOImage(image, null, null), how);
        writer.dispose();
        return out.toByteArray();
    }

    /** Photos as the plan wants them, a little off, some left out. */
    private static List<Taken> photos(BlockPlan plan) {
        Random random = new Random(3);
        List<Taken> photos = new ArrayList<>();
        for (Station station : Station.of(plan.flight(), plan.timeline())) {
            if (photos.size() < PHOTOS && random.nextInt(50) > 0) {
                Exposure photo = plan.flight().exposures().get(station.number() - 1);
                LonLat at = plan.block()
                        .plane()
                        .toLonLat(
                                photo.point().xM() + 0.4 * random.nextGaussian() + 0.7,
                                photo.point().yM() + 0.4 * random.nextGaussian() - 0.9);
                photos.add(Taken.of(
                        new PhotoFacts(
                                "IMG_%04d.JPG".formatted(photos.size()),
                                BYTES,
                                PhotoFacts.Readable.ALL,
                                "",
                                Optional.of(LocalDateTime.of(2026, 6, 18, 10, 0)
                                        .plusNanos(
                                                Math.round((station.plannedS() + 0.05 * random.nextGaussian()) * 1e9))),
                                Optional.of(ZoneOffset.UTC),
                                Optional.empty(),
                                new PhotoFacts.Position(
                                        Optional.of(at),
                                        OptionalDouble.of(photo.upM()),
                                        Zero.GEOID,
                                        OptionalDouble.of(0.02),
                                        Optional.of(true)),
                                PhotoFacts.View.NONE,
                                new PhotoFacts.Camera(
                                        "20-megapixel 4/3-inch camera",
                                        OptionalDouble.of(12),
                                        OptionalDouble.of(0.001),
                                        OptionalDouble.of(4),
                                        OptionalInt.of(200),
                                        WIDE,
                                        HIGH,
                                        WIDE,
                                        HIGH,
                                        1)),
                        "sum " + photos.size()));
            }
        }
        return photos;
    }

    private static void head(Path file) {
        try {
            if (PhotoReader.read(file.getFileName().toString(), file)
                    .position()
                    .place()
                    .isEmpty()) {
                throw new IllegalStateException("no position in " + file);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void bytes(Path file) {
        byte[] part = new byte[1 << 16];
        try (InputStream in = Files.newInputStream(file)) {
            while (in.read(part) >= 0) {
                // read
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void picture(Path file) {
        try {
            PictureReader.read(file).orElseThrow();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void decoded(Path file) {
        try {
            ImageIO.read(file.toFile());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void delete(Path file) {
        try {
            Files.delete(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static double ms(Runnable work) {
        long begin = System.nanoTime();
        work.run();
        return (System.nanoTime() - begin) / 1e6;
    }
}
