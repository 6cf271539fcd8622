package yalos.web.sheet;

import java.util.List;
import java.util.Map;
import yalos.web.maps.MapShelf;

/**
 * Everything on the sheet. Positions are easting, northing in turn.
 *
 * @param epsg of the grid, 0 while there is none
 * @param metresPerUnit true metres in one grid unit here
 * @param rings of the outline, corner after corner
 * @param strips four figures each: from, to
 * @param stationsOf index of the first station of each strip, and the number of stations at the end
 * @param title of the title block
 * @param passOf the pass each strip belongs to, from 1
 * @param tilted passes whose camera does not look straight down
 * @param axis of a corridor; null for an area
 * @param map under the sheet; null for none
 * @param pace of each strip in words: speed over the ground, crab, interval, blur
 * @param onEarth longitude and latitude of about its middle; null for a block that lies nowhere yet
 */
record Sheet(
        long version,
        int epsg,
        String grid,
        double metresPerUnit,
        List<double[]> rings,
        List<double[]> flown,
        double[] launch,
        double[] strips,
        double[] stations,
        int[] stationsOf,
        List<LinkLine> links,
        double baseUnits,
        TitleBlock title,
        Ruler ruler,
        GroundExtent ground,
        double[] stationHeights,
        String heightUnit,
        List<Thing> things,
        GroundExtent picture,
        int[] passOf,
        int[] tilted,
        double[] axis,
        LaidMap map,
        double[] onEarth,
        List<String> pace) {
    /** A map under the sheet: where its squares are, and who is to be named beside it. */
    record LaidMap(String squares, String attribution) {
        static LaidMap of(MapShelf.Under under) {
            return new LaidMap(under.squares(), under.attribution());
        }
    }

    /** Where the picture of the ground lies; null over level ground. */
    record GroundExtent(double[] extent, String key) {}

    /** An obstacle or zone: its kind, name and figures, and its places as easting, northing in turn. */
    record Thing(String kind, String name, boolean area, double[] places) {}

    record LinkLine(String kind, double[] line) {}

    record TitleBlock(String name, String area, String gsd, String grid, String heights, String ground, String back) {
        Map<String, String> byName() {
            return Map.of(
                    "name", name, "area", area, "gsd", gsd, "grid", grid, "heights", heights, "ground", ground, "back",
                    back);
        }
    }

    /** How the scale bar reads: name of its unit and metres in one. */
    record Ruler(String unit, double metres) {}
}
