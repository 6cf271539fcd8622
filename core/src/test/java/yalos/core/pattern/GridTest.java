package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.Link;
import yalos.core.flight.SpeedProfile;
import yalos.core.flight.Station;
import yalos.core.flight.Strip;
import yalos.core.kit.Aircraft;

class GridTest {
    private static final double SPACING = 31.7;
    private static final double BASE = 15.8;

    static LongStream seeds() {
        return LongStream.range(1, 41);
    }

    private static StripPattern pattern(Optional<double[]> launch) {
        return new StripPattern(SPACING, BASE, 75, 10, Aircraft.smallMultirotor(), launch);
    }

    private static PlaneBlock block(Outline outline) {
        return PlaneBlock.of(outline, Samples.UTM30);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void everyPointOfTheBlockLiesBesideAStripWithAStationBeforeAndBehind(long seed) {
        PlaneBlock block = block(seed % 5 == 0 ? Samples.concaveWithHole() : Samples.random(seed));
        Random random = new Random(seed);
        StripLayout layout = StripLayout.of(block, pattern(Optional.empty()), random.nextDouble() * Math.PI);
        double[] bounds = block.bounds();
        for (int i = 0; i < 2000; i++) {
            double x = bounds[0] + random.nextDouble() * (bounds[1] - bounds[0]);
            double y = bounds[2] + random.nextDouble() * (bounds[3] - bounds[2]);
            if (block.contains(x, y)) {
                assertThat(layout.strips()).as("point %f %f", x, y).anyMatch(strip -> covers(strip, x, y));
            }
        }
    }

    private static boolean covers(Strip strip, double x, double y) {
        double alongX = Math.sin(strip.yawRad());
        double alongY = Math.cos(strip.yawRad());
        double along = (x - strip.fromX()) * alongX + (y - strip.fromY()) * alongY;
        double across = (x - strip.fromX()) * alongY - (y - strip.fromY()) * alongX;
        return Math.abs(across) <= SPACING / 2 + 1e-6 && along >= -1e-6 && along <= strip.lengthM() + 1e-6;
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void stationsOfAStripAreExactlyOneBaseApart(long seed) {
        StripLayout layout = StripLayout.of(block(Samples.random(seed)), pattern(Optional.empty()), 0.3 * seed);
        for (Strip strip : layout.strips()) {
            List<Station> stations =
                    layout.stations().subList(strip.firstStation(), strip.firstStation() + strip.stations());
            for (int i = 1; i < stations.size(); i++) {
                Station a = stations.get(i - 1);
                Station b = stations.get(i);
                assertThat(Math.hypot(b.xM() - a.xM(), b.yM() - a.yM())).isCloseTo(BASE, Offset.offset(1e-9));
                assertThat(b.strip()).isEqualTo(strip.number());
            }
            assertThat(stations.get(stations.size() - 1).xM()).isCloseTo(strip.toX(), Offset.offset(1e-9));
        }
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void theSerpentineNeverFliesAStripTwiceAndTurnsRoundEachTime(long seed) {
        StripLayout layout = StripLayout.of(
                block(Samples.concaveWithHole()), pattern(Optional.of(new double[] {-400, 30 * seed})), 0.1 * seed);
        Set<String> middles = new HashSet<>();
        for (Strip strip : layout.strips()) {
            String middle = "%.3f %.3f".formatted((strip.fromX() + strip.toX()) / 2, (strip.fromY() + strip.toY()) / 2);
            assertThat(middles.add(middle))
                    .as("strip %d is new", strip.number())
                    .isTrue();
        }
        int links = layout.links().size();
        assertThat(links).isEqualTo(layout.strips().size() + 1);
        for (int i = 1; i < layout.strips().size(); i++) {
            double turn = Math.abs(
                    layout.strips().get(i).yawRad() - layout.strips().get(i - 1).yawRad());
            boolean straightOn = layout.links().get(i).kind() == Link.Kind.GAP;
            assertThat(turn).isCloseTo(straightOn ? 0 : Math.PI, Offset.offset(1e-9));
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {10, 33.3, 90, 147})
    void rotatingBlockAndDirectionTogetherChangesNothing(double turnDeg) {
        double[] corners = {0, 0, 420, 30, 380, 300, 200, 180, 40, 350};
        double turn = Math.toRadians(turnDeg);
        double[] turned = new double[corners.length];
        for (int i = 0; i < corners.length; i += 2) {
            turned[i] = corners[i] * Math.cos(turn) + corners[i + 1] * Math.sin(turn);
            turned[i + 1] = corners[i + 1] * Math.cos(turn) - corners[i] * Math.sin(turn);
        }
        StripLayout straight = StripLayout.of(block(Samples.outline(corners)), pattern(Optional.empty()), 0.4);
        StripLayout rotated = StripLayout.of(block(Samples.outline(turned)), pattern(Optional.empty()), 0.4 + turn);
        assertThat(rotated.strips()).hasSameSizeAs(straight.strips());
        assertThat(rotated.stations()).hasSameSizeAs(straight.stations());
        assertThat(rotated.pathLengthM()).isCloseTo(straight.pathLengthM(), Percentage.withPercentage(0.01));
        assertThat(rotated.flightTimeS()).isCloseTo(straight.flightTimeS(), Percentage.withPercentage(0.01));
    }

    @Test
    void aSquareHasTheStripsAndStationsOfTheTextbook() {
        StripPattern pattern = new StripPattern(50, 25, 75, 10, Aircraft.smallMultirotor(), Optional.empty());
        StripLayout layout = StripLayout.of(block(Samples.square(399)), pattern, 0);
        assertThat(layout.strips()).hasSize(8);
        assertThat(layout.stations()).hasSize(8 * 17);
        assertThat(layout.pathLengthM()).isCloseTo(8 * 400 + 7 * 50, Offset.offset(0.5));
    }

    @Test
    void startsAtTheCornerNearestTheLaunchPoint() {
        for (double[] corner : new double[][] {{-300, -300}, {300, -300}, {300, 300}, {-300, 300}}) {
            StripLayout layout = StripLayout.of(block(Samples.square(400)), pattern(Optional.of(corner)), 0);
            Strip first = layout.strips().get(0);
            assertThat(Math.signum(first.fromX())).isEqualTo(Math.signum(corner[0]));
            assertThat(Math.signum(first.fromY())).isEqualTo(Math.signum(corner[1]));
        }
    }

    @Test
    void flightTimeIsAtLeastPathOverSpeedAndAgreesWithTheHandFigure() {
        SpeedProfile profile = new SpeedProfile(2, 1);
        // speeding up from 1 to 11 m/s takes 5 s and 30 m, braking the same; the other 40 m take 40/11 s
        assertThat(profile.seconds(100, 11)).isCloseTo(10 + 40 / 11.0, Offset.offset(1e-12));
        // too short to reach 11 m/s: peak speed sqrt(1 + 2 * 20)
        assertThat(profile.seconds(20, 11)).isCloseTo(Math.sqrt(41) - 1, Offset.offset(1e-12));
        StripLayout layout = StripLayout.of(block(Samples.square(400)), pattern(Optional.empty()), 0);
        assertThat(layout.flightTimeS()).isGreaterThan(layout.pathLengthM() / 10);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void noDirectionTriedByHandBeatsTheBestOne(long seed) {
        PlaneBlock block = block(Samples.random(seed));
        StripPattern pattern = pattern(Optional.of(new double[] {seed * 10, -200}));
        BestDirection.Choice best = BestDirection.of(block, pattern);
        assertThat(StripLayout.of(block, pattern, best.directionRad()).flightTimeS())
                .isCloseTo(best.flightTimeS(), Offset.offset(1e-6));
        IntStream.range(0, 60)
                .mapToDouble(
                        i -> StripLayout.of(block, pattern, i * Math.PI / 60).flightTimeS())
                .forEach(time -> assertThat(time).isGreaterThanOrEqualTo(best.flightTimeS() - 1e-6));
    }

    @Test
    void aBlockOfTwoPartsFarApartIsCoveredInBoth() {
        Outline two = new Outline(List.of(
                Samples.square(100).parts().get(0),
                Samples.outline(900, 40, 1000, 40, 1000, 150, 900, 150).parts().get(0)));
        for (double direction = 0; direction < Math.PI; direction += 0.2) {
            StripLayout layout = StripLayout.of(block(two), pattern(Optional.empty()), direction);
            assertThat(layout.stations()).anyMatch(station -> station.xM() < -350);
            assertThat(layout.stations()).anyMatch(station -> station.xM() > 350);
        }
        assertThat(BestDirection.of(block(two), pattern(Optional.empty())).flightTimeS())
                .isPositive();
    }

    @Test
    void refusesMoreThanTwoHundredThousandStations() {
        StripPattern tiny = new StripPattern(1, 1, 5, 2, Aircraft.smallMultirotor(), Optional.empty());
        assertThatThrownBy(() -> StripLayout.of(block(Samples.square(3000)), tiny, 0))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("200,000")
                .hasMessageContaining("photos");
    }
}
