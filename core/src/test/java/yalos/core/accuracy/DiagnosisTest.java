package yalos.core.accuracy;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.PlanePoint;

/** Residuals with a planted cause: it is named, and nothing else is. */
class DiagnosisTest {
    private static final Diagnosis.Known KNOWN = new Diagnosis.Known(
            Map.of("the rover's pole", 2.0, "the base's antenna", 1.482),
            46.4,
            new EastNorth(500_000, 5_200_000),
            0.02);

    private interface Planted {
        double[] at(double x, double y, double up);
    }

    private static List<Residual> points(int count, Planted planted) {
        Random random = new Random(14);
        List<Residual> points = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            double x = 400 * random.nextDouble() - 200;
            double y = 300 * random.nextDouble() - 150;
            double up = 410 + 30 * random.nextDouble();
            double[] off = planted.at(x, y, up);
            points.add(new Residual(
                    "P" + (i + 1),
                    Residual.Kind.CHECK,
                    OptionalDouble.of(off[0] + 0.008 * random.nextGaussian()),
                    OptionalDouble.of(off[1] + 0.008 * random.nextGaussian()),
                    OptionalDouble.of(off[2] + 0.012 * random.nextGaussian()),
                    Optional.of(new PlanePoint(x, y)),
                    OptionalDouble.of(up),
                    ""));
        }
        return points;
    }

    private static List<Suspicion> found(Planted planted) {
        return Diagnosis.of(points(20, planted), List.of(), KNOWN);
    }

    private static void only(List<Suspicion> found, Suspicion.Kind kind, String words) {
        assertThat(found).extracting(Suspicion::kind).containsExactly(kind);
        assertThat(found.get(0).figure() + " " + found.get(0).cause()).contains(words);
        assertThat(found.get(0).next()).isNotBlank();
    }

    @Test
    void noiseAloneSuggestsNothing() {
        assertThat(found((x, y, up) -> new double[] {0, 0, 0})).isEmpty();
    }

    @Test
    void anAntennaHeightCountedTwice() {
        only(found((x, y, up) -> new double[] {0, 0, 1.482}), Suspicion.Kind.OFFSET, "the base's antenna of 1.482 m");
    }

    @Test
    void theGeoidForgotten() {
        only(found((x, y, up) -> new double[] {0, 0, 46.3}), Suspicion.Kind.OFFSET, "ellipsoid");
    }

    @Test
    void aTilt() {
        only(
                found((x, y, up) -> new double[] {0, 0, 0.0004 * x}),
                Suspicion.Kind.TILT,
                "cm in 100 m, too high towards 9");
    }

    @Test
    void aDome() {
        List<Suspicion> found = found((x, y, up) -> new double[] {0, 0, -0.1 * (x * x + y * y - 20_000) / 40_000});
        assertThat(found).extracting(Suspicion::kind).contains(Suspicion.Kind.DOMING);
        assertThat(found.stream().map(Suspicion::figure)).anyMatch(words -> words.contains("a dome"));
    }

    @Test
    void aBaseOnAWrongMark() {
        only(found((x, y, up) -> new double[] {0.31, -0.12, 0}), Suspicion.Kind.SHIFT, "east");
    }

    @Test
    void aTurnAndAScale() {
        only(found((x, y, up) -> new double[] {-4e-4 * y, 4e-4 * x, 0}), Suspicion.Kind.TURN, "turned by");
        only(found((x, y, up) -> new double[] {4e-4 * x, 4e-4 * y, 0}), Suspicion.Kind.SCALE, "too large");
    }

    @Test
    void feetTakenForMetres() {
        only(found((x, y, up) -> new double[] {0, 0, up / 0.3048 - up}), Suspicion.Kind.FEET, "feet were taken");
        only(
                found((x, y, up) -> new double[] {2e-6 * 500_000, 2e-6 * 5_200_000, 0}),
                Suspicion.Kind.FEET,
                "survey feet");
    }

    @Test
    void twoPointsExchanged() {
        List<Residual> points = points(12, (x, y, up) -> new double[] {0, 0, 0});
        PlanePoint a = points.get(2).at().orElseThrow();
        PlanePoint b = points.get(7).at().orElseThrow();
        points.set(2, moved(points.get(2), b.xM() - a.xM(), b.yM() - a.yM()));
        points.set(7, moved(points.get(7), a.xM() - b.xM(), a.yM() - b.yM()));

        only(Diagnosis.of(points, List.of(), KNOWN), Suspicion.Kind.SWAPPED, "P3 and P8");
    }

    private static Residual moved(Residual one, double east, double north) {
        return new Residual(
                one.point(),
                one.kind(),
                OptionalDouble.of(east),
                OptionalDouble.of(north),
                one.upM(),
                one.at(),
                one.upThereM(),
                "");
    }

    @Test
    void onePoleLeftTooLong() {
        List<Residual> points = points(9, (x, y, up) -> new double[] {0, 0, 0});
        Residual one = points.get(4);
        points.set(
                4,
                new Residual(
                        one.point(),
                        one.kind(),
                        one.eastM(),
                        one.northM(),
                        OptionalDouble.of(0.518),
                        one.at(),
                        one.upThereM(),
                        ""));

        only(
                Diagnosis.of(points, List.of(), KNOWN),
                Suspicion.Kind.BLUNDER,
                "the rover's pole less the base's antenna");
    }

    @Test
    void controlMuchBetterThanChecks() {
        List<Residual> control = points(10, (x, y, up) -> new double[] {0, 0, 0}).stream()
                .map(one -> new Residual(
                        one.point(),
                        Residual.Kind.CONTROL,
                        one.eastM(),
                        one.northM(),
                        OptionalDouble.of(one.upM().getAsDouble() / 6),
                        one.at(),
                        one.upThereM(),
                        ""))
                .toList();

        only(
                Diagnosis.of(points(10, (x, y, up) -> new double[] {0, 0, 0}), control, KNOWN),
                Suspicion.Kind.OVERFITTED,
                "control");
    }

    @Test
    void twoPointsSayNothingOfAPattern() {
        assertThat(Diagnosis.of(points(2, (x, y, up) -> new double[] {1, 1, 1}), List.of(), KNOWN))
                .isEmpty();
    }
}
