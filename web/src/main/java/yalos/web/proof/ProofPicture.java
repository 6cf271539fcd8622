package yalos.web.proof;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import javax.imageio.ImageIO;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.units.UnitChoice;

/** A layer of a proof as a picture, one pixel a cell, north up; classes below what is asked are hatched, so that colour is not the only sign. */
public final class ProofPicture {
    private static final int HATCH_EVERY = 6;

    private ProofPicture() {}

    public static byte[] png(Judgement judgement, ProofLayer layer, UnitChoice units) {
        GroundProof proof = judgement.proof();
        List<ProofLayer.Band> bands = layer.bands(judgement, units);
        BufferedImage image = new BufferedImage(proof.columns(), proof.rows(), BufferedImage.TYPE_INT_ARGB);
        for (int row = 0; row < proof.rows(); row++) {
            for (int column = 0; column < proof.columns(); column++) {
                float value = layer.cell(judgement, row * proof.columns() + column);
                for (ProofLayer.Band band : bands) {
                    if (value >= band.from() && value < band.to()) {
                        boolean hatch = band.hatched() && (column + row) % HATCH_EVERY < 2;
                        image.setRGB(column, row, 0xff000000 | (hatch ? 0xffffff : band.rgb()));
                        break;
                    }
                }
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
