package yalos.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import yalos.core.Samples;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.flight.Exposure;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Is what the proof finds judged as the brief asks, and is the cause the right one? */
class JudgementTest {
    private static final Lens LENS = new Lens(4000, 3000, 3000, 3000, 2000, 1500, Lens.Distortion.NONE);

    private static List<Exposure> photos(double up) {
        List<Exposure> photos = new ArrayList<>();
        for (int strip = 0; strip < 8; strip++) {
            for (int i = 0; i < 12; i++) {
                photos.add(Exposure.of(
                        photos.size() + 1, strip, Pose.vertical(i * 15, strip * 30, up, Math.PI / 2), LENS));
            }
        }
        return photos;
    }

    private static Judgement judged(HeightGrid grid, double up, Judgement.Asked asked) {
        return judged(grid, up, asked, 0.5);
    }

    private static Judgement judged(HeightGrid grid, double up, Judgement.Asked asked, double imagePx) {
        GroundProof proof = GroundProof.of(grid, photos(up), Noise.ofImage(imagePx));
        return new Judgement(proof, asked, new Judgement.Flown(75 / 3000.0, Judgement.Far.LEVEL, Positioning.PPK));
    }

    private static Judgement.Asked asked(int photos) {
        return Judgement.Asked.photos(photos);
    }

    @Test
    void wellInsideEnoughIsEnough() {
        HeightGrid level = HeightGrid.level(60, 150, 1, 60, 60, 0);
        Judgement judgement = judged(level, 75, asked(9));
        assertThat(judgement.share()).isEqualTo(1);
        assertThat(judgement.spots()).isEmpty();
    }

    /**
     * What is asked holds along each axis, what is expected is both together, so √2 as much. A tolerance just above the worst lets
     * every cell pass, one just below the best lets none.
     */
    @Test
    void positionsAreJudgedAsAsked() {
        HeightGrid level = HeightGrid.level(60, 150, 1, 60, 60, 0);
        float[] sigmas = judged(level, 75, asked(9), POOR_PX).proof().sigmaHorizontalM();
        double worst = 0;
        double best = Double.MAX_VALUE;
        for (float sigma : sigmas) {
            worst = Math.max(worst, sigma / Math.sqrt(2));
            best = Math.min(best, sigma / Math.sqrt(2));
        }
        assertThat(best).isPositive();
        assertThat(positions(level, worst * 1.001).share()).isEqualTo(1);
        Judgement none = positions(level, best * 0.999);
        assertThat(none.share(Adequacy.OFF)).isEqualTo(1);
        assertThat(none.spots()).isNotEmpty();
    }

    /** So poor that rays, not the rule of thumb, say how good a place is. */
    private static final double POOR_PX = 20;

    private static Judgement positions(HeightGrid grid, double sigmaM) {
        return judged(grid, 75, positions(sigmaM), POOR_PX);
    }

    private static Judgement.Asked positions(double sigmaM) {
        return new Judgement.Asked(
                9, OptionalDouble.empty(), OptionalDouble.of(sigmaM), OptionalDouble.empty(), OptionalDouble.empty());
    }

    /**
     * Rays of sharp photos promise positions to half a pixel; in practice they come out to one, with those of the photos (common practice). A tenth
     * over is allowed of a GSD of 2.5 cm: 2.27 cm, with 1.5 cm by PPK, are 2.72 cm together. Below 1.5 cm the photos themselves are not known that well.
     */
    @Test
    void raysPromiseMoreThanPixelsKeep() {
        HeightGrid level = HeightGrid.level(60, 150, 1, 60, 60, 0);
        assertThat(judged(level, 75, positions(0.02724)).share()).isEqualTo(1);
        Judgement finer = judged(level, 75, positions(0.02722));
        assertThat(finer.share(Adequacy.OFF)).isEqualTo(1);
        assertThat(finer.spots().get(0).cause()).isEqualTo(WeakGround.Cause.LARGE_PIXELS);
        assertThat(judged(level, 75, positions(0.0149)).spots().get(0).cause())
                .isEqualTo(WeakGround.Cause.UNSURE_PHOTOS);
    }

    /**
     * By hand: heights come out to 1.5 pixels, with 3 cm by PPK, a tenth of the GSD allowed. At 75 m that is 4.5 cm, at 105 m 5.6 cm: in a pit 5 cm are
     * not had, and the pit is why.
     */
    @Test
    void heightsAreJudgedByTheGsdOfTheirPlace() {
        HeightGrid pit = pit();
        Judgement judgement = judged(
                pit,
                75,
                new Judgement.Asked(
                        3,
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.of(0.05),
                        OptionalDouble.empty()));
        assertThat(judgement.at(30 * 60 + 30)).isEqualTo(Adequacy.INACCURATE);
        assertThat(judgement.at(5 * 60 + 5)).isEqualTo(Adequacy.ENOUGH);
        assertThat(judgement.spots()).extracting(WeakGround::cause).containsOnly(WeakGround.Cause.LOW_GROUND);
    }

    /** Level but for 20 m by 20 m in its middle, 30 m deep. */
    private static HeightGrid pit() {
        HeightGrid pit = HeightGrid.level(60, 150, 1, 60, 60, 0);
        for (int row = 20; row < 40; row++) {
            for (int column = 20; column < 40; column++) {
                pit.heights()[row * 60 + column] = -30;
            }
        }
        return pit;
    }

