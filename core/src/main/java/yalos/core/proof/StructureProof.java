package yalos.core.proof;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Deque;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.DoubleBinaryOperator;
import java.util.function.Function;
import yalos.core.flight.Exposure;
import yalos.core.site.Prism;
import yalos.core.site.Structure;
import yalos.core.site.Structure.Built;
import yalos.core.surface.Occluder;
import yalos.core.surface.PrismFace;
import yalos.core.surface.PrismOccluder;

/**
 * What photos give to the faces of objects: walls, roofs and undersides, each cell with what stands in the way, its own object too.
 *
 * <p>Left out is what nobody can see: what lies in the ground or less than {@value #CLEAR_M} m above it, and what another part touches.
 */
public final class StructureProof {
    private static final double CLEAR_M = 0.05;
    private static final double TOUCHED_M = 0.01;
    private static final double LEAST_SPOT_M2 = 0.25;
    private static final int MOST_SPOTS = 12;

    /** Shown of faces. */
    public static final Set<SurfaceProof.Layer> LAYERS = EnumSet.of(
            SurfaceProof.Layer.COUNT_WITHOUT_OCCLUSION,
            SurfaceProof.Layer.GSD,
            SurfaceProof.Layer.ANGLE,
            SurfaceProof.Layer.ACCURACY,
            SurfaceProof.Layer.INCIDENCE);

    private final List<FaceProof> faces;
    private final double cellM;

    private StructureProof(List<FaceProof> faces, double cellM) {
        this.faces = List.copyOf(faces);
        this.cellM = cellM;
    }

    /** All solids and the terrain, as they stand in the way of a look. */
    public static Occluder standing(List<Built> all, Occluder terrain) {
        return Occluder.all(
                List.of(new PrismOccluder(all.stream().map(Built::solid).toList()), terrain));
    }

    /** Size of cells that cuts all faces of some objects into about so many. */
    public static double cellM(List<Built> all, int cells) {
        double area = 0;
        for (Built one : all) {
            Prism solid = one.solid();
            area += 2 * solid.plan().getArea();
            for (int wall = 0; wall < solid.walls(); wall++) {
                area += solid.wallM(wall) * (solid.topM() - solid.bottomM());
            }
        }
        return Math.max(0.02, Math.sqrt(area / cells));
    }

    /**
     * @param all solids of all objects
     * @param photos of the whole flight
     * @param terrain that may stand in the way
     * @param ground its height at a place; not a number where unknown
     * @param asked of each object, by its name
     * @param noise of photos and positions
     * @param watcher told after each tile of a face; may call it off
     */
    public static StructureProof of(
            List<Built> all,
            List<Exposure> photos,
            Occluder terrain,
            DoubleBinaryOperator ground,
            Function<String, FaceProof.Asked> asked,
            Noise noise,
            double cellM,
            SurfaceProof.Watcher watcher) {
        Occluder occluder = standing(all, terrain);
        List<FaceProof> faces = new ArrayList<>();
        List<Wanted> wanted = wanted(all, cellM);
        for (Wanted one : wanted) {
            boolean[] cells = toBeSeen(one, all, ground);
            FaceProof.Asked of = asked.apply(one.built.object().name());
            SurfaceProof proof = SurfaceProof.of(
                    one.face,
                    cells,
                    occluder,
                    photos,
                    noise,
                    new SurfaceProof.Scope(LAYERS, of.photos()),
                    share -> watcher.goOn((faces.size() + share) / wanted.size()));
            FaceAdequacy[] verdicts = new FaceAdequacy[cells.length];
            for (int at = 0; at < cells.length; at++) {
                verdicts[at] = cells[at] ? FaceProof.judge(proof, at, of) : FaceAdequacy.NONE;
            }
            faces.add(new FaceProof(faces.size() + 1, one.built, one.key, one.face, of, proof, verdicts));
        }
        return new StructureProof(faces, cellM);
    }

    private record Wanted(Built built, String key, PrismFace face) {}

    private static List<Wanted> wanted(List<Built> all, double cellM) {
        List<Wanted> wanted = new ArrayList<>();
        for (Built one : all) {
            for (int wall = 0; wall < one.solid().walls(); wall++) {
                add(wanted, one, one.key(wall + 1), PrismFace.wall(one.solid(), wall, cellM));
            }
            if (one.pier() == 0) {
                add(wanted, one, one.roofKey(), PrismFace.roof(one.solid(), cellM));
            }
            if (one.kind() == Structure.Kind.DECK) {
                add(wanted, one, one.undersideKey(), PrismFace.underside(one.solid(), cellM));
            }
        }
        return wanted;
    }

