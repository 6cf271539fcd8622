package yalos.web.sheet;

import java.util.ArrayList;
import java.util.List;

/**
 * The classes in which photo counts are coloured: cividis, evenly spaced, which people of all colour vision read alike
 * (Nuñez, Anderton and Renslow 2018, from memory). Classes below what was asked are hatched besides, so that colour is
 * never the only sign.
 *
 * @param from fewest photos of the class
 * @param to most photos of the class; {@link Integer#MAX_VALUE} for the last
 * @param rgb its colour
 * @param tooFew whether it is below what was asked
 */
public record CoverageScale(int from, int to, int rgb, boolean tooFew) {
    private static final int CLASSES_ABOVE = 4;
    private static final int[] CIVIDIS = {
        0x00224e, 0x123570, 0x3b496c, 0x575d6d, 0x707173, 0x8a8678, 0xa59c74, 0xc3b369, 0xe1cc55, 0xfee838
    };

    /** The classes for a count that asks for {@code asked} photos and reaches {@code most}. */
    public static List<CoverageScale> classes(int asked, int most) {
        List<Integer> starts = new ArrayList<>(List.of(0, 1));
        if (asked > 2) {
            starts.add((asked + 1) / 2);
        }
        starts.add(asked);
        int step = Math.max(1, (int) Math.ceil((most - asked) / (double) CLASSES_ABOVE));
        for (int start = asked + step; start <= most; start += step) {
            starts.add(start);
        }
        List<Integer> distinct = starts.stream().distinct().sorted().toList();
        List<CoverageScale> classes = new ArrayList<>();
        for (int i = 0; i < distinct.size(); i++) {
            int to = i + 1 < distinct.size() ? distinct.get(i + 1) - 1 : Integer.MAX_VALUE;
            int colour = (int) Math.round((double) i * (CIVIDIS.length - 1) / Math.max(1, distinct.size() - 1));
            classes.add(new CoverageScale(distinct.get(i), to, CIVIDIS[colour], distinct.get(i) < asked));
        }
        return classes;
    }

    public String label() {
        if (to == Integer.MAX_VALUE) {
            return from + " and more";
        }
        return from == to ? String.valueOf(from) : from + "–" + to;
    }

    /** Colour for a legend, as {@code #rrggbb}. */
    public String colour() {
        return String.format("#%06x", rgb);
    }
}
