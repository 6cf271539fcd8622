package yalos.core.proof;

import java.util.OptionalDouble;
import yalos.core.site.Structure;
import yalos.core.site.Structure.Built;
import yalos.core.surface.PrismFace;

/**
 * What photos give to one face of an object, cell by cell.
 *
 * @param number of the face in its block, from 1
 * @param built the solid whose it is
 * @param key its name among the faces of its object, such as {@code 1.3}
 * @param face its cells
 * @param asked of each of its places
 * @param proof what each is given; places that are not to be seen are left out
 * @param verdicts on each cell, row by row
 */
public record FaceProof(
        int number, Built built, String key, PrismFace face, Asked asked, SurfaceProof proof, FaceAdequacy[] verdicts) {
    /** Seen at more than this from square, a face is foreshortened to half (common practice). */
    public static final double MOST_INCIDENCE_RAD = Math.toRadians(60);
    /** One view alone must be squarer: there a square becomes one of 1 to 0.87. */
    public static final double SQUARE_RAD = Math.toRadians(30);
    /** Finer than the eye of a camera: no cell is refused for less. */
    private static final double GSD_TOLERANCE = 1.05;

    /**
     * What is asked of every place of a face.
     *
     * @param photos that see it; with {@code oneView} one is enough
     * @param gsdM of the photo that sees it finest
     * @param sigmaM accuracy along each axis, one standard deviation
     * @param oneView one square view is enough, nothing is reconstructed
     */
    public record Asked(int photos, OptionalDouble gsdM, OptionalDouble sigmaM, boolean oneView) {
        /** Photos that are enough. */
        public int least() {
            return oneView ? 1 : photos;
        }

        /** The most from square that the squarest view may be. */
        public double mostIncidenceRad() {
            return oneView ? SQUARE_RAD : MOST_INCIDENCE_RAD;
        }

        /** The coarsest GSD that is let pass; infinite where none is asked. */
        public double mostGsdM() {
            return gsdM.isPresent() ? gsdM.getAsDouble() * GSD_TOLERANCE : Double.POSITIVE_INFINITY;
        }

        /** The accuracy that is let pass; infinite where none is asked, or nothing is reconstructed. */
        public double mostSigmaM() {
            return oneView ? Double.POSITIVE_INFINITY : sigmaM.orElse(Double.POSITIVE_INFINITY);
        }
    }

    static FaceAdequacy judge(SurfaceProof proof, int at, Asked asked) {
        int photos = asked.least();
        if (proof.counts()[at] < photos) {
            return proof.countsWithoutOcclusion()[at] >= photos ? FaceAdequacy.HIDDEN : FaceAdequacy.TOO_FEW;
        }
        if (!(proof.incidenceRad()[at] <= asked.mostIncidenceRad())) {
            return FaceAdequacy.TOO_OBLIQUE;
        }
        if (!(proof.gsdBestM()[at] <= asked.mostGsdM())) {
            return FaceAdequacy.TOO_COARSE;
        }
        boolean measured = asked.mostSigmaM() < Double.POSITIVE_INFINITY;
        return measured && !(sigmaM(proof, at) <= asked.mostSigmaM()) ? FaceAdequacy.INACCURATE : FaceAdequacy.ENOUGH;
    }

    /** Expected accuracy of a place along its worst axis of plane and height, one standard deviation in metres. */
    static double sigmaM(SurfaceProof proof, int at) {
        return Math.max(proof.sigmaHorizontalM()[at] / Math.sqrt(2), proof.sigmaVerticalM()[at]);
    }

    /** The same of a cell. */
    public double sigmaM(int at) {
        return sigmaM(proof, at);
    }

    /** What the face is called: its kind, and its number or the way it faces. */
    public String words() {
        String part = built.object().parts().size() > 1 || built.pier() > 0
                ? (built.pier() > 0 ? "pier " + built.pier() : "part " + built.part()) + ", "
                : "";
        return part
                + switch (face.kind()) {
                    case ROOF -> built.kind() == Structure.Kind.DECK ? "top" : "roof";
                    case UNDERSIDE -> "underside";
                    case WALL -> "wall facing " + facing();
                };
    }

    private String facing() {
        double[] normal = new double[3];
        face.normal(0, 0, normal);
        double degrees = Math.toDegrees(Math.atan2(normal[0], normal[1]));
        String[] winds = {"N", "NE", "E", "SE", "S", "SW", "W", "NW"};
        return winds[Math.floorMod(Math.round((float) degrees / 45), 8)]
                + " (%d°)".formatted(Math.floorMod(Math.round(degrees), 360));
    }

    /** Cells that are to be seen. */
    public long cells() {
        long cells = 0;
        for (FaceAdequacy verdict : verdicts) {
            cells += verdict.asked() ? 1 : 0;
        }
        return cells;
    }

    /** How many cells are judged so. */
    public long cells(FaceAdequacy so) {
        long cells = 0;
        for (FaceAdequacy verdict : verdicts) {
            cells += verdict == so ? 1 : 0;
        }
        return cells;
    }

    /** Share of what is to be seen that is given enough, 0..1; of nothing all. */
    public double share() {
        long all = cells();
        return all == 0 ? 1 : (double) cells(FaceAdequacy.ENOUGH) / all;
    }

    /** Area that is to be seen, in square metres. */
    public double areaM2() {
        return cells() * face.cellM2();
    }
}
