package yalos.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Prism;
import yalos.core.site.Solid;
import yalos.core.surface.Face;
import yalos.core.surface.Occluder;
import yalos.core.surface.PrismFace;
import yalos.core.surface.PrismOccluder;
import yalos.core.surface.SolidOccluder;
import yalos.core.surface.TerrainOccluder;
import yalos.core.terrain.HeightGrid;

/**
 * Walls, roofs and undersides against independent reference values (numpy and OpenCV; slabs, and by triangles): counts equal where they do
 * not depend on rounding, GSD to 1e-7 (a float's), angles to 1e-4°.
 */
class FaceProofTest {
    private static final Map<String, Map<String, Reference.Row>> EXPECTED = byCase("faces_expected.csv");
    private static final Map<String, Map<String, Reference.Row>> CELLS = byCase("faces_cells.csv");

    private static Map<String, Map<String, Reference.Row>> byCase(String file) {
        Map<String, Map<String, Reference.Row>> rows = new HashMap<>();
        Reference.rows(file)
                .forEach(row -> rows.computeIfAbsent(row.text("case"), key -> new HashMap<>())
                        .put(key(row.text("object"), row.text("face"), row.whole("column"), row.whole("row")), row));
        return rows;
    }

    private static String key(String object, String face, int column, int row) {
        return object + " " + face + " " + column + " " + row;
    }

    static Stream<Reference.Row> cases() {
        return Reference.rows("faces_cases.csv");
    }

    private static Map<String, Reference.Row> objects(Reference.Row one) {
        return Reference.rows("faces_objects.csv")
                .filter(row -> row.text("case").equals(one.text("case")))
                .collect(Collectors.toMap(row -> row.text("object"), row -> row));
    }

    private static Solid solid(Reference.Row row) {
        return new Solid(
                new PlanePoint(row.number("centre_e_m"), row.number("centre_n_m")),
                row.number("length_m"),
                row.number("width_m"),
                Math.toRadians(row.number("rotation_deg")),
                row.number("bottom_u_m"),
                row.number("top_u_m"));
    }

    private static List<Exposure> photos(Reference.Row one) {
        double pixels = one.number("focal_mm") * 1000 / one.number("pixel_pitch_um");
        int width = one.whole("image_width_px");
        int height = one.whole("image_height_px");
        Lens lens = new Lens(width, height, pixels, pixels, width / 2.0, height / 2.0, Lens.Distortion.NONE);
        return Reference.rows("faces_photos.csv")
                .filter(row -> row.text("case").equals(one.text("case")))
                .map(row -> Exposure.of(
                        row.whole("photo"),
                        1,
                        new Pose(
                                row.number("e_m"),
                                row.number("n_m"),
                                row.number("h_m"),
                                Math.toRadians(row.number("yaw_deg")),
                                Math.toRadians(row.number("pitch_deg")),
                                Math.toRadians(row.number("roll_deg"))),
                        lens))
                .toList();
    }

    private static SurfaceProof proved(Face face, Occluder occluder, List<Exposure> photos) {
        return SurfaceProof.of(
                face,
                new boolean[0],
                occluder,
                photos,
                Noise.ofImage(0.5),
                new SurfaceProof.Scope(EnumSet.allOf(SurfaceProof.Layer.class)),
                share -> true);
    }

    @ParameterizedTest
    @MethodSource("cases")
    void everyFaceIsSeenAsOftenAndAsWellAsTheReferenceSays(Reference.Row one) {
        Map<String, Reference.Row> objects = objects(one);
        List<Solid> solids = objects.values().stream().map(FaceProofTest::solid).toList();
        Occluder occluder = new SolidOccluder(solids);
        List<Exposure> photos = photos(one);
        int checked = 0;
        for (Map.Entry<String, Reference.Row> object : objects.entrySet()) {
            for (Face.Side side : Face.Side.values()) {
                Face face = Face.of(solid(object.getValue()), side, one.number("cell_size_m"));
                SurfaceProof proof = proved(face, occluder, photos);
                for (int at = 0; at < face.columns() * face.rows(); at++) {
                    int column = at % face.columns();
                    int row = at / face.columns();
                    String key = key(object.getKey(), side.name().toLowerCase(Locale.ROOT), column, row);
                    Reference.Row expected = EXPECTED.get(one.text("case")).get(key);
                    if (expected != null) {
                        lies(face, column, row, CELLS.get(one.text("case")).get(key));
                        agrees(proof, at, expected);
                        checked++;
                    }
                }
            }
        }
        assertThat(checked).isEqualTo(one.whole("cells"));
    }