    @Test
    void beyondTheLastStripsItIsTheEdge() {
        HeightGrid level = HeightGrid.level(40, 290, 1, 100, 120, 0);
        Judgement judgement = judged(level, 75, asked(9));
        assertThat(judgement.share()).isBetween(0.4, 0.95);
        WeakGround spot = judgement.spots().get(0);
        assertThat(spot.cause()).isEqualTo(WeakGround.Cause.EDGE);
        assertThat(spot.areaM2()).isEqualTo(spot.cells().length);
        for (WeakGround one : judgement.spots()) {
            Geometry shape = one.shape(judgement.proof().grid());
            assertThat(shape.getArea()).isCloseTo(one.areaM2(), Offset.offset(1e-6));
            assertThat(shape.intersects(new GeometryFactory().createPoint(new Coordinate(one.x(), one.y()))))
                    .isTrue();
        }
        assertThat(spot.y()).isGreaterThan(200);
    }

    @Test
    void aHillUnderALevelFlightIsHighGround() {
        HeightGrid hill = HeightGrid.level(40, 190, 1, 120, 140, 0);
        for (int row = 0; row < 140; row++) {
            for (int column = 0; column < 120; column++) {
                double away = Math.hypot(hill.x(column) - 95, hill.y(row) - 115);
                hill.heights()[row * 120 + column] = (float) Math.max(0, 45 - away);
            }
        }
        Judgement judgement = judged(hill, 75, asked(9));
        assertThat(judgement.spots()).extracting(WeakGround::cause).contains(WeakGround.Cause.HIGH_GROUND);
    }

    @Test
    void aPitIsTooCoarseAndAWallHides() {
        HeightGrid pit = pit();
        Judgement coarse = judged(
                pit,
                75,
                new Judgement.Asked(
                        3,
                        OptionalDouble.of(0.026),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.empty()));
        int middle = 30 * 60 + 30;
        assertThat(coarse.at(middle)).isEqualTo(Adequacy.TOO_COARSE);
        assertThat(coarse.spots()).extracting(WeakGround::cause).contains(WeakGround.Cause.LOW_GROUND);
        Judgement hidden = judged(pit, 75, asked(14));
        assertThat(hidden.share(Adequacy.HIDDEN)).isGreaterThan(0);
        assertThat(hidden.spots()).extracting(WeakGround::cause).contains(WeakGround.Cause.HIDDEN_SIDE);
    }

    @Test
    void anAccuracyThatCannotBeIsInaccurate() {
        HeightGrid level = HeightGrid.level(60, 150, 1, 60, 60, 0);
        Judgement judgement = judged(
                level,
                75,
                new Judgement.Asked(
                        3,
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.of(0.001),
                        OptionalDouble.empty()));
        assertThat(judgement.share(Adequacy.INACCURATE)).isEqualTo(1);
        double sum = 0;
        for (Adequacy lack : Adequacy.values()) {
            sum += lack == Adequacy.UNKNOWN ? 0 : judgement.share(lack);
        }
        assertThat(sum).isCloseTo(1, Offset.offset(1e-9));
    }

    /** The photos that the probe draws are those that the count counts. */
    @Test
    void theProbeFindsAsManyPhotosAsTheCount() {
        BlockPlan plan = Samples.request(Samples.square(200), Pins.ofGsd(2)).plan();
        GroundProof proof = PlanProof.of(plan, 10).whole(Positioning.PPK, done -> true);
        HeightGrid grid = proof.grid();
        for (int cell = 0; cell < grid.columns() * grid.rows(); cell += 7) {
            if (proof.counts()[cell] > 0) {
                assertThat(PlanProof.seeing(plan, grid, cell % grid.columns(), cell / grid.columns()))
                        .hasSize(proof.counts()[cell]);
            }
        }
    }

    @Test
    void aMarginMendsTheEdgeAndTheProofShowsIt() {
        Pins pins = Pins.ofGsd(2).with(Quantity.LEAST_PHOTOS, Measure.of(12, Unit.COUNT));
        BlockPlan bare = Samples.request(Samples.square(300), pins).plan();
        BlockPlan wider = Samples.request(
                        Samples.square(300), pins.with(Quantity.MARGIN_STRIPS, Measure.of(2, Unit.COUNT)))
                .plan();
        assertThat(share(wider)).isGreaterThan(share(bare));
        assertThat(share(wider)).isGreaterThan(0.99);
    }

    private static double share(BlockPlan plan) {
        PlanProof proof = PlanProof.of(plan, 3);
        return proof.judged(proof.whole(Positioning.PPK, done -> true), Positioning.PPK, PlanProof.Accuracy.ANY)
                .share();
    }

    @Test
    void obliqueStripsSeeMoreAndCostTime() {
        BlockPlan plan = Samples.request(
                        Samples.square(200), Pins.ofGsd(2).with(Quantity.LEAST_PHOTOS, Measure.of(15, Unit.COUNT)))
                .plan();
        PlanProof proof = PlanProof.of(plan, 5);
        Judgement planned =
                proof.judged(proof.whole(Positioning.PPK, done -> true), Positioning.PPK, PlanProof.Accuracy.ANY);
        PlanProof.Gain gain = proof.withObliques(planned, done -> true);
        assertThat(gain.share()).isGreaterThan(planned.share());
        assertThat(gain.minutes()).isPositive();
    }
}
