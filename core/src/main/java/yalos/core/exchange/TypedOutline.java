package yalos.core.exchange;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/** An outline typed or pasted as one position a line; see {@link TypedPosition}. Lines without digits are passed over. */
public final class TypedOutline {
    private TypedOutline() {}

    /**
     * @throws InputFault for a line that is no position, naming the line, or fewer than three corners
     */
    public static ImportedOutlines read(String text, Optional<Grid> grid) {
        List<LonLat> corners = line(text, grid);
        ImportedOutlines.Collector found = new ImportedOutlines.Collector();
        if (corners.isEmpty()) {
            return found.finish("text");
        }
        List<LonLat> ring = found.ring(corners, "typed corners");
        found.add("Typed corners", Outline.ofRing(ring));
        return found.finish("text").with(List.of());
    }

    /**
     * The places alone, in the order they stand.
     *
     * @throws InputFault for a line that is no position, naming the line
     */
    public static List<LonLat> line(String text, Optional<Grid> grid) {
        List<LonLat> places = new ArrayList<>();
        int number = 0;
        for (String line : text.split("\\R|;")) {
            number++;
            if (line.chars().anyMatch(Character::isDigit)) {
                places.add(corner(line, number, grid));
            }
        }
        return places;
    }

    private static LonLat corner(String line, int number, Optional<Grid> grid) {
        try {
            return TypedPosition.read(line, grid);
        } catch (InputFault fault) {
            throw new InputFault(fault.field(), fault.value(), "Line %d: %s".formatted(number, fault.getMessage()));
        }
    }
}
