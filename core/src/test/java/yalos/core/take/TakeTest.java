package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.function.IntPredicate;
import org.junit.jupiter.api.Test;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.camera.Pose;
import yalos.core.flight.Exposure;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.FlyAgain;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.PhotoCount;
import yalos.core.terrain.VerticalDatum.Zero;

/** A take held against its plan: flown as planned it gives what the plan gives; what is left out is missed, and nothing else. */
class TakeTest {
    private static final BlockPlan PLAN = Samples.request(Samples.square(260), Pins.ofGsd(2))
            .over(new GroundRequest(
                    FormulaGround.of(5, (x, y) -> 200 + 25 * Math.sin(x / 70) + 15 * Math.cos(y / 55)),
                    HeightChoice.USUAL,
                    List.of(),
                    List.of(),
                    OptionalDouble.empty()))
            .plan();

    private static final PlanProof PROOF = PlanProof.of(PLAN, PhotoCount.cellSizeM(PLAN.block(), 20_000));
    private static final Judgement PLANNED =
            PROOF.judged(PLAN.flight(), Positioning.RTK_NETWORK, PlanProof.Accuracy.ANY);

    /** The photos of the plan, each exactly where it was planned. */
    private static List<Taken> asPlanned(IntPredicate taken, double liftedM) {
        List<Taken> photos = new ArrayList<>();
        List<Station> stations = Station.of(PLAN.flight(), PLAN.timeline());
        double convergence = PLAN.block().plane().convergenceRad();
        for (Station station : stations) {
            if (taken.test(station.number())) {
                Exposure photo = PLAN.flight().exposures().get(station.number() - 1);
                Pose pose = photo.pose();
                PhotoFacts facts = new PhotoFacts(
                        "P%04d.JPG".formatted(station.number()),
                        1000,
                        PhotoFacts.Readable.ALL,
                        "",
                        Optional.of(
                                LocalDateTime.of(2026, 6, 18, 9, 0).plusNanos(Math.round(station.plannedS() * 1e9))),
                        Optional.of(ZoneOffset.UTC),
                        Optional.empty(),
                        new PhotoFacts.Position(
                                Optional.of(PLAN.block().plane().toLonLat(photo.point())),
                                OptionalDouble.of(photo.upM() + liftedM),
                                Zero.GEOID,
                                OptionalDouble.of(0.02),
                                Optional.of(true)),
                        new PhotoFacts.View(
                                OptionalDouble.of(Math.toDegrees(pose.yawRad() + convergence)),
                                false,
                                OptionalDouble.of(Math.toDegrees(pose.pitchRad()))),
                        new PhotoFacts.Camera(
                                "A",
                                OptionalDouble.of(PLAN.request().camera().focalLengthM() * 1000),
                                OptionalDouble.of(0.001),
                                OptionalDouble.of(4),
                                OptionalInt.of(100),
                                100,
                                80,
                                100,
                                80,
                                1));
                photos.add(Taken.of(facts, "sum " + station.number()));
            }
        }
        return photos;
    }

    private static Judgement judged(Take take) {
        return PROOF.judged(take.flown().flight(), Positioning.RTK_NETWORK, PlanProof.Accuracy.ANY);
    }

    @Test
    void flownAsPlannedItGivesWhatThePlanGives() {
        Take take = Take.of(PLAN, asPlanned(number -> true, 0), Optional.empty());
        Judgement taken = judged(take);

        assertThat(take.lacking()).isEmpty();
        assertThat(take.flown().placed()).isEqualTo(PLAN.photos());
        assertThat(taken.proof().counts()).isEqualTo(PLANNED.proof().counts());
        assertThat(taken.share()).isCloseTo(PLANNED.share(), within(1e-9));
        float[] planned = PLANNED.proof().gsdMeanM();
        float[] flown = taken.proof().gsdMeanM();
        for (int i = 0; i < planned.length; i++) {
            if (!Float.isNaN(planned[i])) {
                assertThat(flown[i]).isCloseTo(planned[i], within(1e-5f));
            }
        }
        assertThat(take.gaps(PLANNED, taken)).isEmpty();
        assertThat(FlyAgain.of(PLAN, take.lacking().keySet())).isEmpty();
        assertThat(take.count(Take.Known.FIXED)).isEqualTo(PLAN.photos());
    }

    @Test
    void heightsThatCountFromElsewhereAreLowered() {
        Take take = Take.of(PLAN, asPlanned(number -> true, 46.4), Optional.empty());

        assertThat(take.flown().loweredM()).isCloseTo(46.4, within(1e-6));
        assertThat(judged(take).share()).isCloseTo(PLANNED.share(), within(1e-9));
    }

    @Test
    void whatIsLeftOutIsMissedWithItsStationsAndFlownAgain() {
        int from = PLAN.photos() / 2;
        Take take = Take.of(PLAN, asPlanned(number -> number < from || number > from + 8, 0), Optional.empty());
        List<Take.Gap> gaps = take.gaps(PLANNED, judged(take));

        assertThat(take.lacking()).hasSize(9);
        assertThat(take.causes()).containsEntry("no photo", 9L);
        assertThat(gaps).isNotEmpty();
        assertThat(gaps.get(0).cause()).contains("no photo at station");
        assertThat(take.lacking().keySet()).containsAll(gaps.get(0).stations());
        FlyAgain again = FlyAgain.of(PLAN, take.lacking().keySet()).orElseThrow();
        assertThat(again.flight().exposures())
                .hasSizeBetween(9, 9 + 2 * again.flight().lines().size());
        assertThat(again.seconds()).isPositive().isLessThan(PLAN.flightTimeS());
        assertThat(again.sets()).isEqualTo(1);
    }
}
