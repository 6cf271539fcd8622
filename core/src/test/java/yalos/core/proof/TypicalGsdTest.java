package yalos.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.flight.Exposure;
import yalos.core.terrain.HeightGrid;

/** What GSD do near and far photos give a place together? By hand, and by the rule written out with sorted lists. */
class TypicalGsdTest {
    private static double of(int enough, double... gsds) {
        TypicalGsd typical = new TypicalGsd(gsds.length);
        DoubleStream.of(gsds).forEach(gsd -> typical.add(gsd, true));
        return typical.m(enough);
    }

    @ParameterizedTest
    @CsvSource({
        // All alike, or nearly: the mean of all.
        "3, 2 2 2 2, 2",
        "2, 2 3 2.5, 2.5",
        // Three are asked for and three are near: the far ones do not count.
        "3, 8 2 2.2 8 2.4, 2.2",
        // Only two are near: as many of the finest as are asked for.
        "3, 2 2.2 8 9, 4.0667",
        // Fewer than are asked for: all of them.
        "9, 2 8, 5",
    })
    void farPhotosCountOnlyWhereNearOnesAreTooFew(int enough, String gsds, double expected) {
        double[] all =
                Stream.of(gsds.split(" ")).mapToDouble(Double::parseDouble).toArray();
        assertThat(of(enough, all)).isCloseTo(expected, Offset.offset(1e-4));
    }

    @Test
    void noPhotoGivesNone() {
        assertThat(of(3)).isNaN();
    }

    @Test
    void thePassesBesidesMakeTheMainOneNoCoarserAndCountWhereItSeesNothing() {
        TypicalGsd typical = new TypicalGsd(4);
        typical.add(3, false);
        typical.add(2, true);
        typical.add(2.2, true);
        typical.add(3, false);
        assertThat(typical.m(2)).isCloseTo(2.1, Offset.offset(1e-12));
        typical.clear();
        typical.add(3, false);
        assertThat(typical.m(2)).isEqualTo(3);
    }

    @RepeatedTest(200)
    void isTheRuleWrittenOut(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        double[] gsds = random.doubles(1 + random.nextInt(20), 1, 4).toArray();
        int enough = 1 + random.nextInt(12);
        double finest = Arrays.stream(gsds).min().orElseThrow();
        double[] near = Arrays.stream(gsds).filter(gsd -> gsd <= 2 * finest).toArray();
        double expected = near.length >= Math.min(enough, gsds.length)
                ? Arrays.stream(near).average().orElseThrow()
                : Arrays.stream(gsds).sorted().limit(enough).average().orElseThrow();
        assertThat(of(enough, gsds)).isCloseTo(expected, Offset.offset(1e-12));
        assertThat(of(enough, gsds))
                .isLessThanOrEqualTo(Arrays.stream(gsds).average().orElseThrow() + 1e-12);
    }

    /** At the foot of a wall of 100 m, four photos from 50 m and four from 150 m: H × p / f says 1.67 cm and 5 cm. */
    @Test
    void belowACliffThePhotosFromItsTopMakeNothingCoarser() {
        Lens lens = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);
        HeightGrid foot = HeightGrid.level(-5, 5, 1, 10, 10, 0);
        List<Exposure> photos = Stream.of(50.0, 150.0)
                .flatMap(up -> Stream.of(-3.0, -1.0, 1.0, 3.0).map(x -> Pose.vertical(x, 0, up, 0)))
                .map(pose -> Exposure.of((int) pose.upM(), 1, pose, lens))
                .toList();
        assertThat(gsd(foot, photos, 4)).isCloseTo(50 / 3000.0, Offset.offset(1e-6));
        assertThat(gsd(foot, photos, 6)).isCloseTo((4 * 50 + 2 * 150) / 6.0 / 3000, Offset.offset(1e-5));
        assertThat(gsd(foot, photos, Integer.MAX_VALUE)).isCloseTo(100 / 3000.0, Offset.offset(1e-6));
    }

    private static double gsd(HeightGrid ground, List<Exposure> photos, int enough) {
        return GroundProof.of(
                        ground,
                        new boolean[0],
                        photos,
                        Noise.ofImage(0.5),
                        new SurfaceProof.Scope(SurfaceProof.Layer.ofGround(), enough),
                        share -> true)
                .gsdMeanM()[55];
    }
}
