package yalos.core.measured;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** What a column of a table of measured points holds. */
public enum ObservationColumn {
    IGNORED("– not used –"),
    NAME("point", "point", "name", "id", "pt", "punkt", "station", "number", "no", "nr"),
    EAST("easting", "easting", "east", "e", "x", "rechtswert", "grid e"),
    NORTH("northing", "northing", "north", "n", "y", "hochwert", "grid n"),
    LATITUDE("latitude", "latitude", "lat", "breite", "b"),
    LONGITUDE("longitude", "longitude", "lon", "long", "lng", "laenge", "länge", "l"),
    HEIGHT("height", "height", "elevation", "elev", "ele", "z", "h", "level", "alt", "altitude", "ortho height"),
    TIME("date and time", "time", "datetime", "timestamp", "date time", "utc", "measured at", "date"),
    EPOCHS("epochs", "epochs", "epoch", "count", "observations", "samples"),
    HORIZONTAL("accuracy, position", "hrms", "h rms", "horizontal", "hsdv", "hacc", "accuracy h", "2d", "sigma h"),
    VERTICAL("accuracy, height", "vrms", "v rms", "vertical", "vsdv", "vacc", "accuracy v", "1d", "sigma v"),
    RMS("RMS", "rms"),
    SOLUTION("solution", "solution", "status", "fix", "fix type", "quality", "mode"),
    SATELLITES("satellites", "satellites", "sats", "sat", "sv", "svs"),
    POLE("pole height", "pole", "pole height", "antenna height", "rod", "rod height", "ant height", "target height"),
    NOTE("note", "note", "notes", "remark", "code", "description", "desc", "comment");

    private final String words;
    private final List<String> headings;

    ObservationColumn(String words, String... headings) {
        this.words = words;
        this.headings = List.of(headings);
    }

    public String words() {
        return words;
    }

    /**
     * What the columns of a table seem to hold: by their headings, without headings by their figures. A column is taken once.
     *
     * @param heading may be empty
     */
    public static List<ObservationColumn> guessed(List<String> heading, List<List<String>> rows) {
        return heading.isEmpty() ? byFigures(rows) : byHeading(heading);
    }

    private static List<ObservationColumn> byHeading(List<String> heading) {
        List<ObservationColumn> columns = new ArrayList<>();
        for (String title : heading) {
            String plain = title.toLowerCase(Locale.ROOT)
                    .replaceAll("[(\\[].*", "")
                    .replaceAll("[^\\p{L}\\p{N}]+", " ")
                    .strip();
            // Units at the end of a title say nothing of what it holds.
            String bare = plain.replaceAll(" (m|ft|deg|metres|meters|feet|degrees)$", "");
            ObservationColumn found = IGNORED;
            for (ObservationColumn column : values()) {
                if (column.headings.contains(bare) && !columns.contains(column)) {
                    found = column;
                    break;
                }
            }
            columns.add(found);
        }
        return columns;
    }

    /** Name first where it is no figure of a place; then two of a place, then a height; what follows is not guessed. */
    private static List<ObservationColumn> byFigures(List<List<String>> rows) {
        List<String> first = rows.get(0);
        List<ObservationColumn> columns = new ArrayList<>();
        List<Double> figures = first.stream().map(ObservationColumn::figure).toList();
        boolean named = first.size() > 3 || figures.get(0).isNaN() && !written(first.get(0));
        int at = 0;
        if (named) {
            columns.add(NAME);
            at++;
        }
        double one = at < figures.size() ? figures.get(at) : Double.NaN;
        double two = at + 1 < figures.size() ? figures.get(at + 1) : Double.NaN;
        boolean degrees = Math.abs(one) <= 180 && Math.abs(two) <= 180 || at < first.size() && written(first.get(at));
        ObservationColumn[] place = degrees
                ? new ObservationColumn[] {LATITUDE, LONGITUDE, HEIGHT}
                : new ObservationColumn[] {EAST, NORTH, HEIGHT};
        for (int i = at; i < first.size(); i++) {
            columns.add(i - at < place.length ? place[i - at] : IGNORED);
        }
        return columns;
    }

    /** Whether a cell writes degrees as nothing else is written. */
    private static boolean written(String cell) {
        return cell.matches("[-+]?\\d{1,3}\\s*[°º].*|\\d{1,3}[\\d .'′\"″]*[NSEW]");
    }

    private static double figure(String cell) {
        try {
            return Double.parseDouble(cell);
        } catch (NumberFormatException noFigure) {
            return Double.NaN;
        }
    }
}