    /** Corners so that walls come in the order front, left, back, right. */
    private static Prism prism(Solid box) {
        PlanePoint front = box.middle().moved(box.axisRad(), box.lengthM() / 2);
        PlanePoint back = box.middle().moved(box.axisRad(), -box.lengthM() / 2);
        double right = box.axisRad() + Math.PI / 2;
        double half = box.widthM() / 2;
        return new Prism(
                List.of(
                        front.moved(right, half),
                        front.moved(right, -half),
                        back.moved(right, -half),
                        back.moved(right, half)),
                box.bottomM(),
                box.topM());
    }

    private static List<PrismFace> faces(Prism prism, double cellM) {
        return List.of(
                PrismFace.wall(prism, 0, cellM),
                PrismFace.wall(prism, 1, cellM),
                PrismFace.wall(prism, 2, cellM),
                PrismFace.wall(prism, 3, cellM),
                PrismFace.roof(prism, cellM),
                PrismFace.underside(prism, cellM));
    }

    private static String placed(double x, double y, double z, double nx, double ny, double nz) {
        return "%.3f %.3f %.3f %.2f %.2f %.2f"
                .formatted(x + 1e-9, y + 1e-9, z + 1e-9, nx + 1e-9, ny + 1e-9, nz + 1e-9)
                .replace("-0.00", "0.00");
    }

    /** The same boxes as solids with upright walls: their cells are found by their places, as roofs are cut another way round. */
    @ParameterizedTest
    @MethodSource("cases")
    void solidsWithUprightWallsAreSeenAlike(Reference.Row one) {
        Map<String, Reference.Row> byPlace = new HashMap<>();
        CELLS.get(one.text("case")).forEach((key, row) -> {
            Reference.Row expected = EXPECTED.get(one.text("case")).get(key);
            byPlace.put(
                    placed(
                            row.number("x_m"),
                            row.number("y_m"),
                            row.number("z_m"),
                            row.number("nx"),
                            row.number("ny"),
                            row.number("nz")),
                    expected);
        });
        List<Prism> prisms = objects(one).values().stream()
                .map(FaceProofTest::solid)
                .map(FaceProofTest::prism)
                .toList();
        Occluder occluder = new PrismOccluder(prisms);
        List<Exposure> photos = photos(one);
        double[] at = new double[3];
        double[] normal = new double[3];
        int checked = 0;
        for (Prism prism : prisms) {
            for (PrismFace face : faces(prism, one.number("cell_size_m"))) {
                SurfaceProof proof = SurfaceProof.of(
                        face,
                        new boolean[0],
                        occluder,
                        photos,
                        Noise.ofImage(0.5),
                        new SurfaceProof.Scope(EnumSet.allOf(SurfaceProof.Layer.class)),
                        share -> true);
                for (int cell = 0; cell < face.columns() * face.rows(); cell++) {
                    face.place(cell % face.columns(), cell / face.columns(), at);
                    face.normal(0, 0, normal);
                    Reference.Row expected = byPlace.get(placed(at[0], at[1], at[2], normal[0], normal[1], normal[2]));
                    if (expected != null) {
                        agrees(proof, cell, expected);
                        checked++;
                    }
                }
            }
        }
        // A few places lie on the edge of a millimetre and are not found again.
        assertThat(checked).isBetween((int) (one.whole("cells") * 0.97), one.whole("cells"));
    }

