package yalos.web.proof;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.proof.Adequacy;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** What the sheet can show of a proof, cell by cell: figures in evenly spaced classes, or the judgement. */
enum ProofLayer {
    ADEQUATE("adequate or not", Kind.JUDGEMENT),
    COUNT("photos", Kind.COUNT),
    COUNT_WITHOUT("photos if nothing stood between", Kind.COUNT),
    STRIPS("strips it is seen from", Kind.COUNT),
    GSD("best GSD", Kind.GSD),
    GSD_MEAN("mean GSD", Kind.GSD),
    ANGLE("largest angle between rays", Kind.ANGLE),
    FORWARD("real forward overlap", Kind.SHARE),
    SIDE("real side overlap", Kind.SHARE),
    SIGMA_H("expected accuracy of position", Kind.LENGTH),
    SIGMA_Z("expected accuracy of height", Kind.LENGTH);

    /** How figures of a layer read. */
    enum Kind {
        JUDGEMENT,
        COUNT,
        GSD,
        ANGLE,
        SHARE,
        LENGTH
    }

    private static final int CLASSES = 6;
    /** cividis, for figures where more is better; read backwards where less is. */
    private static final int[] CIVIDIS = {0x00224e, 0x35456c, 0x666970, 0x948e77, 0xc8b866, 0xfee838};

    private static final int[] VERDICTS = {
        0xd9d2c0, 0x8c1d40, 0x5e3c99, 0xb35806, 0x1f5673, 0x00796b, 0x7a5c00, 0x8d8d8d
    };

    private final String words;
    private final Kind kind;

    ProofLayer(String words, Kind kind) {
        this.words = words;
        this.kind = kind;
    }

    public String words() {
        return words;
    }

    /** Name in addresses. */
    public String key() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    static Optional<ProofLayer> ofKey(String key) {
        return Arrays.stream(values()).filter(layer -> layer.key().equals(key)).findFirst();
    }

    /** The figure of a cell in SI; not a number where there is none. */
    float cell(Judgement judgement, int at) {
        GroundProof proof = judgement.proof();
        Adequacy judged = judgement.at(at);
        if (judged == Adequacy.OUTSIDE || !judged.known() && this != ADEQUATE) {
            return Float.NaN;
        }
        float strips = proof.stripCounts()[at];
        return switch (this) {
            case ADEQUATE -> judged.ordinal();
            case COUNT -> proof.counts()[at];
            case COUNT_WITHOUT -> proof.countsWithoutOcclusion()[at];
            case STRIPS -> strips;
            case GSD -> proof.gsdBestM()[at];
            case GSD_MEAN -> proof.gsdMeanM()[at];
            case ANGLE -> proof.anglesRad()[at];
            case FORWARD -> strips == 0 ? Float.NaN : 1 - strips / proof.counts()[at];
            case SIDE -> strips == 0 ? Float.NaN : 1 - 1 / strips;
            case SIGMA_H -> proof.sigmaHorizontalM()[at];
            case SIGMA_Z -> proof.sigmaVerticalM()[at];
        };
    }

    /**
     * A class of the legend.
     *
     * @param from least figure of it, SI
     * @param share of the block, 0..1
     * @param hatched whether it is less than asked
     */
    record Band(double from, double to, String label, int rgb, double share, boolean hatched) {
        public String colour() {
            return String.format("#%06x", rgb);
        }
    }

