package yalos.core.flight;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Uniformly accelerated motion, by hand and against its own definition: way is the sum of speed over time. */
class SpeedProfileTest {
    private static final Offset<Double> CLOSE = Offset.offset(1e-9);

    /** v² = u² + 2 a s and v = u + a t (textbook). */
    @ParameterizedTest
    @CsvSource({
        // 100 m at 2 m/s², from and to a stand, at most 10 m/s: 25 m and 5 s up, 50 m and 5 s even, 25 m and 5 s down
        "100, 2, 0, 10, 0, 15",
        // 18 m: a triangle of 3 s and 6 m/s up, 3 s down
        "18, 2, 0, 10, 0, 6",
        // 50 m are just enough for 10 m/s: 5 s and 5 s
        "50, 2, 0, 10, 0, 10",
        // entered at 4 and left at 6 m/s: (100−16)/4 = 21 m in 3 s, (100−36)/4 = 16 m in 2 s, 63 m in 6.3 s
        "100, 2, 4, 10, 6, 11.3",
        // end speeds over the most are cut to it
        "100, 2, 20, 10, 30, 10",
        // too short to brake from 10 to 0 m/s, for which 25 m are needed: evenly, 10 m at 5 m/s on average
        "10, 2, 10, 10, 0, 2",
        "0, 2, 0, 10, 0, 0",
        "-1, 2, 0, 10, 0, 0",
        "10, 2, 0, 0, 0, Infinity",
    })
    void timesByHand(double length, double acceleration, double start, double most, double end, double seconds) {
        assertThat(new SpeedProfile(length, acceleration, start, most, end).seconds())
                .isEqualTo(seconds, CLOSE);
    }

    @ParameterizedTest
    @CsvSource({"0, 0, 0", "2.5, 6.25, 5", "5, 25, 10", "7.5, 50, 10", "10, 75, 10", "12.5, 93.75, 5", "15, 100, 0"})
    void placesAndSpeedsByHand(double seconds, double metres, double speed) {
        SpeedProfile profile = new SpeedProfile(100, 2, 0, 10, 0);
        assertThat(profile.metresAt(seconds)).isCloseTo(metres, CLOSE);
        assertThat(profile.speedAt(seconds)).isCloseTo(speed, CLOSE);
        assertThat(profile.secondsAt(metres)).isCloseTo(seconds, CLOSE);
    }

    /** Braking evenly from 10 m/s to a stand over 10 m takes 2 s; after 1 s 7.5 m are done at 5 m/s. */
    @Test
    void tooShortAWayChangesEvenly() {
        SpeedProfile profile = new SpeedProfile(10, 2, 10, 10, 0);
        assertThat(profile.metresAt(1)).isCloseTo(7.5, CLOSE);
        assertThat(profile.speedAt(1)).isCloseTo(5, CLOSE);
        assertThat(profile.secondsAt(7.5)).isCloseTo(1, CLOSE);
        assertThat(profile.secondsAt(10)).isCloseTo(2, CLOSE);
    }

    @Test
    void beforeTheStartAndAfterTheEndItStands() {
        SpeedProfile profile = new SpeedProfile(100, 2, 4, 10, 6);
        assertThat(profile.metresAt(-3)).isZero();
        assertThat(profile.metresAt(99)).isCloseTo(100, CLOSE);
        assertThat(profile.speedAt(-3)).isCloseTo(4, CLOSE);
        assertThat(profile.speedAt(99)).isCloseTo(6, CLOSE);
        assertThat(profile.secondsAt(-5)).isZero();
        assertThat(profile.secondsAt(500)).isCloseTo(11.3, CLOSE);
        SpeedProfile stuck = new SpeedProfile(100, 2, 0, 0, 0);
        assertThat(stuck.metresAt(5)).isZero();
        assertThat(stuck.speedAt(5)).isZero();
        assertThat(stuck.secondsAt(5)).isZero();
    }

    /** Speed summed over time is the way; time and place undo each other; speed never exceeds the most nor changes faster than it may. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void speedSummedOverTimeIsTheWay(long seed) {
        Random random = new Random(seed);
        for (int run = 0; run < 50; run++) {
            double most = 1 + 20 * random.nextDouble();
            SpeedProfile profile = new SpeedProfile(
                    0.5 + 300 * random.nextDouble() * random.nextDouble(),
                    0.5 + 4 * random.nextDouble(),
                    most * random.nextDouble(),
                    most,
                    0.05 + most * random.nextDouble());
            int steps = 4000;
            double step = profile.seconds() / steps;
            double way = 0;
            for (int i = 0; i < steps; i++) {
                double speed = profile.speedAt((i + 0.5) * step);
                assertThat(speed).isLessThanOrEqualTo(most + 1e-9);
                way += speed * step;
                if (i % 500 == 250) {
                    double metres = profile.metresAt((i + 1) * step);
                    assertThat(metres).isCloseTo(way, Offset.offset(1e-3));
                    assertThat(profile.secondsAt(metres)).isCloseTo((i + 1) * step, Offset.offset(1e-6));
                }
            }
            assertThat(way).isCloseTo(profile.lengthM(), Offset.offset(1e-3));
        }
    }
}
