package yalos.web.objects;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import javax.imageio.ImageIO;
import yalos.core.proof.FaceProof;

/** A layer of one face as a picture, a pixel a cell, seen square to the face; classes below what is asked are hatched. */
final class FacePicture {
    private static final int HATCH_EVERY = 6;

    private FacePicture() {}

    static byte[] png(FaceProof face, FaceLayer layer, List<FaceLayer.Band> bands) {
        int columns = face.face().columns();
        int rows = face.face().rows();
        BufferedImage image = new BufferedImage(columns, rows, BufferedImage.TYPE_INT_ARGB);
        for (int row = 0; row < rows; row++) {
            for (int column = 0; column < columns; column++) {
                boolean stroke = (column + row) % HATCH_EVERY < 2;
                image.setRGB(column, row, FaceLayer.argb(bands, layer.cell(face, row * columns + column), stroke));
            }
        }
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