    /** The classes of this layer on one proof, with the share of the block in each. */
    List<Band> bands(Judgement judgement, UnitChoice units) {
        GroundProof proof = judgement.proof();
        int cells = proof.columns() * proof.rows();
        float[] values = new float[cells];
        int known = 0;
        int inside = 0;
        for (int at = 0; at < cells; at++) {
            inside += judgement.at(at) == Adequacy.OUTSIDE ? 0 : 1;
            float value = cell(judgement, at);
            if (!Float.isNaN(value)) {
                values[known++] = value;
            }
        }
        float[] sorted = Arrays.copyOf(values, known);
        Arrays.sort(sorted);
        if (kind == Kind.JUDGEMENT) {
            return verdicts(judgement);
        }
        if (known == 0) {
            return List.of();
        }
        double[] edges =
                edges(sorted[(int) (known * 0.01)], sorted[(int) Math.min(known - 1.0, known * 0.99)], judgement);
        List<Band> bands = new ArrayList<>();
        for (int i = 0; i + 1 < edges.length; i++) {
            double from = i == 0 ? Double.NEGATIVE_INFINITY : edges[i];
            double to = i + 2 == edges.length ? Double.POSITIVE_INFINITY : edges[i + 1];
            long count = count(sorted, from, to);
            int colour =
                    lessIsBetter() ? CIVIDIS.length - 1 - scaled(i, edges.length - 1) : scaled(i, edges.length - 1);
            boolean few = this == COUNT && edges[i] < judgement.asked().photos();
            bands.add(new Band(from, to, label(edges, i, units), CIVIDIS[colour], (double) count / inside, few));
        }
        return bands;
    }

    private static int scaled(int i, int classes) {
        return (int) Math.round((double) i * (CIVIDIS.length - 1) / Math.max(1, classes - 1));
    }

    private boolean lessIsBetter() {
        return kind == Kind.GSD || kind == Kind.LENGTH;
    }

    private static long count(float[] sorted, double from, double to) {
        long count = 0;
        for (float value : sorted) {
            count += value >= from && value < to ? 1 : 0;
        }
        return count;
    }

    private double[] edges(double least, double most, Judgement judgement) {
        if (kind == Kind.COUNT) {
            int asked =
                    this == COUNT || this == COUNT_WITHOUT ? judgement.asked().photos() : 2;
            int top = (int) Math.max(asked + 1, Math.ceil(most));
            int step = Math.max(1, (int) Math.ceil((top - asked) / 4.0));
            List<Double> edges = new ArrayList<>(List.of(0.0, Math.max(1, Math.ceil(asked / 2.0)), (double) asked));
            for (double edge = asked + step; edge <= top; edge += step) {
                edges.add(edge);
            }
            edges.add(Double.POSITIVE_INFINITY);
            return edges.stream()
                    .mapToDouble(Double::doubleValue)
                    .distinct()
                    .sorted()
                    .toArray();
        }
        double span = Math.max(most - least, Math.abs(most) * 1e-3 + 1e-6);
        double[] edges = new double[CLASSES + 1];
        for (int i = 0; i <= CLASSES; i++) {
            edges[i] = least + span * i / CLASSES;
        }
        return edges;
    }

    private String label(double[] edges, int i, UnitChoice units) {
        if (kind == Kind.COUNT) {
            long from = Math.round(edges[i]);
            boolean last = i + 2 == edges.length;
            long to = last ? 0 : Math.round(edges[i + 1]) - 1;
            return last ? from + " and more" : from == to ? String.valueOf(from) : from + "–" + to;
        }
        if (i == 0) {
            return "below " + text(edges[1], units);
        }
        return i + 2 == edges.length
                ? text(edges[i], units) + " and over"
                : text(edges[i], units) + " to " + text(edges[i + 1], units);
    }

    /** A figure of this layer in the operator's unit. */
    String text(double si, UnitChoice units) {
        if (Double.isNaN(si)) {
            return "–";
        }
        return switch (kind) {
            case JUDGEMENT -> Adequacy.values()[(int) si].words();
            case COUNT -> String.valueOf(Math.round(si));
            case GSD, LENGTH -> units.text(UnitKind.GSD, si);
            case ANGLE -> Math.round(Math.toDegrees(si)) + "°";
            case SHARE -> Math.round(si * 100) + " %";
        };
    }

    private static List<Band> verdicts(Judgement judgement) {
        List<Band> bands = new ArrayList<>();
        for (Adequacy lack : Adequacy.values()) {
            if (lack != Adequacy.OUTSIDE && (lack != Adequacy.UNKNOWN || judgement.share(lack) > 0)) {
                bands.add(new Band(
                        lack.ordinal(),
                        lack.ordinal() + 1.0,
                        lack.words(),
                        VERDICTS[lack.ordinal()],
                        judgement.share(lack),
                        lack != Adequacy.ENOUGH));
            }
        }
        return bands;
    }
}
