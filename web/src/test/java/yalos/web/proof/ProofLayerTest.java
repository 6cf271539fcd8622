package yalos.web.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import javax.imageio.ImageIO;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.flight.Exposure;
import yalos.core.kit.Positioning;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.Noise;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.UnitChoice;

/** Legends in numbers: every cell of the block in just one class, and the picture in the legend's colours. */
class ProofLayerTest {
    private static final Judgement JUDGEMENT = judgement();

    private static Judgement judgement() {
        HeightGrid grid = HeightGrid.level(0, 160, 2, 80, 80, 0);
        for (int i = 0; i < grid.heights().length; i++) {
            grid.heights()[i] = (float) (8 * Math.sin(i % 80 / 9.0));
        }
        grid.heights()[0] = Float.NaN;
        Lens lens = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
        List<Exposure> photos = new ArrayList<>();
        for (int strip = 0; strip < 5; strip++) {
            for (int i = 0; i < 9; i++) {
                photos.add(Exposure.of(
                        photos.size() + 1, strip, Pose.vertical(i * 15, strip * 30, 75, Math.PI / 2), lens));
            }
        }
        GroundProof proof = GroundProof.of(grid, photos, Noise.ofImage(0.5));
        return new Judgement(
                proof,
                new Judgement.Asked(
                        9,
                        OptionalDouble.of(0.025),
                        OptionalDouble.empty(),
                        OptionalDouble.of(0.05),
                        OptionalDouble.empty()),
                new Judgement.Flown(0.025, Judgement.Far.LEVEL, Positioning.PPK));
    }

    @ParameterizedTest
    @EnumSource(ProofLayer.class)
    void everyKnownCellLiesInOneClass(ProofLayer layer) {
        List<ProofLayer.Band> bands = layer.bands(JUDGEMENT, UnitChoice.METRIC);
        assertThat(bands).hasSizeBetween(2, 9);
        int cells = 80 * 80;
        int known = 0;
        for (int at = 0; at < cells; at++) {
            float value = layer.cell(JUDGEMENT, at);
            if (!Float.isNaN(value)) {
                known++;
                long in = bands.stream()
                        .filter(band -> value >= band.from() && value < band.to())
                        .count();
                assertThat(in).as("%s", value).isEqualTo(1);
            }
        }
        double sum = bands.stream().mapToDouble(ProofLayer.Band::share).sum();
        assertThat(sum).isCloseTo((double) known / (cells - 1), Offset.offset(0.01));
        assertThat(bands).allSatisfy(band -> assertThat(band.label()).isNotBlank());
        assertThat(bands).extracting(ProofLayer.Band::colour).doesNotHaveDuplicates();
    }

    @ParameterizedTest
    @EnumSource(ProofLayer.class)
    void thePictureShowsTheLegendsColoursAndNothingWhereNothingIsKnown(ProofLayer layer) throws IOException {
        var picture = ImageIO.read(new ByteArrayInputStream(ProofPicture.png(JUDGEMENT, layer, UnitChoice.METRIC)));
        assertThat(picture.getWidth()).isEqualTo(80);
        boolean shown = layer == ProofLayer.ADEQUATE;
        assertThat(picture.getRGB(0, 0) >>> 24).as("unknown ground").isEqualTo(shown ? 0xff : 0);
        List<ProofLayer.Band> bands = layer.bands(JUDGEMENT, UnitChoice.METRIC);
        int middle = picture.getRGB(40, 40);
        float value = layer.cell(JUDGEMENT, 40 * 80 + 40);
        ProofLayer.Band band = bands.stream()
                .filter(one -> value >= one.from() && value < one.to())
                .findFirst()
                .orElseThrow();
        assertThat(middle & 0xffffff).isIn(band.rgb(), 0xffffff);
    }

    @Test
    void figuresReadInTheOperatorsUnits() {
        assertThat(ProofLayer.GSD.text(0.0254, UnitChoice.METRIC)).isEqualTo("2.54 cm");
        assertThat(ProofLayer.GSD.text(0.0254, UnitChoice.FEET)).isEqualTo("1.000 in");
        assertThat(ProofLayer.ANGLE.text(Math.PI / 4, UnitChoice.METRIC)).isEqualTo("45°");
        assertThat(ProofLayer.FORWARD.text(0.8, UnitChoice.METRIC)).isEqualTo("80 %");
        assertThat(ProofLayer.SIGMA_Z.text(Double.NaN, UnitChoice.METRIC)).isEqualTo("–");
        assertThat(ProofLayer.ofKey("gsd-mean")).contains(ProofLayer.GSD_MEAN);
        assertThat(ProofLayer.ofKey("nothing")).isEmpty();
    }

    /** 1 − strips / photos along, 1 − 1 / strips across: what the mean counts of a regular block are made of. */
    @Test
    void realOverlapsFollowFromTheCounts() {
        int middle = 40 * 80 + 40;
        GroundProof proof = JUDGEMENT.proof();
        assertThat(ProofLayer.FORWARD.cell(JUDGEMENT, middle))
                .isCloseTo(1 - (float) proof.stripCounts()[middle] / proof.counts()[middle], Offset.offset(1e-6f));
        assertThat(ProofLayer.SIDE.cell(JUDGEMENT, middle))
                .isCloseTo(1 - 1f / proof.stripCounts()[middle], Offset.offset(1e-6f));
    }
}
