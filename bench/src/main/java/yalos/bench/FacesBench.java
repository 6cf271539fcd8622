package yalos.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.proof.FaceProof;
import yalos.core.proof.Noise;
import yalos.core.proof.StructureProof;
import yalos.core.site.Prism;
import yalos.core.site.Structure;
import yalos.core.surface.Box;
import yalos.core.surface.Occluder;
import yalos.core.surface.PrismFace;
import yalos.core.surface.PrismOccluder;

/**
 * Faces proved: a large building of 40 walls, 1,200 photos along its facade from 8 m, cells of 5 cm. Each photo shows a twentieth of it; of a
 * tower that every photo shows half of, the plain loop is hardly slower.
 *
 * @param cells of all faces
 * @param provedMs with what stands in the way, all layers
 * @param plainMs every cell against every photo, the line to each held against the solid; 1 % measured, times 100, shared by the processors
 */
record FacesBench(int cells, double provedMs, double plainMs) {
    private static final double CELL_M = 0.05;
    private static final int WALLS = 40;
    private static final int PHOTOS = 1200;
    private static final double RADIUS_M = 31;
    private static final double TOP_M = 10;

    static FacesBench measure() {
        Prism tower = tower();
        List<Exposure> photos = photos();
        Structure.Built built = new Structure.Built(
                new Structure("tower", List.of(part()), Set.of("1.roof"), ""),
                1,
                0,
                Structure.Kind.BODY,
                tower,
                List.of(),
                0);
        double best = Double.POSITIVE_INFINITY;
        int cells = 0;
        for (int i = 0; i < 3; i++) {
            long begin = System.nanoTime();
            StructureProof proof = StructureProof.of(
                    List.of(built),
                    photos,
                    Occluder.NONE,
                    (x, y) -> 0,
                    object -> new FaceProof.Asked(3, OptionalDouble.empty(), OptionalDouble.empty(), false),
                    Noise.ofImage(0.5),
                    CELL_M,
                    share -> true);
            best = Math.min(best, (System.nanoTime() - begin) / 1e6);
            cells = proof.faces().stream()
                    .mapToInt(face -> face.verdicts().length)
                    .sum();
        }
        int processors = Runtime.getRuntime().availableProcessors();
        return new FacesBench(cells, best, 100 * plainMs(tower, photos) / processors);
    }

    private static Structure.Part part() {
        return new Structure.Part(
                Structure.Kind.BODY,
                List.of(LonLat.of(0, 0), LonLat.of(0.001, 0), LonLat.of(0, 0.001)),
                0,
                0,
                TOP_M,
                Structure.Counted.GROUND,
                Structure.Piers.NONE);
    }

    private static Prism tower() {
        List<PlanePoint> ring = new ArrayList<>();
        for (int i = 0; i < WALLS; i++) {
            ring.add(new PlanePoint(0, 0).moved(2 * Math.PI * i / WALLS, RADIUS_M));
        }
        return new Prism(ring, 0, TOP_M);
    }

    private static List<Exposure> photos() {
        Lens lens = new Lens(5280, 3956, 3751, 3751, 2640, 1978, Lens.Distortion.NONE);
        List<Exposure> photos = new ArrayList<>();
        int rings = 5;
        for (int i = 0; i < PHOTOS; i++) {
            double bearing = 2 * Math.PI * (i % (PHOTOS / rings)) / (PHOTOS / rings);
            double up = 2 + TOP_M * (i / (PHOTOS / rings)) / rings;
            PlanePoint at = new PlanePoint(0, 0).moved(bearing, RADIUS_M + 8);
            double pitch = up > TOP_M ? -0.5 : 0;
            photos.add(Exposure.of(
                    i + 1, 1 + i * rings / PHOTOS, new Pose(at.xM(), at.yM(), up, bearing + Math.PI, pitch, 0), lens));
        }
        return photos;
    }

    /** One cell in a hundred, as a loop has it that knows nothing of tiles. */
    private static double plainMs(Prism tower, List<Exposure> photos) {
        Occluder occluder = new PrismOccluder(List.of(tower));
        List<View> views = photos.stream()
                .map(photo -> new View(photo.lens(), photo.pose()))
                .toList();
        Box whole = new Box(-RADIUS_M, RADIUS_M, -RADIUS_M, RADIUS_M, 0, TOP_M);
        List<Occluder.Sight> sights = photos.stream()
                .map(Exposure::pose)
                .map(eye -> occluder.towards(whole, eye.eastM(), eye.northM(), eye.upM()))
                .toList();
        long begin = System.nanoTime();
        long seen = 0;
        int count = 0;
        double[] at = new double[3];
        double[] normal = new double[3];
        List<PrismFace> faces = new ArrayList<>();
        for (int wall = 0; wall < WALLS; wall++) {
            faces.add(PrismFace.wall(tower, wall, CELL_M));
        }
        for (PrismFace face : faces) {
            face.normal(0, 0, normal);
            for (int cell = 0; cell < face.columns() * face.rows(); cell++) {
                face.place(cell % face.columns(), cell / face.columns(), at);
                if (count++ % 100 == 0 && !Double.isNaN(at[2])) {
                    seen += seeing(at, normal, photos, views, sights);
                }
            }
        }
        if (seen == 0) {
            throw new IllegalStateException("nothing seen");
        }
        return (System.nanoTime() - begin) / 1e6;
    }

    private static long seeing(
            double[] at, double[] normal, List<Exposure> photos, List<View> views, List<Occluder.Sight> sights) {
        long seen = 0;
        for (int i = 0; i < photos.size(); i++) {
            Pose eye = photos.get(i).pose();
            double facing = (eye.eastM() - at[0]) * normal[0]
                    + (eye.northM() - at[1]) * normal[1]
                    + (eye.upM() - at[2]) * normal[2];
            Optional<View.Sighting> sighting = views.get(i).of(at[0], at[1], at[2]);
            boolean clear = sights.get(i).clear(at[0], at[1], at[2]);
            seen += facing > 0
                            && clear
                            && sighting.filter(View.Sighting::inFrame).isPresent()
                    ? 1
                    : 0;
        }
        return seen;
    }
}
