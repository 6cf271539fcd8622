package yalos.core.site;

import static yalos.core.fault.InputFault.within;

import java.util.List;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.LonLat;

/**
 * Something that stands over the ground.
 *
 * @param name what the operator calls it
 * @param kind of it
 * @param places one for a mast or tree, its corners for a building, its poles for a line
 * @param heightM of its top above the ground
 * @param radiusM how far it reaches to the side of its places or of the line between them
 */
public record Obstacle(String name, Kind kind, List<LonLat> places, double heightM, double radiusM) {
    /** What stands there. */
    public enum Kind {
        MAST("mast", 1),
        TREE("tree", 1),
        BUILDING("building", 3),
        LINE("line between poles", 2);

        private final String words;
        private final int fewestPlaces;

        Kind(String words, int fewestPlaces) {
            this.words = words;
            this.fewestPlaces = fewestPlaces;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }
    }

    private static final int MOST_PLACES = 1000;

    public Obstacle {
        places = List.copyOf(places);
        name = Names.given(name, kind.words);
        within("heightM", heightM, 0.1, 1000, "m");
        within("radiusM", radiusM, 0, 500, "m");
        if (places.size() < kind.fewestPlaces || places.size() > MOST_PLACES) {
            throw new InputFault(
                    "places",
                    places.size(),
                    "A %s needs %d to %d places.".formatted(kind.words, kind.fewestPlaces, MOST_PLACES));
        }
    }

    /** Whether its places bound an area. */
    public boolean isArea() {
        return kind == Kind.BUILDING;
    }
}
