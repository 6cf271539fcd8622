package yalos.web.fly;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.geodesy.PlanePoint;
import yalos.core.rehearsal.Shot;
import yalos.core.terrain.HeightGrid;

/** Simulated photos against the image geometry that is held against OpenCV elsewhere, and with the flaws they are said to have. */
class SimulatedPhotoTest {
    private static final Lens LENS = Lens.of(Samples.twentyMegapixel());
    private static final HeightGrid GROUND = HeightGrid.level(-200, 200, 5, 80, 80, 100);

    private static Shot shot(Pose pose, double stops, Shot.Flaw... flaws) {
        return new Shot(1, 1, 0, pose, pose, Set.of(flaws), 3, stops, 0.02, true);
    }

    private static BufferedImage photo(List<PlanePoint> targets, Shot shot) {
        return new SimulatedPhoto(GROUND, Optional.empty(), targets, 0.6).of(shot, LENS);
    }

    /** A target lies at the pixel where the view says that it is seen, tilted and turned too. */
    @Test
    void targetsLieWhereTheViewSeesThem() {
        for (Pose pose : List.of(
                Pose.vertical(0, 0, 175, 0.7), new Pose(10, -20, 180, 2.1, Math.toRadians(-75), Math.toRadians(4)))) {
            View.Sighting seen = new View(LENS, pose)
                    .of(12, -9, 100)
                    .filter(View.Sighting::inFrame)
                    .orElseThrow();
            BufferedImage image = photo(List.of(new PlanePoint(12, -9)), shot(pose, 0));
            double scale = (double) image.getWidth() / LENS.width();
            double x = 0;
            double y = 0;
            int dark = 0;
            for (int row = 0; row < image.getHeight(); row++) {
                for (int column = 0; column < image.getWidth(); column++) {
                    int green = image.getRGB(column, row) >> 8 & 0xff;
                    if (green < 30 || green > 225) {
                        x += column;
                        y += row;
                        dark++;
                    }
                }
            }
            assertThat(dark).isGreaterThan(4);
            assertThat(x / dark).isCloseTo(seen.u() * scale, Offset.offset(1.5));
            assertThat(y / dark).isCloseTo(seen.v() * scale, Offset.offset(1.5));
        }
    }

    private static double mean(BufferedImage image) {
        double sum = 0;
        for (int row = 0; row < image.getHeight(); row++) {
            for (int column = 0; column < image.getWidth(); column++) {
                sum += image.getRGB(column, row) >> 8 & 0xff;
            }
        }
        return sum / image.getWidth() / image.getHeight();
    }

    private static double sharpness(BufferedImage image) {
        double sum = 0;
        for (int row = 1; row < image.getHeight(); row++) {
            for (int column = 0; column < image.getWidth(); column++) {
                sum += Math.abs((image.getRGB(column, row) >> 8 & 0xff) - (image.getRGB(column, row - 1) >> 8 & 0xff));
            }
        }
        return sum;
    }

    @Test
    void aStopIsHalfTheLightAndBlurTakesTheDetail() {
        Pose pose = Pose.vertical(0, 0, 175, 0);
        BufferedImage good = photo(List.of(), shot(pose, 0));
        assertThat(mean(photo(List.of(), shot(pose, -1, Shot.Flaw.DARK))))
                .isCloseTo(mean(good) / 2, Percentage.withPercentage(2));
        assertThat(sharpness(photo(List.of(), shot(pose, 0, Shot.Flaw.BLURRED))))
                .isLessThan(sharpness(good) / 2);
    }

    /** The site's own picture shows where it reaches. */
    @Test
    void thePictureOfTheSiteShows() {
        BufferedImage red = new BufferedImage(40, 40, BufferedImage.TYPE_INT_ARGB);
        for (int i = 0; i < 1600; i++) {
            red.setRGB(i % 40, i / 40, 0xffc02020);
        }
        SimulatedPhoto painter =
                new SimulatedPhoto(GROUND, Optional.of(new SimulatedPhoto.Site(red, -10, 10, 0.5)), List.of(), 0.6);
        BufferedImage image = painter.of(shot(Pose.vertical(0, 0, 175, 0), 0), LENS);
        int middle = image.getRGB(image.getWidth() / 2, image.getHeight() / 2);
        assertThat(middle >> 16 & 0xff).isGreaterThan(2 * (middle >> 8 & 0xff));
        int corner = image.getRGB(3, 3);
        assertThat(corner >> 16 & 0xff).isLessThan(2 * (corner >> 8 & 0xff));
    }
}
