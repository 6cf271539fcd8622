package yalos.core.pattern;

import java.util.Arrays;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.PlanePoint;

/**
 * From where to where must each strip run so that its band of ground is covered end to end?
 *
 * <p>The block is cut into bands as wide as the strip spacing, square to the direction, centred on the block. A strip
 * runs along the middle of its band and reaches as far as the block does <em>anywhere</em> in the band, so that slanted and
 * concave edges are covered without a margin. The reach is the shadow of block and band on the strip: the shadows of the
 * outline's pieces within the band, joined with the inside of the block along the band's lower edge (a place of which the
 * outline touches nothing in the band lies inside along its whole width, so also there).
 *
 * <p>Directions are radians clockwise from grid north; {@code along} grows in the direction, {@code across} to its right.
 * One sweep may be used again for other directions; it is not for several threads.
 */
final class BandSweep {
    private static final int MOST_BANDS = 200_000;
    private static final double HAIR = 1e-9;
    /** So few pieces of a band are kept in order as they come; more are sorted once. */
    private static final int FEW = 24;

    private final double[][] rings;
    private final double spacingM;
    /** Gaps shorter than this are flown and photographed through. */
    private final double bridgeM;

    private double sin;
    private double cos;
    private double firstEdge;
    private int bands;
    private double[][] reaches = new double[0][];
    private int[] counts = new int[0];
    private double[][] cuts = new double[0][];
    private int[] cutCounts = new int[0];

    /**
     * @param rings of the block, x and y in turn, metres
     */
    BandSweep(double[][] rings, double spacingM, double bridgeM) {
        this.rings = rings;
        this.spacingM = spacingM;
        this.bridgeM = bridgeM;
    }

    /** Sweeps in a direction; afterwards the other methods answer for it. */
    void sweep(double directionRad) {
        sin = Math.sin(directionRad);
        cos = Math.cos(directionRad);
        layBands();
        for (double[] ring : rings) {
            int last = ring.length - 2;
            double along = along(ring[last], ring[last + 1]);
            double across = across(ring[last], ring[last + 1]);
            for (int i = 0; i < ring.length; i += 2) {
                double nextAlong = along(ring[i], ring[i + 1]);
                double nextAcross = across(ring[i], ring[i + 1]);
                addEdge(along, across, nextAlong, nextAcross);
                along = nextAlong;
                across = nextAcross;
            }
        }
        for (int band = 0; band < bands; band++) {
            addInsides(band);
            join(band);
        }
    }

    int bands() {
        return bands;
    }

    /** Number of separate strips in a band. */
    int strips(int band) {
        return counts[band];
    }

    /** Where a strip starts, in metres along. */
    double from(int band, int strip) {
        return reaches[band][2 * strip];
    }

    /** Where a strip ends, in metres along. */
    double to(int band, int strip) {
        return reaches[band][2 * strip + 1];
    }

    /** The middle of a band, in metres across. */
    double middle(int band) {
        return firstEdge + (band + 0.5) * spacingM;
    }

    /** The place so far along the middle of a band. */
    PlanePoint point(double along, int band) {
        double across = middle(band);
        return new PlanePoint(along * sin + across * cos, along * cos - across * sin);
    }

    private double along(double x, double y) {
        return x * sin + y * cos;
    }

    private double across(double x, double y) {
        return x * cos - y * sin;
    }

    private void layBands() {
        double least = Double.MAX_VALUE;
        double most = -Double.MAX_VALUE;
        for (double[] ring : rings) {
            for (int i = 0; i < ring.length; i += 2) {
                double across = across(ring[i], ring[i + 1]);
                least = Math.min(least, across);
                most = Math.max(most, across);
            }
        }
        double wanted = Math.max(1, Math.ceil((most - least) / spacingM - HAIR));
        if (wanted > MOST_BANDS) {
            throw new InputFault(
                    "stations",
                    "%.0f strips".formatted(wanted),
                    "This would make %.0f strips; %d are the most. Fly higher, ask for a coarser GSD or a lower overlap, or split the block."
                            .formatted(wanted, MOST_BANDS));
        }
        bands = (int) wanted;
        firstEdge = (least + most - bands * spacingM) / 2;
        if (reaches.length < bands) {
            reaches = Arrays.copyOf(reaches, bands);
            cuts = Arrays.copyOf(cuts, bands);
            counts = new int[bands];
            cutCounts = new int[bands];
        }
        Arrays.fill(counts, 0, bands, 0);
        Arrays.fill(cutCounts, 0, bands, 0);
    }

