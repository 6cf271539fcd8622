package yalos.core.exchange;

import java.text.ParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mil.nga.grid.features.Point;
import mil.nga.mgrs.MGRS;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/**
 * A position as people write it: {@code 54.5134, -4.3489}, {@code 54°30'48.2"N 4°20'56.1"W}, {@code 54 30.803 N 4 20.935
 * W}, {@code 30U VF 12717 41822}, or {@code 412717 6041822} in the job's grid. Without letters the latitude comes first, an easting before a northing.
 */
public final class TypedPosition {
    private static final Pattern FIGURE = Pattern.compile("[-+]?\\d+(?:\\.\\d+)?");
    private static final Pattern LETTER = Pattern.compile("(?<![A-Za-z])[NSEWnsew](?![A-Za-z])");
    /** Whatever may stand between the figures of a position. */
    private static final Pattern CLUTTER = Pattern.compile("[\\s,;°º'’′\"”″:()]|[NSEWnsew](?![A-Za-z])");

    /** Zone, band, square and an even number of digits, as of the military grid reference system. */
    private static final Pattern LETTERED = Pattern.compile(
            "\\d{1,2}\\s*[C-HJ-NP-Xc-hj-np-x]\\s*[A-HJ-NP-Za-hj-np-z]{2}(?:\\s*\\d{1,5}\\s+\\d{1,5}|\\s*(?:\\d\\d){1,5})");

    private static final double LARGEST_DEGREES = 360;

    private TypedPosition() {}

    /**
     * @param grid in which figures too large for degrees are meant
     * @throws InputFault (field {@code coordinates}) for text that is no position
     */
    public static LonLat read(String text, Optional<Grid> grid) {
        if (LETTERED.matcher(text.strip()).matches()) {
            return lettered(text);
        }
        String plain = text.replace('\u2212', '-').replaceAll("(?<=\\d),(?=\\d{1,2}\\D*$)", ".");
        String rest = CLUTTER.matcher(FIGURE.matcher(plain).replaceAll(" ")).replaceAll("");
        if (!rest.isEmpty()) {
            throw unreadable(text);
        }
        List<String> letters = all(LETTER, plain);
        if (!letters.isEmpty()) {
            return withLetters(text, plain, letters);
        }
        List<Double> figures = figures(plain);
        if (figures.size() == 2) {
            return pair(text, figures.get(0), figures.get(1), grid);
        }
        if (figures.size() == 4 || figures.size() == 6) {
            int half = figures.size() / 2;
            return LonLat.of(
                    degrees(text, figures.subList(half, figures.size())), degrees(text, figures.subList(0, half)));
        }
        throw unreadable(text);
    }

    /** The south-western corner of the square that a lettered reference names, as these are read. */
    private static LonLat lettered(String text) {
        try {
            Point at = MGRS.parse(text.replaceAll("\\s", "").toUpperCase(Locale.ROOT))
                    .toPoint();
            return LonLat.of(at.getLongitude(), at.getLatitude());
        } catch (ParseException | RuntimeException e) {
            throw new InputFault(
                    "coordinates",
                    text,
                    "“%s” names no square of the lettered grid. Write zone, square and an even number of digits, such as 30U VF 12717 41822."
                            .formatted(text.strip()));
        }
    }

    private static LonLat pair(String text, double first, double second, Optional<Grid> grid) {
        if (Math.abs(first) > LARGEST_DEGREES || Math.abs(second) > LARGEST_DEGREES) {
            return grid.map(g -> g.toLonLat(new EastNorth(first, second)))
                    .orElseThrow(() -> new InputFault(
                            "coordinates",
                            text,
                            "“%s” looks like a grid position. Give the job a grid first.".formatted(text.strip())));
        }
        return LonLat.of(second, first);
    }

    private static LonLat withLetters(String text, String plain, List<String> letters) {
        if (letters.size() != 2) {
            throw unreadable(text);
        }
        Matcher matcher = LETTER.matcher(plain);
        boolean leading =
                matcher.find() && plain.substring(0, matcher.start()).chars().noneMatch(Character::isDigit);
        int split;
        if (leading) {
            matcher.find();
            split = matcher.start();
        } else {
            split = matcher.end();
        }
        double first = degrees(text, figures(plain.substring(0, split)));
        double second = degrees(text, figures(plain.substring(split)));
        String a = letters.get(0).toUpperCase(Locale.ROOT);
        String b = letters.get(1).toUpperCase(Locale.ROOT);
        if (isNorthing(a) == isNorthing(b)) {
            throw unreadable(text);
        }
        double signedA = sign(a) * first;
        double signedB = sign(b) * second;
        return isNorthing(a) ? LonLat.of(signedB, signedA) : LonLat.of(signedA, signedB);
    }

    private static boolean isNorthing(String letter) {
        return letter.equals("N") || letter.equals("S");
    }

    private static int sign(String letter) {
        return letter.equals("S") || letter.equals("W") ? -1 : 1;
    }

    /** Degrees, minutes and seconds, the later ones optional, as decimal degrees. */
    private static double degrees(String text, List<Double> figures) {
        if (figures.isEmpty() || figures.size() > 3) {
            throw unreadable(text);
        }
        double degrees = Math.abs(figures.get(0));
        for (int i = 1; i < figures.size(); i++) {
            double part = figures.get(i);
            if (part < 0 || part >= 60) {
                throw new InputFault(
                        "coordinates", text, "“%s”: minutes and seconds run from 0 to 60.".formatted(text.strip()));
            }
            degrees += part / Math.pow(60, i);
        }
        return Math.copySign(degrees, figures.get(0));
    }

    private static List<Double> figures(String text) {
        return all(FIGURE, text).stream().map(Double::parseDouble).toList();
    }

    private static List<String> all(Pattern pattern, String text) {
        List<String> found = new ArrayList<>();
        Matcher matcher = pattern.matcher(text);
        while (matcher.find()) {
            found.add(matcher.group());
        }
        return found;
    }

    private static InputFault unreadable(String text) {
        return new InputFault(
                "coordinates",
                text,
                "“%s” is not a position. Write latitude and longitude, such as 54.5134, -4.3489 or 54°30'48.2\"N 4°20'56.1\"W, or easting and northing."
                        .formatted(text.strip()));
    }
}
