package yalos.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yalos.core.SampleObjects.bridge;
import static yalos.core.SampleObjects.circles;
import static yalos.core.SampleObjects.facade;
import static yalos.core.SampleObjects.house;
import static yalos.core.SampleObjects.metres;
import static yalos.core.SampleObjects.plan;
import static yalos.core.SampleObjects.proof;
import static yalos.core.SampleObjects.rings;
import static yalos.core.SampleObjects.round;
import static yalos.core.SampleObjects.tower;
import static yalos.core.SampleObjects.under;

import java.util.List;
import java.util.stream.Stream;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.pattern.Facade;
import yalos.core.proof.FaceProof;
import yalos.core.proof.StructureProof;
import yalos.core.trial.RoundTable;

/** What is said of one place of a face against what was proved of all of them, and passes at other stand-offs. */
class StructurePlanTest {
    static Stream<BlockPlan> flown() {
        return Stream.of(
                plan(tower(), rings("tower", 15), facade("tower", 7)),
                plan(house(), facade("house", 8)),
                plan(bridge(2), facade("bridge", 6), under(4, 90)));
    }

    /** Two programs: the probe asks each photo with the lens's own projection, the proof counts tile by tile. */
    @ParameterizedTest
    @MethodSource("flown")
    void aPlaceIsSeenByAsManyPhotosAsWereCounted(BlockPlan plan) {
        StructureProof proof = proof(plan);
        double[] place = new double[3];
        int asked = 0;
        int differing = 0;
        for (FaceProof face : proof.faces()) {
            int columns = face.face().columns();
            for (int at = 0; at < face.verdicts().length; at += 11) {
                if (face.verdicts()[at].asked()) {
                    face.face().place(at % columns, at / columns, place);
                    int seeing = round(plan).seeing(plan, face.face(), place).size();
                    // On the very edge of a frame, or of what stands between, rounding may say either.
                    differing += seeing == face.proof().counts()[at] ? 0 : 1;
                    assertThat(seeing).isCloseTo(face.proof().counts()[at], within(1));
                    asked++;
                }
            }
        }
        assertThat(asked).isGreaterThan(100);
        assertThat(differing).isLessThanOrEqualTo(asked / 100);
    }

    @Test
    void whatIsClearedOverObjectsIsTheHighestTopAndWhatIsKeptClear() {
        assertThat(round(plan(tower(), rings("tower", 15))).clearOverM()).hasValue(24 + 3);
        // Nothing is higher: home comes over the tower, whose foot lies where the launch point is.
        assertThat(plan(tower(), rings("tower", 15)).returnAboveTakeOffM().orElseThrow())
                .isGreaterThanOrEqualTo(27);
    }

    /** GSD square to the wall is distance times pixel over focal length: it grows as the stand-off does, photos and time go down. */
    @Test
    void otherStandOffsGiveWhatTheirGeometrySays() {
        BlockPlan plan = plan(house(), facade("house", 8));
        List<RoundTable.Row> rows = RoundTable.of(plan, 0, PlanProof.Accuracy.ANY);
        var camera = plan.request().camera();
        double pixel = camera.pitchM() / camera.focalLengthM();
        assertThat(rows).hasSize(7);
        for (RoundTable.Row row : rows) {
            assertThat(row.plan()).as("%.1f m", row.metres()).isPresent();
            assertThat(row.gsdM()).isCloseTo(row.metres() * pixel, Percentage.withPercentage(0.1));
            double own = proofShare(row.plan().orElseThrow());
            assertThat(row.share().orElseThrow()).isCloseTo(own, within(0.02));
        }
        for (int i = 1; i < rows.size(); i++) {
            assertThat(rows.get(i).metres()).isGreaterThan(rows.get(i - 1).metres());
            assertThat(rows.get(i).photos()).isLessThan(rows.get(i - 1).photos());
        }
        RoundTable.Row here =
                rows.stream().filter(RoundTable.Row::here).findFirst().orElseThrow();
        assertThat(here.metres()).isEqualTo(8);
        assertThat(here.plan()).containsSame(plan);
        // Nearer than what is kept clear it cannot be flown, and says so by holding no plan.
        BlockPlan near = plan(house(), facade("house", 4));
        assertThat(RoundTable.of(near, 0, PlanProof.Accuracy.ANY).get(0).plan()).isEmpty();
    }

    private static double proofShare(BlockPlan plan) {
        return proof(plan).share();
    }

    @Test
    void whatIsTakenOutOfTheTableIsThePassAtThatSize() {
        assertThat(((Facade) RoundTable.sized(facade("house", 8), metres(12)))
                        .off()
                        .distance())
                .contains(metres(12));
        assertThat(RoundTable.sized(circles(30), metres(45)).words()).contains("45 m");
    }
}
