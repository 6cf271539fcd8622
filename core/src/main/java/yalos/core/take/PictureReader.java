package yalos.core.take;

import java.awt.Graphics2D;
import java.awt.Rectangle;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Iterator;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.event.IIOReadWarningListener;
import javax.imageio.stream.FileImageInputStream;
import javax.imageio.stream.ImageInputStream;

/**
 * Looks at the pixels of a photo: the whole of it coarsely, its middle pixel by pixel, and a small picture for the contact sheet. Pixels are taken as they are stored; the orientation tag turns none.
 */
public final class PictureReader {
    /** A whole this wide is enough for light and contrast. */
    private static final int COARSE_PX = 640;

    private static final int FINE_PX = 1024;
    private static final int SMALL_PX = 192;
    private static final long MOST_PIXELS = 1_000_000_000L;

    private PictureReader() {}

    /**
     * What was seen.
     *
     * @param small at most 192 pixels on a side
     * @param whole whether the picture could be read to its end
     */
    public record Seen(Picture picture, BufferedImage small, boolean whole) {}

    /**
     * The pixels of a photo; empty where there is no picture in the file.
     *
     * @throws IOException where the disk does not give it
     */
    public static Optional<Seen> read(Path file) throws IOException {
        try (ImageInputStream in = new FileImageInputStream(file.toFile())) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                return Optional.empty();
            }
            ImageReader reader = readers.next();
            try {
                return Optional.of(seen(reader, in));
            } catch (IOException | RuntimeException damaged) {
                return Optional.empty();
            } finally {
                reader.dispose();
            }
        }
    }

    private static Seen seen(ImageReader reader, ImageInputStream in) throws IOException {
        boolean[] whole = {true};
        IIOReadWarningListener warned = (source, warning) -> whole[0] &= !ends(warning);
        reader.addIIOReadWarningListener(warned);
        reader.setInput(in, false, true);
        int width = reader.getWidth(0);
        int height = reader.getHeight(0);
        if ((long) width * height > MOST_PIXELS) {
            throw new IOException("too many pixels");
        }
        int step = Math.max(1, width / COARSE_PX);
        BufferedImage coarse = read(reader, new Rectangle(0, 0, width, height), step);
        Luminance light = Luminance.of(coarse);
        Luminance fine = light;
        if (step > 1) {
            int columns = Math.min(FINE_PX, width);
            int rows = Math.min(FINE_PX, height);
            fine = Luminance.of(
                    read(reader, new Rectangle((width - columns) / 2, (height - rows) / 2, columns, rows), 1));
        }
        return new Seen(Picture.of(light, fine), small(coarse), whole[0]);
    }

    /** A decoder that runs out of data says so and fills up with grey. */
    private static boolean ends(String warning) {
        return warning.contains("remature end") || warning.contains("Corrupt JPEG");
    }

    private static BufferedImage read(ImageReader reader, Rectangle part, int step) throws IOException {
        ImageReadParam how = reader.getDefaultReadParam();
        how.setSourceRegion(part);
        how.setSourceSubsampling(step, step, 0, 0);
        return reader.read(0, how);
    }

    private static BufferedImage small(BufferedImage from) {
        double scale = Math.min(1, (double) SMALL_PX / Math.max(from.getWidth(), from.getHeight()));
        int width = Math.max(1, (int) Math.round(from.getWidth() * scale));
        int height = Math.max(1, (int) Math.round(from.getHeight() * scale));
        BufferedImage to = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D pen = to.createGraphics();
        try {
            pen.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
            pen.drawImage(from, 0, 0, width, height, null);
        } finally {
            pen.dispose();
        }
        return to;
    }
}