    private int bandOf(double across) {
        int band = (int) Math.floor((across - firstEdge) / spacingM);
        return Math.max(0, Math.min(bands - 1, band));
    }

    private void addEdge(double along1, double across1, double along2, double across2) {
        if (across1 > across2) {
            addEdge(along2, across2, along1, across1);
            return;
        }
        double rise = across2 - across1;
        double slope = rise > 0 ? (along2 - along1) / rise : 0;
        int first = bandOf(across1);
        int last = bandOf(across2);
        for (int band = first; band <= last; band++) {
            double low = firstEdge + band * spacingM;
            double high = low + spacingM;
            double start = band == first ? along1 : along1 + (low - across1) * slope;
            double end = band == last ? along2 : along1 + (high - across1) * slope;
            addReach(band, Math.min(start, end), Math.max(start, end));
            if (across1 <= low && low < across2) {
                addCut(band, along1 + (low - across1) * slope);
            }
        }
    }

    private void addReach(int band, double from, double to) {
        double[] reach = reaches[band];
        int at = 2 * counts[band]++;
        if (reach == null || reach.length < at + 2) {
            reach = reach == null ? new double[16] : Arrays.copyOf(reach, 2 * reach.length);
            reaches[band] = reach;
        }
        while (at > 0 && at < 2 * FEW && reach[at - 2] > from) {
            reach[at] = reach[at - 2];
            reach[at + 1] = reach[at - 1];
            at -= 2;
        }
        reach[at] = from;
        reach[at + 1] = to;
    }

    /**
     * Puts pairs in the order of their starts, those within a millionth of a millimetre in any. The number of a pair rides in the lowest bits
     * of its start, so that plain numbers are sorted.
     */
    private static void sort(double[] pairs, int count) {
        double[] unordered = Arrays.copyOf(pairs, 2 * count);
        int bits = Long.SIZE - Long.numberOfLeadingZeros(count);
        long number = (1L << bits) - 1;
        long[] keys = new long[count];
        for (int i = 0; i < count; i++) {
            long start = Double.doubleToLongBits(unordered[2 * i]);
            long ordered = start ^ (start >> 63 & Long.MAX_VALUE);
            keys[i] = ordered & ~number | i;
        }
        Arrays.sort(keys);
        for (int i = 0; i < count; i++) {
            int from = 2 * (int) (keys[i] & number);
            pairs[2 * i] = unordered[from];
            pairs[2 * i + 1] = unordered[from + 1];
        }
    }

    private void addCut(int band, double along) {
        double[] cut = cuts[band];
        int at = cutCounts[band]++;
        if (cut == null || cut.length <= at) {
            cut = cut == null ? new double[8] : Arrays.copyOf(cut, 2 * cut.length);
            cuts[band] = cut;
        }
        cut[at] = along;
    }

    private void addInsides(int band) {
        if (cutCounts[band] > 1) {
            Arrays.sort(cuts[band], 0, cutCounts[band]);
        }
        for (int i = 0; i + 1 < cutCounts[band]; i += 2) {
            addReach(band, cuts[band][i], cuts[band][i + 1]);
        }
    }

    /** Joins reaches that overlap or lie closer than the bridge; they are in order of their starts. */
    private void join(int band) {
        double[] reach = reaches[band];
        if (counts[band] > FEW) {
            sort(reach, counts[band]);
        }
        int kept = 0;
        for (int i = 0; i < counts[band]; i++) {
            if (kept > 0 && reach[2 * i] - reach[2 * kept - 1] <= bridgeM) {
                reach[2 * kept - 2] = Math.min(reach[2 * kept - 2], reach[2 * i]);
                reach[2 * kept - 1] = Math.max(reach[2 * kept - 1], reach[2 * i + 1]);
            } else {
                reach[2 * kept] = reach[2 * i];
                reach[2 * kept + 1] = reach[2 * i + 1];
                kept++;
            }
        }
        counts[band] = kept;
    }
}
