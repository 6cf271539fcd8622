package yalos.core.proof;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import yalos.core.camera.View;
import yalos.core.fault.Patience;
import yalos.core.flight.Exposure;
import yalos.core.surface.Box;
import yalos.core.surface.Face;
import yalos.core.surface.Occluder;

/**
 * What photos see of a face, cell by cell and in full precision: for a script that holds a few structures against another program. {@link SurfaceProof} does the same for millions of cells and keeps less of each.
 */
public final class FaceLook {
    private FaceLook() {}

    /**
     * One cell.
     *
     * @param centre east, north, up, to the micrometre: GSD and angles are those of the place given, so that whoever works from it finds the same
     * @param normal outward
     * @param photosNoOcclusion photos that would see it if no solid stood in the way
     * @param gsdM of the photo that sees it finest, by its depth
     * @param incidenceRad least angle between the normal and the line to a camera that sees it
     * @param rayAngleRad largest angle between the lines to two cameras that see it
     */
    public record Cell(
            int column,
            int row,
            double[] centre,
            double[] normal,
            int photos,
            int photosNoOcclusion,
            OptionalDouble gsdM,
            OptionalDouble incidenceRad,
            OptionalDouble rayAngleRad) {}

    /** Height of the ground at a place. */
    public interface Ground {
        double upM(double eastM, double northM);
    }

    /** A camera that may see the face. */
    private record Eye(View view, double gsdPerDepth, double[] at, Occluder.Sight sight) {}

    /**
     * All cells of a face whose middle stands clear of the ground, row by row.
     *
     * @param clearM by which a cell's middle must stand above the ground
     */
    public static List<Cell> of(Face face, Occluder occluder, List<Exposure> photos, Ground ground, double clearM) {
        Box box = face.box(0, face.columns(), 0, face.rows());
        List<Eye> eyes = new ArrayList<>();
        double[] place = new double[3];
        double[] normal = new double[3];
        face.place(0, 0, place);
        face.normal(0, 0, normal);
        for (Exposure photo : photos) {
            double[] at = {
                photo.pose().eastM(), photo.pose().northM(), photo.pose().upM()
            };
            boolean before = dot(normal, less(at, place)) > 0;
            if (before && at[2] >= ground.upM(at[0], at[1])) {
                double pitch = 1 / Math.min(photo.lens().fx(), photo.lens().fy());
                eyes.add(new Eye(
                        new View(photo.lens(), photo.pose()), pitch, at, occluder.towards(box, at[0], at[1], at[2])));
            }
        }
        List<Cell> cells = new ArrayList<>();
        for (int row = 0; row < face.rows(); row++) {
            Patience.check();
            for (int column = 0; column < face.columns(); column++) {
                double[] centre = new double[3];
                double[] outward = new double[3];
                face.place(column, row, centre);
                face.normal(column, row, outward);
                if (centre[2] - ground.upM(centre[0], centre[1]) >= clearM) {
                    cells.add(cell(column, row, centre, outward, eyes));
                }
            }
        }
        return cells;
    }

    private static Cell cell(int column, int row, double[] centre, double[] normal, List<Eye> eyes) {
        double[] shown = rounded(centre);
        int without = 0;
        double best = Double.POSITIVE_INFINITY;
        double least = Double.POSITIVE_INFINITY;
        List<double[]> rays = new ArrayList<>();
        for (Eye eye : eyes) {
            double depth = eye.view()
                    .of(shown[0], shown[1], shown[2])
                    .filter(View.Sighting::inFrame)
                    .map(View.Sighting::depthM)
                    .orElse(0.0);
            double[] ray = less(eye.at(), shown);
            if (depth > 0 && dot(normal, ray) > 0) {
                without++;
                if (eye.sight().clear(centre[0], centre[1], centre[2])) {
                    best = Math.min(best, depth * eye.gsdPerDepth());
                    least = Math.min(least, angle(normal, ray));
                    rays.add(ray);
                }
            }
        }
        return new Cell(
                column,
                row,
                shown,
                normal,
                rays.size(),
                without,
                rays.isEmpty() ? OptionalDouble.empty() : OptionalDouble.of(best),
                rays.isEmpty() ? OptionalDouble.empty() : OptionalDouble.of(least),
                largest(rays));
    }

    private static double[] rounded(double[] place) {
        double[] rounded = new double[3];
        for (int i = 0; i < 3; i++) {
            rounded[i] = Math.round(place[i] * 1e6) / 1e6;
        }
        return rounded;
    }

    private static OptionalDouble largest(List<double[]> rays) {
        double largest = -1;
        for (int i = 0; i < rays.size(); i++) {
            for (int j = 0; j < i; j++) {
                largest = Math.max(largest, angle(rays.get(i), rays.get(j)));
            }
        }
        return largest < 0 ? OptionalDouble.empty() : OptionalDouble.of(largest);
    }

    /** Well behaved for the smallest and the largest angles too. */
    private static double angle(double[] a, double[] b) {
        double x = a[1] * b[2] - a[2] * b[1];
        double y = a[2] * b[0] - a[0] * b[2];
        double z = a[0] * b[1] - a[1] * b[0];
        return Math.atan2(Math.sqrt(x * x + y * y + z * z), dot(a, b));
    }

    private static double[] less(double[] a, double[] b) {
        return new double[] {a[0] - b[0], a[1] - b[1], a[2] - b[2]};
    }

    private static double dot(double[] a, double[] b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    }
}
