package yalos.core.network;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.camera.Pose;
import yalos.core.fault.InputFault;
import yalos.core.network.Network.Axes;
import yalos.core.network.Network.GroundPoint;
import yalos.core.network.Network.Kind;
import yalos.core.network.Network.Sight;

/** Against the independent reference: the inverse of the whole normal matrix, points eliminated, and simulated takes agree in it. */
class ExpectedAccuracyTest {
    static Stream<Reference.Row> cases() {
        return Reference.rows("network_cases.csv");
    }

    private static Axes axes(Reference.Row row, String name) {
        return new Axes(
                row.number("sigma_" + name + "_e_m"),
                row.number("sigma_" + name + "_n_m"),
                row.number("sigma_" + name + "_u_m"));
    }

    private static List<Reference.Row> of(String file, Reference.Row one) {
        return Reference.rows(file)
                .filter(row -> row.text("case").equals(one.text("case")))
                .toList();
    }

    private static Network network(Reference.Row row) {
        Network.Sigmas sigmas = new Network.Sigmas(
                row.number("sigma_tie_px"),
                row.number("sigma_marked_px"),
                axes(row, "position"),
                axes(row, "common"),
                Math.toRadians(row.number("sigma_angle_deg")),
                row.number("sigma_focal_px"),
                row.number("sigma_principal_x_px"),
                row.number("sigma_principal_y_px"),
                row.number("sigma_k1"));
        Map<String, Integer> photoAt = new HashMap<>();
        List<Pose> photos = new ArrayList<>();
        for (Reference.Row photo : of("network_photos.csv", row)) {
            photoAt.put(photo.text("photo"), photos.size());
            photos.add(new Pose(
                    photo.number("e_m"),
                    photo.number("n_m"),
                    photo.number("h_m"),
                    Math.toRadians(photo.number("yaw_deg")),
                    Math.toRadians(photo.number("pitch_deg")),
                    Math.toRadians(photo.number("roll_deg"))));
        }
        Map<String, Integer> pointAt = new HashMap<>();
        List<GroundPoint> points = new ArrayList<>();
        for (Reference.Row point : of("network_points.csv", row)) {
            pointAt.put(point.text("point"), points.size());
            Optional<Axes> sigma = point.text("prior_sigma_e_m").isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Axes(
                            point.number("prior_sigma_e_m"),
                            point.number("prior_sigma_n_m"),
                            point.number("prior_sigma_u_m")));
            points.add(new GroundPoint(
                    Kind.valueOf(point.text("kind").toUpperCase(java.util.Locale.ROOT)),
                    point.number("e_m"),
                    point.number("n_m"),
                    point.number("u_m"),
                    sigma));
        }
        List<Sight> sights = of("network_observations.csv", row).stream()
                .map(sight -> new Sight(photoAt.get(sight.text("photo")), pointAt.get(sight.text("point"))))
                .toList();
        return new Network(row.number("focal_px"), sigmas, row.whole("self_calibration") == 1, photos, points, sights);
    }

    @ParameterizedTest
    @MethodSource("cases")
    void isThatOfTheReference(Reference.Row row) {
        List<ExpectedAccuracy.Covariance> expected = ExpectedAccuracy.of(network(row));
        List<Reference.Row> points = of("network_points.csv", row);
        assertThat(expected).hasSize(points.size());
        for (int i = 0; i < points.size(); i++) {
            Percentage tolerance = Percentage.withPercentage(1e-3);
            ExpectedAccuracy.Covariance here = expected.get(i);
            assertThat(here.sigmaEastM()).isCloseTo(points.get(i).number("sigma_e_m"), tolerance);
            assertThat(here.sigmaNorthM()).isCloseTo(points.get(i).number("sigma_n_m"), tolerance);
            assertThat(here.sigmaUpM()).isCloseTo(points.get(i).number("sigma_u_m"), tolerance);
        }
    }

    /** Control taken as unmeasured in the adjustment and measured afterwards must come to what the adjustment with it gives. */
    @ParameterizedTest
    @MethodSource("cases")
    void controlMeasuredAfterwardsComesToTheSame(Reference.Row row) {
        Network whole = network(row);
        boolean held = whole.sigmas().position().upM() < 1e3;
        if (!held) {
            return;
        }
        List<GroundPoint> free = whole.points().stream()
                .map(point -> new GroundPoint(
                        point.kind(), point.eastM(), point.northM(), point.upM(), Optional.<Axes>empty()))
                .toList();
        Map<Integer, Axes> control = new HashMap<>();
        for (int i = 0; i < whole.points().size(); i++) {
            int at = i;
            whole.points().get(i).sigma().ifPresent(sigma -> control.put(at, sigma));
        }
        int[] every = IntStream.range(0, free.size()).toArray();
        Network loose = new Network(
                whole.focalPx(), whole.sigmas(), whole.selfCalibration(), whole.photos(), free, whole.sights());
        JointCovariance joint = ExpectedAccuracy.joint(loose, every).measured(control);
        List<Reference.Row> points = of("network_points.csv", row);
        for (int i = 0; i < points.size(); i++) {
            Percentage tolerance = Percentage.withPercentage(2e-3);
            assertThat(joint.of(i).sigmaEastM()).isCloseTo(points.get(i).number("sigma_e_m"), tolerance);
            assertThat(joint.of(i).sigmaUpM()).isCloseTo(points.get(i).number("sigma_u_m"), tolerance);
        }
    }

    /** The normal case of stereo: with positions and angles known, sigma_Z = Z² / (b f) · sigma_p, parallax of two images (textbook, Kraus, Photogrammetry, from memory). */
    @Test
    void twoKnownPhotosMeasureAsTheNormalCaseSays() {
        double height = 100;
        double base = 40;
        double focal = 3700;
        Network.Sigmas known =
                new Network.Sigmas(0.5, 0.5, new Axes(1e-6, 1e-6, 1e-6), new Axes(0, 0, 0), 1e-9, 0, 0, 0, 0);
        List<Pose> photos = List.of(
                new Pose(-base / 2, 0, height, 0, -Math.PI / 2, 0), new Pose(base / 2, 0, height, 0, -Math.PI / 2, 0));
        Network pair = new Network(
                focal,
                known,
                false,
                photos,
                List.of(new GroundPoint(Kind.CHECK, 0, 0, 0, Optional.empty())),
                List.of(new Sight(0, 0), new Sight(1, 0)));
        double parallax = 0.5 * Math.sqrt(2);
        double expected = height * height / (base * focal) * parallax;
        assertThat(ExpectedAccuracy.of(pair).get(0).sigmaUpM()).isCloseTo(expected, Percentage.withPercentage(0.01));
        assertThat(ExpectedAccuracy.joint(pair, new int[] {0}).of(0).sigmaUpM())
                .isCloseTo(expected, Percentage.withPercentage(0.01));
    }

    /** Photos numbered crosswise are put in an order of their own; what comes of the points stays. */
    @Test
    void theOrderOfPhotosChangesNothing() {
        Network flown = network(cases().skip(9).findFirst().orElseThrow());
        int count = flown.photos().size();
        int[] at = new int[count];
        List<Pose> photos = new ArrayList<>(flown.photos());
        for (int i = 0; i < count; i++) {
            at[i] = (i * 11 + 3) % count;
            photos.set(at[i], flown.photos().get(i));
        }
        assertThat(count % 11).isNotZero();
        List<Sight> sights = flown.sights().stream()
                .map(sight -> new Sight(at[sight.photo()], sight.point()))
                .toList();
        Network mixed =
                new Network(flown.focalPx(), flown.sigmas(), flown.selfCalibration(), photos, flown.points(), sights);
        assertThat(ExpectedAccuracy.of(mixed).get(3).sigmaUpM())
                .isCloseTo(ExpectedAccuracy.of(flown).get(3).sigmaUpM(), Percentage.withPercentage(1e-4));
        assertThat(ExpectedAccuracy.bytes(mixed)).isLessThan(3 * ExpectedAccuracy.bytes(flown));
    }

    @Test
    void aNetworkThatHangsInTheAirIsRefusedInASentence() {
        Network good = network(cases().findFirst().orElseThrow());
        List<Sight> lonely = good.sights().stream()
                .filter(sight -> sight.point() != 5 || sight.photo() == 3)
                .toList();
        long seen = lonely.stream().filter(sight -> sight.point() == 5).count();
        assertThatThrownBy(() -> ExpectedAccuracy.of(
                        new Network(good.focalPx(), good.sigmas(), false, good.photos(), good.points(), lonely)))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("Point 6 cannot be determined: it is seen by " + seen);
    }
}
