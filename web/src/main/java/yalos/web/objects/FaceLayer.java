package yalos.web.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.proof.FaceAdequacy;
import yalos.core.proof.FaceProof;
import yalos.core.proof.StructureProof;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** What the elevation view can show of the faces, cell by cell. */
enum FaceLayer {
    ADEQUATE("adequate or not"),
    COUNT("photos"),
    COUNT_WITHOUT("photos if nothing stood between"),
    GSD("best GSD"),
    GSD_MEAN("mean GSD"),
    INCIDENCE("squarest view, from square"),
    ANGLE("largest angle between rays"),
    SIGMA("expected accuracy");

    /** cividis, as on the ground: dark is less. */
    private static final int[] CIVIDIS = {0x00224e, 0x35456c, 0x666970, 0x948e77, 0xc8b866, 0xfee838};

    private static final int[] VERDICTS = {0xd9d2c0, 0x8c1d40, 0x5e3c99, 0x1f5673, 0xb35806, 0x00796b, 0xffffff};
    private static final double[] DEGREES = {0, 15, 30, 45, 60, 90, 181};

    private final String words;

    FaceLayer(String words) {
        this.words = words;
    }

    String words() {
        return words;
    }

    String key() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    static Optional<FaceLayer> ofKey(String key) {
        return Arrays.stream(values()).filter(layer -> layer.key().equals(key)).findFirst();
    }

    /**
     * A class of the legend.
     *
     * @param from in SI, held
     * @param to not held
     * @param hatched less than is asked
     */
    record Band(double from, double to, String label, int rgb, boolean hatched) {
        public String colour() {
            return "#%06x".formatted(rgb);
        }
    }

    /** The figure of a cell in SI; not a number where there is none. */
    double cell(FaceProof face, int at) {
        FaceAdequacy verdict = face.verdicts()[at];
        if (!verdict.asked()) {
            return Double.NaN;
        }
        return switch (this) {
            case ADEQUATE -> verdict.ordinal();
            case COUNT -> face.proof().counts()[at];
            case COUNT_WITHOUT -> face.proof().countsWithoutOcclusion()[at];
            case GSD -> face.proof().gsdBestM()[at];
            case GSD_MEAN -> face.proof().gsdMeanM()[at];
            case INCIDENCE -> face.proof().incidenceRad()[at];
            case ANGLE -> face.proof().anglesRad()[at];
            case SIGMA -> face.sigmaM(at);
        };
    }

    String text(double si, UnitChoice units) {
        if (Double.isNaN(si) || Double.isInfinite(si)) {
            return "–";
        }
        return switch (this) {
            case ADEQUATE -> FaceAdequacy.values()[(int) si].words();
            case COUNT, COUNT_WITHOUT -> String.valueOf(Math.round(si));
            case GSD, GSD_MEAN, SIGMA -> units.text(UnitKind.GSD, si);
            case INCIDENCE, ANGLE -> Math.round(Math.toDegrees(si)) + "°";
        };
    }

    /**
     * Classes of all faces together, so that one legend serves them.
     *
     * @param asked photos of every place
     */
    List<Band> bands(StructureProof proof, int asked, UnitChoice units) {
        return switch (this) {
            case ADEQUATE -> verdicts(proof);
            case COUNT, COUNT_WITHOUT -> counts(proof, asked);
            case INCIDENCE, ANGLE -> degrees(proof);
            default -> lengths(proof, units);
        };
    }

    private static List<Band> verdicts(StructureProof proof) {
        List<Band> bands = new ArrayList<>();
        for (FaceAdequacy one : FaceAdequacy.values()) {
            if (one == FaceAdequacy.ENOUGH || one.asked() && proof.share(one) > 0) {
                bands.add(new Band(
                        one.ordinal(),
                        one.ordinal() + 1.0,
                        one.words(),
                        VERDICTS[one.ordinal()],
                        one != FaceAdequacy.ENOUGH));
            }
        }
        return bands;
    }

    private double[] range(StructureProof proof) {
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (FaceProof face : proof.faces()) {
            for (int at = 0; at < face.verdicts().length; at++) {
                double value = cell(face, at);
                if (Double.isFinite(value)) {
                    least = Math.min(least, value);
                    most = Math.max(most, value);
                }
            }
        }
        return new double[] {least, most};
    }

    private List<Band> counts(StructureProof proof, int asked) {
        double most = range(proof)[1];
        List<Integer> edges = new ArrayList<>(List.of(0, 1, asked, 2 * asked, 4 * asked, 8 * asked));
        edges.removeIf(edge -> edge > most && edge > asked);
        List<Integer> distinct = edges.stream().distinct().sorted().toList();
        List<Band> bands = new ArrayList<>();
        for (int i = 0; i < distinct.size(); i++) {
            int from = distinct.get(i);
            boolean last = i + 1 == distinct.size();
            int to = last ? Integer.MAX_VALUE : distinct.get(i + 1);
            String label = last ? from + " and more" : to - from == 1 ? "" + from : from + "–" + (to - 1);
            bands.add(new Band(from, to, label, shade(i, distinct.size()), from < asked));
        }
        return bands;
    }

    private List<Band> degrees(StructureProof proof) {
        double most = Math.toDegrees(range(proof)[1]);
        List<Band> bands = new ArrayList<>();
        for (int i = 0; i + 1 < DEGREES.length && (i == 0 || DEGREES[i] <= most); i++) {
            boolean last = i + 2 == DEGREES.length || DEGREES[i + 1] > most;
            String label = last
                    ? "%.0f° and over".formatted(DEGREES[i])
                    : "%.0f° to %.0f°".formatted(DEGREES[i], DEGREES[i + 1]);
            int colour = this == INCIDENCE
                    ? shade(DEGREES.length - 2 - i, DEGREES.length - 1)
                    : shade(i, DEGREES.length - 1);
            bands.add(new Band(
                    Math.toRadians(DEGREES[i]),
                    last ? 7 : Math.toRadians(DEGREES[i + 1]),
                    label,
                    colour,
                    this == INCIDENCE && DEGREES[i] >= 60));
        }
        return bands;
    }

    private List<Band> lengths(StructureProof proof, UnitChoice units) {
        double[] range = range(proof);
        if (!(range[1] > 0)) {
            return List.of();
        }
        List<Band> bands = new ArrayList<>();
        int classes = 5;
        double wide = Math.max(1e-6, (range[1] - range[0]) / classes);
        for (int i = 0; i < classes; i++) {
            double from = range[0] + i * wide;
            boolean last = i + 1 == classes;
            String label = last
                    ? units.text(UnitKind.GSD, from) + " and over"
                    : (i == 0 ? "below " : units.text(UnitKind.GSD, from) + " to ")
                            + units.text(UnitKind.GSD, from + wide);
            bands.add(new Band(
                    i == 0 ? 0 : from,
                    last ? Double.POSITIVE_INFINITY : from + wide,
                    label,
                    shade(classes - 1 - i, classes),
                    false));
        }
        return bands;
    }

    private static int shade(int at, int of) {
        return CIVIDIS[of <= 1 ? CIVIDIS.length - 1 : Math.round((float) at * (CIVIDIS.length - 1) / (of - 1))];
    }

    /** The colour of a cell with its hatch; 0 for what is not to be seen. */
    static int argb(List<Band> bands, double value, boolean stroke) {
        if (Double.isNaN(value)) {
            return 0;
        }
        for (Band band : bands) {
            if (value >= band.from() && value < band.to()) {
                return 0xff000000 | (band.hatched() && stroke ? 0xffffff : band.rgb());
            }
        }
        return 0;
    }
}
