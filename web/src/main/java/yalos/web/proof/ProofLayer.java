package yalos.web.proof;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.DoubleStream;
import yalos.core.block.LocalPlane;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Adequacy;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.Noise;
import yalos.core.terrain.GeoTiffWriter;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.RoundFigures;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** What the sheet can show of a proof, cell by cell: figures in evenly spaced classes, or the judgement. */
public enum ProofLayer {
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
    SIGMA_Z("expected accuracy of height", Kind.LENGTH),
    SIGMA_H_OWN("accuracy of position between neighbours, shared error left out", Kind.LENGTH),
    SIGMA_Z_OWN("accuracy of height between neighbours, shared error left out", Kind.LENGTH);

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
    private static final double LEAST_STEP = 0.01;
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

    public static Optional<ProofLayer> ofKey(String key) {
        return Arrays.stream(values()).filter(layer -> layer.key().equals(key)).findFirst();
    }

    /** The figure of a cell in SI; not a number where there is none. */
    public float cell(Judgement judgement, int at) {
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
            case SIGMA_H_OWN ->
                without(proof.sigmaHorizontalM()[at], shared(judgement).sharedHorizontalM() * Math.sqrt(2));
            case SIGMA_Z_OWN ->
                without(proof.sigmaVerticalM()[at], shared(judgement).sharedVerticalM());
        };
    }

    /** The layer as a GeoTIFF in the job's grid: lengths in metres, angles in degrees, shares 0..1. */
    public byte[] tiff(Judgement judgement, LocalPlane plane) throws IOException {
        HeightGrid grid = judgement.proof().grid();
        return GeoTiffWriter.overPlane(plane, grid, row -> {
            float[] line = new float[grid.columns()];
            for (int column = 0; column < line.length; column++) {
                float value = cell(judgement, row * grid.columns() + column);
                line[column] = this == ANGLE ? (float) Math.toDegrees(value) : value;
            }
            return line;
        });
    }

    private static Noise shared(Judgement judgement) {
        return PlanProof.noise(judgement.positioning());
    }

    private static float without(float sigmaM, double sharedM) {
        return (float) Math.sqrt(Math.max(0, sigmaM * sigmaM - sharedM * sharedM));
    }

    /** What is asked of this layer, SI: more is too much; empty where nothing is. */
    private OptionalDouble most(Judgement judgement) {
        Judgement.Asked asked = judgement.asked();
        return switch (this) {
            case GSD_MEAN ->
                asked.gsdM().isPresent()
                        ? OptionalDouble.of(asked.gsdM().getAsDouble() * Judgement.GSD_TOLERANCE)
                        : OptionalDouble.empty();
            case SIGMA_H ->
                asked.positionSigmaM().isPresent()
                        ? OptionalDouble.of(asked.positionSigmaM().getAsDouble() * Math.sqrt(2))
                        : OptionalDouble.empty();
            case SIGMA_Z -> asked.heightSigmaM();
            default -> OptionalDouble.empty();
        };
    }

    /**
     * A class of the legend.
     *
     * @param from least figure of it, SI
     * @param share of the block, 0..1
     * @param hatched whether it is less than asked
     */
    public record Band(double from, double to, String label, int rgb, double share, boolean hatched) {
        public String colour() {
            return String.format("#%06x", rgb);
        }
    }

    /** The classes of this layer on one proof, with the share of the block in each. */
    public List<Band> bands(Judgement judgement, UnitChoice units) {
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
        double[] edges = edges(
                sorted[(int) (known * 0.01)], sorted[(int) Math.min(known - 1.0, known * 0.99)], judgement, units);
        OptionalDouble most = most(judgement);
        List<Band> bands = new ArrayList<>();
        for (int i = 0; i + 1 < edges.length; i++) {
            double from = i == 0 ? Double.NEGATIVE_INFINITY : edges[i];
            double to = i + 2 == edges.length ? Double.POSITIVE_INFINITY : edges[i + 1];
            long count = count(sorted, from, to);
            double share = edges.length > 2 ? (double) i / (edges.length - 2) : 1;
            int colour = between(lessIsBetter() ? 1 - share : share);
            boolean few = this == COUNT && edges[i] < judgement.asked().photos()
                    || most.isPresent() && edges[i] >= most.getAsDouble() - 1e-9;
            bands.add(new Band(from, to, label(edges, i, units), colour, (double) count / inside, few));
        }
        return bands;
    }

    /** A colour of the scale, between its anchors in proportion. */
    private static int between(double share) {
        double at = share * (CIVIDIS.length - 1);
        int low = (int) Math.min(CIVIDIS.length - 2.0, Math.floor(at));
        int rgb = 0;
        for (int shift = 16; shift >= 0; shift -= 8) {
            int from = CIVIDIS[low] >> shift & 0xff;
            int to = CIVIDIS[low + 1] >> shift & 0xff;
            rgb |= (int) Math.round(from + (to - from) * (at - low)) << shift;
        }
        return rgb;
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

    private double[] edges(double least, double most, Judgement judgement, UnitChoice units) {
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
        Unit unit = unit(units);
        OptionalDouble limit = most(judgement);
        List<Double> edges = RoundFigures.limits(
                unit.ofSi(least),
                unit.ofSi(most),
                CLASSES,
                LEAST_STEP,
                limit.isPresent() ? unit.ofSi(limit.getAsDouble()) : Double.POSITIVE_INFINITY);
        return DoubleStream.concat(
                        DoubleStream.of(0, Double.POSITIVE_INFINITY),
                        edges.stream().mapToDouble(unit::toSi))
                .sorted()
                .toArray();
    }

    /** The unit its figures are read in. */
    private Unit unit(UnitChoice units) {
        return switch (kind) {
            case GSD, LENGTH -> units.unit(UnitKind.GSD);
            case ANGLE -> Unit.DEGREE;
            case SHARE -> Unit.PERCENT;
            case JUDGEMENT, COUNT -> Unit.COUNT;
        };
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
            if (lack == Adequacy.ENOUGH || lack != Adequacy.OUTSIDE && judgement.share(lack) > 0) {
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
