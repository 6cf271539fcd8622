package yalos.web.sheet;

import java.awt.image.BufferedImage;
import java.awt.image.IndexColorModel;
import java.awt.image.WritableRaster;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import javax.imageio.ImageIO;
import yalos.core.proof.CountGrid;
import yalos.core.proof.Coverage;

/** A coverage as a picture with few colours: outside the block transparent, too few photos hatched. */
final class CoveragePicture {
    private static final int HATCH = 0xffffff;
    private static final int HATCH_EVERY = 6;

    private CoveragePicture() {}

    static byte[] png(Coverage coverage) {
        CountGrid count = coverage.count();
        List<CoverageScale> classes = CoverageScale.classes(coverage.asked(), coverage.histogram().length - 1);
        BufferedImage image =
                new BufferedImage(count.columns(), count.rows(), BufferedImage.TYPE_BYTE_INDEXED, palette(classes));
        WritableRaster raster = image.getRaster();
        byte[] line = new byte[count.columns()];
        for (int row = 0; row < count.rows(); row++) {
            for (int column = 0; column < count.columns(); column++) {
                line[column] = (byte) index(count, classes, column, row);
            }
            raster.setDataElements(0, count.rows() - 1 - row, count.columns(), 1, line);
        }
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static int index(CountGrid count, List<CoverageScale> classes, int column, int row) {
        if (!count.inside(column, row)) {
            return 0;
        }
        int photos = count.at(column, row);
        for (int i = classes.size() - 1; i >= 0; i--) {
            if (photos >= classes.get(i).from()) {
                boolean hatched = classes.get(i).tooFew() && (column + row) % HATCH_EVERY < 2;
                return hatched ? classes.size() + 1 : i + 1;
            }
        }
        return 0;
    }

    /** Transparent, the classes, the hatch. */
    private static IndexColorModel palette(List<CoverageScale> classes) {
        int[] colours = new int[classes.size() + 2];
        for (int i = 0; i < classes.size(); i++) {
            colours[i + 1] = 0xff000000 | classes.get(i).rgb();
        }
        colours[classes.size() + 1] = 0xff000000 | HATCH;
        return new IndexColorModel(8, colours.length, colours, 0, true, 0, java.awt.image.DataBuffer.TYPE_BYTE);
    }
}
