package yalos.core.geodesy;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Which EPSG code does a coordinate system have that is described in words, as in the {@code .prj} of a shapefile (WKT 1, OGC 01-009)?
 *
 * <p>Where the text names no code itself, its ellipsoid, projection, unit and parameters are looked for among the systems of proj4j's list; of several
 * that agree, the one whose name is most alike is taken.
 */
public final class WktSystem {
    private static final int LONGEST = 20_000;
    private static final Pattern AUTHORITY = Pattern.compile(
            "AUTHORITY\\s*\\[\\s*\"EPSG\"\\s*,\\s*\"?(\\d{3,6})\"?\\s*]\\s*]\\s*$", Pattern.CASE_INSENSITIVE);
    private static final Pattern SPHEROID = Pattern.compile(
            "(?:SPHEROID|ELLIPSOID)\\s*\\[\\s*\"[^\"]*\"\\s*,\\s*([\\d.eE+-]+)\\s*,\\s*([\\d.eE+-]+)",
            Pattern.CASE_INSENSITIVE);
    private static final Pattern NAME =
            Pattern.compile("(?:PROJCS|GEOGCS)\\s*\\[\\s*\"([^\"]*)\"", Pattern.CASE_INSENSITIVE);
    private static final Pattern PROJECTION =
            Pattern.compile("PROJECTION\\s*\\[\\s*\"([^\"]*)\"", Pattern.CASE_INSENSITIVE);
    private static final Pattern PARAMETER =
            Pattern.compile("PARAMETER\\s*\\[\\s*\"([^\"]*)\"\\s*,\\s*([\\d.eE+-]+)", Pattern.CASE_INSENSITIVE);
    private static final Pattern UNIT =
            Pattern.compile("UNIT\\s*\\[\\s*\"[^\"]*\"\\s*,\\s*([\\d.eE+-]+)", Pattern.CASE_INSENSITIVE);
    private static final double WGS84_AXIS_M = 6378137;
    private static final double WGS84_FLATTENING = 298.257223563;

    private final String name;
    private final boolean projected;
    private final double axisM;
    private final double flattening;
    private final String projection;
    private final Map<String, Double> parameters = new TreeMap<>();
    private final double unit;

    private WktSystem(String wkt) {
        name = first(NAME, wkt);
        projected = wkt.toUpperCase(Locale.ROOT).contains("PROJCS");
        Matcher spheroid = SPHEROID.matcher(wkt);
        boolean known = spheroid.find();
        axisM = known ? Double.parseDouble(spheroid.group(1)) : Double.NaN;
        flattening = known ? Double.parseDouble(spheroid.group(2)) : Double.NaN;
        projection = plain(first(PROJECTION, wkt));
        Matcher parameter = PARAMETER.matcher(wkt);
        while (parameter.find()) {
            parameters.put(plain(parameter.group(1)), Double.parseDouble(parameter.group(2)));
        }
        Matcher units = UNIT.matcher(wkt);
        double last = 1;
        while (units.find()) {
            last = Double.parseDouble(units.group(1));
        }
        unit = last;
    }

    /** The code of a described system; empty where none fits. */
    public static OptionalInt epsg(String wkt) {
        String text = wkt.strip();
        if (text.isEmpty() || text.length() > LONGEST) {
            return OptionalInt.empty();
        }
        Matcher named = AUTHORITY.matcher(text);
        if (named.find()) {
            return OptionalInt.of(Integer.parseInt(named.group(1)));
        }
        try {
            WktSystem asked = new WktSystem(text);
            return asked.projected ? asked.grid() : asked.degrees();
        } catch (NumberFormatException crooked) {
            return OptionalInt.empty();
        }
    }

    private OptionalInt degrees() {
        boolean wgs84 = Math.abs(axisM - WGS84_AXIS_M) < 0.5 && Math.abs(flattening - WGS84_FLATTENING) < 1e-4;
        return wgs84 ? OptionalInt.of(4326) : OptionalInt.empty();
    }

    private OptionalInt grid() {
        String letters = plain(name);
        return Listed.ALL.stream()
                .filter(listed -> agrees(listed.system()))
                .min(Comparator.<Listed>comparingInt(listed -> unlike(letters, plain(listed.system().name)))
                        .thenComparingInt(Listed::epsg))
                .map(listed -> OptionalInt.of(listed.epsg()))
                .orElse(OptionalInt.empty());
    }

    private boolean agrees(WktSystem listed) {
        boolean same = listed.projected
                && near(axisM, listed.axisM, 0.01)
                && near(flattening, listed.flattening, 1e-5)
                && near(unit, listed.unit, 1e-7)
                && (projection.startsWith(listed.projection) || listed.projection.startsWith(projection));
        if (!same) {
            return false;
        }
        for (Map.Entry<String, Double> parameter : parameters.entrySet()) {
            Double there = listed.parameters.get(parameter.getKey());
            double usual = parameter.getKey().equals("scalefactor") ? 1 : 0;
            if (!near(parameter.getValue(), there == null ? usual : there, 1e-6)) {
                return false;
            }
        }
        return listed.parameters.entrySet().stream()
                .allMatch(there -> parameters.containsKey(there.getKey())
                        || near(there.getValue(), there.getKey().equals("scalefactor") ? 1 : 0, 1e-6));
    }

    private static boolean near(double a, double b, double within) {
        return Math.abs(a - b) <= within;
    }

    /** Pairs of neighbouring letters that only one of two names has. */
    private static int unlike(String a, String b) {
        List<String> left = pairs(a);
        List<String> right = pairs(b);
        int common = 0;
        for (String pair : left) {
            common += right.remove(pair) ? 1 : 0;
        }
        return left.size() - common + right.size();
    }

    private static List<String> pairs(String text) {
        List<String> pairs = new ArrayList<>();
        for (int i = 0; i + 1 < text.length(); i++) {
            pairs.add(text.substring(i, i + 2));
        }
        return pairs;
    }

    private static String first(Pattern pattern, String text) {
        Matcher matcher = pattern.matcher(text);
        return matcher.find() ? matcher.group(1) : "";
    }

    private static String plain(String text) {
        return text.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
    }

    /** The list that comes with proj4j, read once. */
    private record Listed(int epsg, WktSystem system) {
        private static final String LIST = "/proj4/wkt/epsg.properties";
        static final List<Listed> ALL = all();

        private static List<Listed> all() {
            List<Listed> all = new ArrayList<>();
            try (InputStream in = WktSystem.class.getResourceAsStream(LIST);
                    BufferedReader lines = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8))) {
                for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                    int equals = line.indexOf('=');
                    if (equals > 0 && line.startsWith("PROJCS", equals + 1)) {
                        all.add(new Listed(
                                Integer.parseInt(line.substring(0, equals).strip()),
                                new WktSystem(line.substring(equals + 1))));
                    }
                }
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            return all;
        }
    }
}
