package yalos.web.store;

import static yalos.web.store.Plain.or;

import java.util.List;
import yalos.core.block.Outline;
import yalos.core.geodesy.LonLat;

/** A part of an outline as it is stored: rings of pairs of longitude and latitude. */
record StoredPart(List<double[]> outer, List<List<double[]>> holes) {
    static StoredPart of(Outline.Part part) {
        return new StoredPart(
                pairs(part.outer()),
                part.holes().stream().map(StoredPart::pairs).toList());
    }

    Outline.Part part() {
        return new Outline.Part(
                corners(outer), or(holes).stream().map(StoredPart::corners).toList());
    }

    static List<double[]> pairs(List<LonLat> ring) {
        return ring.stream()
                .map(corner -> new double[] {corner.lonDeg(), corner.latDeg()})
                .toList();
    }

    static List<LonLat> corners(List<double[]> pairs) {
        return or(pairs).stream()
                .filter(pair -> pair != null && pair.length == 2)
                .map(StoredPart::corner)
                .toList();
    }

    static LonLat corner(double[] pair) {
        return LonLat.of(pair[0], pair[1]);
    }
}