    private static void lies(Face face, int column, int row, Reference.Row expected) {
        double[] place = new double[3];
        double[] normal = new double[3];
        face.place(column, row, place);
        face.normal(column, row, normal);
        String[] axes = {"x", "y", "z"};
        for (int i = 0; i < 3; i++) {
            assertThat(place[i]).isCloseTo(expected.number(axes[i] + "_m"), Offset.offset(2e-6));
            assertThat(normal[i]).isCloseTo(expected.number("n" + axes[i]), Offset.offset(1e-8));
        }
    }

    private static void agrees(SurfaceProof proof, int at, Reference.Row expected) {
        if (expected.whole("ambiguous") == 1) {
            assertThat((int) proof.counts()[at]).isBetween(expected.whole("photos_min"), expected.whole("photos_max"));
            return;
        }
        String what = expected.record().toString();
        assertThat((int) proof.counts()[at]).as(what).isEqualTo(expected.whole("photos"));
        assertThat((int) proof.countsWithoutOcclusion()[at]).as(what).isEqualTo(expected.whole("photos_no_occlusion"));
        if (expected.whole("photos") > 0) {
            assertThat((double) proof.gsdBestM()[at])
                    .isCloseTo(expected.number("gsd_best_m"), Percentage.withPercentage(2e-5));
            assertThat(Math.toDegrees(proof.incidenceRad()[at]))
                    .isCloseTo(expected.number("smallest_incidence_deg"), Offset.offset(1e-4));
        }
        if (expected.whole("photos") > 1) {
            assertThat(Math.toDegrees(proof.anglesRad()[at]))
                    .isCloseTo(expected.number("largest_ray_angle_deg"), Offset.offset(1e-4));
        }
    }

    /** A ridge of ground between camera and wall hides the wall's foot: above it by h · d / D the wall is seen. */
    @Test
    void terrainHidesAWallAsItHidesGround() {
        HeightGrid ridge = HeightGrid.level(-60, 60, 0.5, 240, 240, 0);
        for (int row = 0; row < 240; row++) {
            ridge.heights()[row * 240 + 120] = 10;
        }
        // wall 20 m beyond the ridge, camera 20 m before it at 4 m: the sight line over the crest meets the wall at 16
        // m
        Solid house = new Solid(new PlanePoint(25, 0), 10, 9.5, Math.PI / 2, 0, 30);
        Face wall = Face.of(house, Face.Side.BACK, 1);
        Lens lens = new Lens(4000, 4000, 1000, 1000, 2000, 2000, Lens.Distortion.NONE);
        double crest = ridge.x(120);
        Pose pose = new Pose(crest - 20, 0, 4, Math.PI / 2, 0, 0);
        Occluder both = Occluder.all(List.of(new TerrainOccluder(ridge), new SolidOccluder(List.of(house))));
        SurfaceProof proof = SurfaceProof.of(
                wall,
                new boolean[0],
                both,
                List.of(Exposure.of(1, 1, pose, lens)),
                Noise.ofImage(1),
                new SurfaceProof.Scope(Set.of()),
                s -> true);
        double[] place = new double[3];
        for (int row = 0; row < wall.rows(); row++) {
            wall.place(4, row, place);
            double line = 4 + 6 * (place[0] - pose.eastM()) / 20;
            if (Math.abs(place[2] - line) > 0.6) {
                assertThat(proof.counts()[row * wall.columns() + 4])
                        .as("%.1f m up", place[2])
                        .isEqualTo((short) (place[2] > line ? 1 : 0));
            }
        }
    }

    private static final Lens PLAIN = new Lens(4000, 3000, 4000, 4000, 2000, 1500, Lens.Distortion.NONE);

    /** A wall of 40 by 12 m along x, facing south, and a camera square to it. */
    private static final PrismFace WALL = PrismFace.wall(
            new Prism(
                    List.of(new PlanePoint(0, 0), new PlanePoint(40, 0), new PlanePoint(40, 5), new PlanePoint(0, 5)),
                    0,
                    12),
            0,
            0.5);

    private static SurfaceProof wall(List<Exposure> photos) {
        return SurfaceProof.of(
                WALL,
                new boolean[0],
                new PrismOccluder(List.of(WALL.prism())),
                photos,
                Noise.ofImage(1),
                new SurfaceProof.Scope(StructureProof.LAYERS),
                s -> true);
    }

