package yalos.core.proof;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CancellationException;
import yalos.core.flight.Exposure;
import yalos.core.surface.Occluder;
import yalos.core.surface.Surface;

/**
 * What every cell of a surface is given by a set of photos.
 *
 * <p>Every cell is projected into every photo near it by the pinhole model, without distortion, and is seen where nothing stands between.
 * A one-sided surface is seen from its front. The surface is worked through in tiles, each with the few photos that can see it, on all
 * processors. Work grows with what is seen, memory with the cells: 2 bytes a cell for each count, 4 for each other layer.
 *
 * <pre>{@code
 * SurfaceProof wall = SurfaceProof.of(Face.of(house, Face.Side.FRONT, 0.5), new boolean[0],
 *         new SolidOccluder(houses), photos, Noise.ofImage(0.5), new Scope(Set.of(Layer.GSD)), share -> true);
 * }</pre>
 */
public final class SurfaceProof {
    /** What can be asked for. Photos with what stands in the way are always counted. */
    public enum Layer {
        /** Photos that would see the cell if nothing stood in the way. */
        COUNT_WITHOUT_OCCLUSION,
        /** Best and mean GSD: depth × pitch / focal length, in metres; the mean of the main pass alone where that sees the cell. */
        GSD,
        /** Largest angle between two rays that see the cell, in radians. */
        ANGLE,
        /** Lines from which the cell is seen, each counted once whatever the order of the photos. */
        STRIPS,
        /** Expected accuracy by {@link Intersection}, shared errors added. */
        ACCURACY,
        /** Smallest angle between the cell's normal and a ray that sees it, in radians; asked of walls rather than of ground. */
        INCIDENCE;

        /** All that is shown of ground. */
        public static Set<Layer> ofGround() {
            return EnumSet.complementOf(EnumSet.of(INCIDENCE));
        }
    }

    /**
     * What is looked for.
     *
     * @param enough photos that are asked for of a cell: with so many from near, those from much farther off do not count in its mean GSD
     */
    public record Scope(Set<Layer> layers, int enough) {
        /** With the mean GSD of all photos. */
        public Scope(Set<Layer> layers) {
            this(layers, Integer.MAX_VALUE);
        }
    }

    /** Told how the work goes; may call it off. */
    public interface Watcher {
        /**
         * @param share of the work that is done, 0..1
         * @return whether to go on
         */
        boolean goOn(double share);
    }

    final short[] counts;
    final short[] countsWithout;
    final float[] gsdBest;
    final float[] gsdMean;
    final float[] angles;
    final short[] lines;
    final float[] sigmaHorizontal;
    final float[] sigmaVertical;
    final float[] incidence;

    private SurfaceProof(int cells, Set<Layer> layers) {
        counts = new short[cells];
        countsWithout = new short[layers.contains(Layer.COUNT_WITHOUT_OCCLUSION) ? cells : 0];
        gsdBest = new float[layers.contains(Layer.GSD) ? cells : 0];
        gsdMean = new float[layers.contains(Layer.GSD) ? cells : 0];
        angles = new float[layers.contains(Layer.ANGLE) ? cells : 0];
        lines = new short[layers.contains(Layer.STRIPS) ? cells : 0];
        sigmaHorizontal = new float[layers.contains(Layer.ACCURACY) ? cells : 0];
        sigmaVertical = new float[layers.contains(Layer.ACCURACY) ? cells : 0];
        incidence = new float[layers.contains(Layer.INCIDENCE) ? cells : 0];
    }

    /**
     * @param surface in the frame of the poses
     * @param asked cells that are asked for, row by row; empty for all
     * @param occluder what stands in the way
     * @param photos in any order, each through its own lens
     * @param watcher told after each tile
     * @throws CancellationException when the watcher called it off
     */
    public static SurfaceProof of(
            Surface surface,
            boolean[] asked,
            Occluder occluder,
            List<Exposure> photos,
            Noise noise,
            Scope scope,
            Watcher watcher) {
        SurfaceProof proof = new SurfaceProof(surface.columns() * surface.rows(), scope.layers());
        new ProofRun(proof, surface, asked, occluder, photos, noise, scope.enough(), watcher).run();
        return proof;
    }

    /** Photos that see each cell, row by row as the surface has them; so are all layers. */
    public short[] counts() {
        return counts;
    }

    /** Photos that would see each cell if nothing stood in the way. */
    public short[] countsWithoutOcclusion() {
        return countsWithout;
    }

    /** GSD of the photo that sees a cell finest, in metres; not a number where none does. */
    public float[] gsdBestM() {
        return gsdBest;
    }

    /** Mean GSD of the photos that see a cell, without those from much farther off where {@linkplain Scope#enough() enough} see it from near, in metres; not a number where none does. */
    public float[] gsdMeanM() {
        return gsdMean;
    }

    /** Largest angle between two rays that see a cell, in radians; not a number below two. */
    public float[] anglesRad() {
        return angles;
    }

    /** Lines from which each cell is seen. */
    public short[] lineCounts() {
        return lines;
    }

    /** Expected accuracy of a position in the plane, √(σe² + σn²), in metres; not a number where the rays fix none. */
    public float[] sigmaHorizontalM() {
        return sigmaHorizontal;
    }

    /** Expected accuracy of a height, one standard deviation in metres; not a number where the rays fix none. */
    public float[] sigmaVerticalM() {
        return sigmaVertical;
    }

    /** Smallest angle between a cell's normal and a ray that sees it, in radians; not a number where none does. */
    public float[] incidenceRad() {
        return incidence;
    }
}
