package yalos.web.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.ToDoubleFunction;
import yalos.core.proof.FaceAdequacy;
import yalos.core.proof.FaceProof;
import yalos.core.proof.StructureProof;
import yalos.core.units.RoundFigures;
import yalos.core.units.Unit;
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
    SIGMA("expected accuracy, shared error in it");

    /** cividis, as on the ground: dark is less. */
    private static final int[] CIVIDIS = {0x00224e, 0x35456c, 0x666970, 0x948e77, 0xc8b866, 0xfee838};

    private static final int[] VERDICTS = {0xd9d2c0, 0x8c1d40, 0x5e3c99, 0x1f5673, 0xb35806, 0x00796b, 0xffffff};
    private static final int CLASSES = 6;
    private static final double LEAST_STEP = 0.01;
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
     * Classes of all faces together, so that one legend serves them; hatched where it is less than is asked, as far as the same is asked of all.
     */
    List<Band> bands(StructureProof proof, UnitChoice units) {
        return switch (this) {
            case ADEQUATE -> verdicts(proof);
            case COUNT, COUNT_WITHOUT ->
                counts(proof, (int) common(proof, FaceProof.Asked::least).orElse(1));
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
            bands.add(new Band(from, to, label, shade(i, distinct.size()), this == COUNT && from < asked));
        }
        return bands;
    }

    private List<Band> degrees(StructureProof proof) {
        double most = Math.toDegrees(range(proof)[1]);
        double oblique =
                Math.toDegrees(common(proof, FaceProof.Asked::mostIncidenceRad).orElse(FaceProof.MOST_INCIDENCE_RAD));
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
                    this == INCIDENCE && DEGREES[i] >= oblique));
        }
        return bands;
    }

    private List<Band> lengths(StructureProof proof, UnitChoice units) {
        double[] range = range(proof);
        if (!(range[1] > 0)) {
            return List.of();
        }
        Unit unit = units.unit(UnitKind.GSD);
        OptionalDouble most = switch (this) {
            case GSD -> common(proof, FaceProof.Asked::mostGsdM);
            case SIGMA -> common(proof, FaceProof.Asked::mostSigmaM);
            default -> OptionalDouble.empty();
        };
        double asked = unit.ofSi(most.orElse(Double.POSITIVE_INFINITY));
        List<Double> limits =
                RoundFigures.limits(unit.ofSi(range[0]), unit.ofSi(range[1]), CLASSES - 1, LEAST_STEP, asked);
        List<Band> bands = new ArrayList<>();
        for (int i = 0; i <= limits.size(); i++) {
            double from = i == 0 ? 0 : unit.toSi(limits.get(i - 1));
            double to = i == limits.size() ? Double.POSITIVE_INFINITY : unit.toSi(limits.get(i));
            String label = i == 0
                    ? "below " + units.text(UnitKind.GSD, to)
                    : i == limits.size()
                            ? units.text(UnitKind.GSD, from) + " and over"
                            : units.text(UnitKind.GSD, from) + " to " + units.text(UnitKind.GSD, to);
            boolean hatched = i > 0 && limits.get(i - 1) >= asked - 1e-12;
            bands.add(new Band(from, to, label, shade(limits.size() - i, limits.size() + 1), hatched));
        }
        return bands;
    }

    /** What is asked of all faces, where it is the same; empty where it differs. */
    private static OptionalDouble common(StructureProof proof, ToDoubleFunction<FaceProof.Asked> figure) {
        double[] all = proof.faces().stream()
                .map(FaceProof::asked)
                .mapToDouble(figure)
                .distinct()
                .toArray();
        return all.length == 1 ? OptionalDouble.of(all[0]) : OptionalDouble.empty();
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
