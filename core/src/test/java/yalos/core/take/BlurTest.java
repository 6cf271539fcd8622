package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pictures made of noise with a known smear, held against other noise of the same sort: no two show the same ground. */
class BlurTest {
    private static final int SIDE = 420;

    @ParameterizedTest
    @CsvSource({"1, 0, 5", "1, 0, 12", "0, 1, 8", "0, 1, 18", "1, 1, 6", "1, -1, 10"})
    void aSmearAlongALineIsFound(int stepX, int stepY, int length) {
        double[][] ground = ground(7);
        double[][] smeared = new double[SIDE][SIDE];
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                for (int m = 0; m < length; m++) {
                    smeared[y][x] += ground[wrap(y + m * stepY)][wrap(x + m * stepX)] / length;
                }
            }
        }
        Blur found = Blur.of(picture(ground(3)).likeness(), picture(smeared).likeness());

        double px = length * Math.hypot(stepX, stepY);
        assertThat(found.motion()).isTrue();
        assertThat(found.px()).isCloseTo(px, within(0.2 * px + 0.5));
        double direction = Math.toDegrees(Math.atan2(stepY, stepX));
        assertThat(Math.abs(Math.sin(Math.toRadians(found.directionDeg() - direction))))
                .isLessThan(0.35);
    }

    @ParameterizedTest
    @CsvSource({"1", "2", "3.5"})
    void aLensOutOfFocusIsFound(double sigma) {
        Blur found = Blur.of(
                picture(ground(3)).likeness(), picture(bell(ground(7), sigma)).likeness());

        assertThat(found.motion()).isFalse();
        assertThat(found.px()).isCloseTo(sigma, within(0.2 * sigma + 0.15));
    }

    @Test
    void levelsOfOneGreyHaveNoSharpness() {
        byte[] grey = new byte[100 * 100];
        Arrays.fill(grey, (byte) 90);
        Luminance plain = new Luminance(100, 100, grey);

        assertThat(Picture.of(plain, plain).sharpness()).isZero();
        assertThat(Picture.of(plain, plain).mean()).isEqualTo(90);
    }

    private static int wrap(int at) {
        return (at % SIDE + SIDE) % SIDE;
    }

    /** Grain of several sizes, as ground has. */
    private static double[][] ground(long seed) {
        Random random = new Random(seed);
        double[][] sum = new double[SIDE][SIDE];
        for (double size : new double[] {0.6, 1.5, 4, 10}) {
            double[][] noise = new double[SIDE][SIDE];
            for (double[] row : noise) {
                for (int x = 0; x < SIDE; x++) {
                    row[x] = random.nextGaussian();
                }
            }
            double[][] soft = bell(noise, size);
            for (int y = 0; y < SIDE; y++) {
                for (int x = 0; x < SIDE; x++) {
                    sum[y][x] += soft[y][x] * size * Math.sqrt(size) * 20;
                }
            }
        }
        return sum;
    }

    private static double[][] bell(double[][] from, double sigma) {
        int reach = (int) Math.ceil(4 * sigma);
        double[] weight = new double[2 * reach + 1];
        double whole = 0;
        for (int i = -reach; i <= reach; i++) {
            weight[i + reach] = Math.exp(-i * i / (2 * sigma * sigma));
            whole += weight[i + reach];
        }
        double[][] across = new double[SIDE][SIDE];
        double[][] both = new double[SIDE][SIDE];
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                for (int i = -reach; i <= reach; i++) {
                    across[y][x] += from[y][wrap(x + i)] * weight[i + reach] / whole;
                }
            }
        }
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                for (int i = -reach; i <= reach; i++) {
                    both[y][x] += across[wrap(y + i)][x] * weight[i + reach] / whole;
                }
            }
        }
        return both;
    }

    private static Picture picture(double[][] levels) {
        double sum = 0;
        double squares = 0;
        for (double[] row : levels) {
            for (double one : row) {
                sum += one;
                squares += one * one;
            }
        }
        double count = (double) SIDE * SIDE;
        double mean = sum / count;
        double deviation = Math.sqrt(squares / count - mean * mean);
        byte[] level = new byte[SIDE * SIDE];
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                level[y * SIDE + x] =
                        (byte) Math.round(Math.max(0, Math.min(255, 128 + 40 * (levels[y][x] - mean) / deviation)));
            }
        }
        Luminance light = new Luminance(SIDE, SIDE, level);
        return Picture.of(light, light);
    }
}
