package yalos.web.sheet;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import yalos.core.geodesy.Bounds;
import yalos.web.block.StillSheet;

/** Draws a {@link StillSheet}. Its frame is the extent that the map fits into view, so that the one lies exactly under the other. */
final class StillDrawing {
    /** Units of the drawing along its longer side: whole numbers, finer than pixels. */
    private static final double UNITS = 10_000;
    /** A drawing that takes more characters is left to the map: a page is to come at once. */
    private static final int MOST_CHARACTERS = 400_000;

    private final Sheet sheet;
    private final Bounds frame;
    private final double scale;
    private final Map<String, StringBuilder> paths = new LinkedHashMap<>();

    private StillDrawing(Sheet sheet, Bounds frame) {
        this.sheet = sheet;
        this.frame = frame;
        scale = UNITS / Math.max(frame.width(), frame.height());
    }

    static StillSheet of(Sheet sheet) {
        Bounds frame = frame(sheet);
        // Without any place the frame is turned inside out.
        return Math.max(frame.width(), frame.height()) > 0
                ? new StillDrawing(sheet, frame).drawn()
                : still(sheet, "", List.of());
    }

    /** What the map fits into view: outline, area flown and strips. */
    private static Bounds frame(Sheet sheet) {
        Stream<double[]> areas = Stream.concat(sheet.rings().stream(), sheet.flown().stream());
        return Bounds.of(Stream.concat(areas, Stream.of(sheet.strips()))
                .flatMapToDouble(Arrays::stream)
                .toArray());
    }

    private StillSheet drawn() {
        sheet.flown().forEach(ring -> add("flown", ring, true));
        sheet.links().forEach(link -> add(link.kind().equals("turn") ? "turn" : "way", link.line(), false));
        strips();
        for (Sheet.Thing thing : sheet.things()) {
            boolean point = thing.places().length == 2;
            add(thing.kind() + (point ? " point" : ""), thing.places(), thing.area() || point);
        }
        sheet.rings().forEach(ring -> add("edge", ring, true));
        if (sheet.launch() != null) {
            add("launch-ring", sheet.launch(), true);
            add("launch", sheet.launch(), true);
        }
        if (paths.values().stream().mapToInt(StringBuilder::length).sum() > MOST_CHARACTERS) {
            return still(sheet, "", List.of());
        }
        List<StillSheet.Shape> shapes = paths.entrySet().stream()
                .map(path -> new StillSheet.Shape(path.getKey(), path.getValue().toString()))
                .toList();
        // A frame without any width is not drawn at all.
        String viewBox = "0 0 %d %d".formatted(Math.max(1, units(frame.width())), Math.max(1, units(frame.height())));
        return still(sheet, viewBox, shapes);
    }

    private static StillSheet still(Sheet sheet, String viewBox, List<StillSheet.Shape> shapes) {
        boolean flown = sheet.strips().length > 0;
        return new StillSheet(viewBox, shapes, sheet.title().byName(), flown, sheet.stationHeights().length > 0);
    }

    private void strips() {
        double[] ends = sheet.strips();
        for (int strip = 0; 4 * strip < ends.length; strip++) {
            int pass = sheet.passOf()[strip];
            boolean tilted = Arrays.stream(sheet.tilted()).anyMatch(one -> one == pass);
            double[] line = Arrays.copyOfRange(ends, 4 * strip, 4 * strip + 4);
            add("halo", line, false);
            add(tilted ? "strip tilted" : pass > 1 ? "strip added" : "strip", line, false);
        }
    }

    private void add(String kind, double[] places, boolean closed) {
        StringBuilder path = paths.computeIfAbsent(kind, any -> new StringBuilder());
        for (int i = 0; i + 1 < places.length; i += 2) {
            path.append(i == 0 ? 'M' : 'L')
                    .append(units(places[i] - frame.west()))
                    .append(' ')
                    .append(units(frame.north() - places[i + 1]));
        }
        if (closed) {
            path.append('Z');
        }
    }

    private long units(double gridUnits) {
        return Math.round(gridUnits * scale);
    }
}
