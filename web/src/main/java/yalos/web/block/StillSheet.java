package yalos.web.block;

import java.util.List;
import java.util.Map;

/**
 * The sheet as it comes with its page: a drawing of the plan that stands until the map has drawn it, and for good where no script runs.
 *
 * @param viewBox of the drawing: what the map shows when it shows the whole block; empty where nothing can be drawn yet
 * @param shapes the lowest first
 * @param title figures of the title block by their names
 * @param flown whether there are strips, which can be played
 * @param heights whether the heights of the photos are known, so that they can be looked at
 */
public record StillSheet(
        String viewBox, List<Shape> shapes, Map<String, String> title, boolean flown, boolean heights) {
    /**
     * All lines of one kind.
     *
     * @param kind name of their style
     * @param path as SVG writes it, in whole units of the drawing
     */
    public record Shape(String kind, String path) {}

    public boolean isDrawn() {
        return !viewBox.isEmpty();
    }
}
