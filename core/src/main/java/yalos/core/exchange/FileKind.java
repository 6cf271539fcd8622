package yalos.core.exchange;

import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** What is in a file? Told from its first bytes, whatever its name says. */
public enum FileKind {
    GEOJSON("GeoJSON", ".geojson"),
    KML("KML", ".kml"),
    KMZ("KMZ", ".kmz"),
    GPX("GPX", ".gpx"),
    SHAPEFILE("a zipped shapefile", ".zip"),
    GEOPACKAGE("GeoPackage", ".gpkg"),
    TEXT("list of coordinates", ".txt"),
    UNKNOWN("unknown file", "");

    private static final int HEAD = 4096;

    private final String words;
    private final String ending;

    FileKind(String words, String ending) {
        this.words = words;
        this.ending = ending;
    }

    /** What it is called on the page. */
    public String words() {
        return words;
    }

    /** The kind of a file, told by its content and not by its name. */
    public static FileKind of(byte[] content) {
        if (content.length > 3 && content[0] == 'P' && content[1] == 'K' && content[2] == 3 && content[3] == 4) {
            return ShapefileOutlines.isIn(content) ? SHAPEFILE : KMZ;
        }
        if (startsWith(content, "SQLite format 3")) {
            return GEOPACKAGE;
        }
        String head = new String(content, 0, Math.min(HEAD, content.length), StandardCharsets.UTF_8);
        String start = head.replace("\ufeff", "").stripLeading();
        if (start.startsWith("{") || start.startsWith("[")) {
            return GEOJSON;
        }
        if (start.startsWith("<")) {
            String lower = start.toLowerCase(Locale.ROOT);
            return lower.contains("<gpx") ? GPX : lower.contains("<kml") ? KML : UNKNOWN;
        }
        boolean binary = head.chars().anyMatch(c -> c == 0 || c == '\ufffd');
        return binary || start.isEmpty() || start.chars().noneMatch(Character::isDigit) ? UNKNOWN : TEXT;
    }

    private static boolean startsWith(byte[] content, String words) {
        return content.length > words.length()
                && new String(content, 0, words.length(), StandardCharsets.ISO_8859_1).equals(words);
    }

    /** Whether a file name promises this kind; names without a known ending promise nothing. */
    public boolean promisedBy(String fileName) {
        String lower = fileName.toLowerCase(Locale.ROOT);
        for (FileKind kind : values()) {
            boolean named = kind != UNKNOWN && lower.endsWith(kind.ending);
            if (named || kind == GEOJSON && lower.endsWith(".json") || kind == TEXT && lower.endsWith(".csv")) {
                return kind == this;
            }
        }
        return true;
    }
}