    private static void add(List<Wanted> wanted, Built one, String key, PrismFace face) {
        if (one.wants(key)) {
            wanted.add(new Wanted(one, key, face));
        }
    }

    private static boolean[] toBeSeen(Wanted one, List<Built> all, DoubleBinaryOperator ground) {
        PrismFace face = one.face;
        boolean[] seen = new boolean[face.columns() * face.rows()];
        double[] at = new double[3];
        double[] normal = new double[3];
        face.normal(0, 0, normal);
        List<Prism> others = all.stream()
                .filter(other -> other != one.built)
                .map(Built::solid)
                .toList();
        for (int row = 0; row < face.rows(); row++) {
            for (int column = 0; column < face.columns(); column++) {
                face.place(column, row, at);
                if (Double.isNaN(at[2])) {
                    continue;
                }
                double over = at[2] - ground.applyAsDouble(at[0], at[1]);
                double x = at[0] + normal[0] * TOUCHED_M;
                double y = at[1] + normal[1] * TOUCHED_M;
                double z = at[2] + normal[2] * TOUCHED_M;
                boolean touched = others.stream()
                        .anyMatch(solid -> z > solid.bottomM() && z < solid.topM() && solid.contains(x, y));
                seen[row * face.columns() + column] = !(over < CLEAR_M) && !touched;
            }
        }
        return seen;
    }

    /** Faces in the order of their objects. */
    public List<FaceProof> faces() {
        return faces;
    }

    /** About how large its cells are, in metres. */
    public double cellM() {
        return cellM;
    }

    /** Share of all that is to be seen that is given enough, by area, 0..1. */
    public double share() {
        return share(FaceAdequacy.ENOUGH);
    }

    /** Share of all that is to be seen that is judged so. */
    public double share(FaceAdequacy so) {
        double all = faces.stream().mapToDouble(FaceProof::areaM2).sum();
        double judged = faces.stream()
                .mapToDouble(face -> face.cells(so) * face.face().cellM2())
                .sum();
        return all == 0 ? 0 : judged / all;
    }

    /** Area that is to be seen, in square metres. */
    public double areaM2() {
        return faces.stream().mapToDouble(FaceProof::areaM2).sum();
    }

    /**
     * Neighbouring cells of a face that lack the same.
     *
     * @param lack what
     * @param areaM2 of them
     * @param alongM of its middle from the left edge of the face
     * @param downM of its middle from the upper edge
     * @param photos of the cell that fewest photos see
     */
    public record Spot(FaceProof face, FaceAdequacy lack, double areaM2, double alongM, double downM, int photos) {}

    /** The largest weak spots of all faces, the largest first; specks are left out. */
    public List<Spot> spots() {
        List<Spot> spots = new ArrayList<>();
        for (FaceProof face : faces) {
            spotsOf(face, spots);
        }
        double least = Math.max(LEAST_SPOT_M2, 0.001 * areaM2());
        return spots.stream()
                .filter(spot ->
                        spot.areaM2() >= Math.min(least, 0.2 * spot.face().areaM2()))
                .sorted(Comparator.comparingDouble(Spot::areaM2).reversed())
                .limit(MOST_SPOTS)
                .toList();
    }

    private static void spotsOf(FaceProof face, List<Spot> spots) {
        FaceAdequacy[] verdicts = face.verdicts();
        int columns = face.face().columns();
        boolean[] done = new boolean[verdicts.length];
        for (int start = 0; start < verdicts.length; start++) {
            if (done[start] || !verdicts[start].asked() || verdicts[start] == FaceAdequacy.ENOUGH) {
                continue;
            }
            Deque<Integer> open = new ArrayDeque<>(List.of(start));
            done[start] = true;
            double along = 0;
            double down = 0;
            int cells = 0;
            int photos = Integer.MAX_VALUE;
            while (!open.isEmpty()) {
                int at = open.pop();
                cells++;
                along += at % columns + 0.5;
                down += at / columns + 0.5;
                photos = Math.min(photos, face.proof().counts()[at]);
                for (int next : neighbours(at, columns, verdicts.length)) {
                    if (!done[next] && verdicts[next] == verdicts[start]) {
                        done[next] = true;
                        open.push(next);
                    }
                }
            }
            spots.add(new Spot(
                    face,
                    verdicts[start],
                    cells * face.face().cellM2(),
                    along / cells / columns * face.face().wideM(),
                    down / cells / face.face().rows() * face.face().highM(),
                    photos));
        }
    }

    private static int[] neighbours(int at, int columns, int cells) {
        int column = at % columns;
        return Arrays.stream(new int[] {
                    column > 0 ? at - 1 : -1, column + 1 < columns ? at + 1 : -1, at - columns, at + columns
                })
                .filter(next -> next >= 0 && next < cells)
                .toArray();
    }
}