    /** By the pinhole alone: one row of photos 8 m off and 1.3 m apart, frames of 8 by 6 m on the wall. */
    @Test
    void aPlaneWallByClosedForm() {
        List<Exposure> photos = new ArrayList<>();
        for (int i = 0; i < 30; i++) {
            photos.add(Exposure.of(i + 1, 1, new Pose(1 + 1.3 * i, -8, 5.6, 0, 0, 0), PLAIN));
        }
        SurfaceProof proof = wall(photos);
        double[] place = new double[3];
        for (int at = 0; at < WALL.columns() * WALL.rows(); at++) {
            WALL.place(at % WALL.columns(), at / WALL.columns(), place);
            double up = place[2] - 5.6;
            List<Double> aside = photos.stream()
                    .map(photo -> photo.pose().eastM() - place[0])
                    .filter(x -> Math.abs(x) < 4 && Math.abs(up) < 3)
                    .toList();
            assertThat((int) proof.counts()[at]).as("%s", place).isEqualTo(aside.size());
            if (aside.isEmpty()) {
                continue;
            }
            double nearest = aside.stream().mapToDouble(Math::abs).min().orElseThrow();
            assertThat((double) proof.incidenceRad()[at])
                    .isCloseTo(Math.atan2(Math.hypot(nearest, up), 8), Offset.offset(1e-6));
            // All eyes lie on one line, and the angle over its ends is the largest.
            double least = aside.stream().mapToDouble(x -> x).min().orElseThrow();
            double most = aside.stream().mapToDouble(x -> x).max().orElseThrow();
            double off = Math.hypot(8, up);
            assertThat((double) proof.anglesRad()[at])
                    .isCloseTo(Math.atan2(most, off) - Math.atan2(least, off), Offset.offset(1e-5));
        }
        // Square to the wall a pixel covers distance over focal length.
        assertThat((double) proof.gsdBestM()[WALL.columns() * 12 + 20])
                .isCloseTo(8 / 4000.0, Percentage.withPercentage(2));
    }

    /** Many eyes anywhere before a wall: the largest angle is that of all pairs tried one by one. */
    @Test
    void theLargestAngleIsThatOfAllPairs() {
        Random random = new Random(3);
        List<Exposure> photos = new ArrayList<>();
        for (int i = 0; i < 90; i++) {
            double x = 40 * random.nextDouble();
            double y = -4 - 16 * random.nextDouble();
            double up = 1 + 14 * random.nextDouble();
            double yaw = Math.atan2(20 - x, -y);
            photos.add(Exposure.of(i + 1, 1, new Pose(x, y, up, yaw, 0, 0), PLAIN));
        }
        SurfaceProof proof = wall(photos);
        double[] place = new double[3];
        int compared = 0;
        for (int at = 0; at < WALL.columns() * WALL.rows(); at += 7) {
            WALL.place(at % WALL.columns(), at / WALL.columns(), place);
            double largest = 0;
            List<double[]> rays = photos.stream()
                    .filter(photo -> new View(photo.lens(), photo.pose())
                            .of(place[0], place[1], place[2])
                            .filter(View.Sighting::inFrame)
                            .isPresent())
                    .map(photo -> ray(photo.pose(), place))
                    .toList();
            for (double[] one : rays) {
                for (double[] other : rays) {
                    double cos = one[0] * other[0] + one[1] * other[1] + one[2] * other[2];
                    largest = Math.max(largest, Math.acos(Math.max(-1, Math.min(1, cos))));
                }
            }
            assertThat((int) proof.counts()[at]).isEqualTo(rays.size());
            if (rays.size() > 1) {
                assertThat((double) proof.anglesRad()[at]).isCloseTo(largest, Offset.offset(1e-5));
                compared++;
            }
        }
        assertThat(compared).isGreaterThan(100);
    }

    private static double[] ray(Pose eye, double[] place) {
        double x = eye.eastM() - place[0];
        double y = eye.northM() - place[1];
        double z = eye.upM() - place[2];
        double length = Math.sqrt(x * x + y * y + z * z);
        return new double[] {x / length, y / length, z / length};
    }
}
