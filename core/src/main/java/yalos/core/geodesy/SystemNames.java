package yalos.core.geodesy;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/** Names of the coordinate systems this program knows by their EPSG code, out of the list of the projection library, to be searched. */
public final class SystemNames {
    private static final String LIST = "/proj4/nad/epsg";
    private static final int MOST = 60;
    private static final List<Named> ALL = read();

    private SystemNames() {}

    /** A system. */
    public record Named(int epsg, String name, boolean geographic) {}

    private static List<Named> read() {
        List<Named> all = new ArrayList<>();
        try (InputStream in = SystemNames.class.getResourceAsStream(LIST);
                BufferedReader lines = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8))) {
            String name = "";
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                if (line.startsWith("#")) {
                    name = line.substring(1).strip();
                } else if (line.startsWith("<") && line.contains("+proj") && !line.contains("geocent")) {
                    int end = line.indexOf('>');
                    all.add(new Named(Integer.parseInt(line.substring(1, end)), name, line.contains("+proj=longlat")));
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return List.copyOf(all);
    }

    /** Systems whose name holds all words, or whose code begins with the figures; the best-fitting first. */
    public static List<Named> search(String text) {
        String[] words =
                text.strip().toLowerCase(Locale.ROOT).replace("epsg:", "").split("\\s+");
        if (text.isBlank()) {
            return List.of();
        }
        return ALL.stream()
                .filter(one -> Arrays.stream(words).allMatch(word -> fits(one, word)))
                .sorted(Comparator.comparing(
                                (Named one) -> !String.valueOf(one.epsg()).equals(words[0]))
                        .thenComparing(one -> one.name().contains("deprecated"))
                        .thenComparing(one -> one.name().length()))
                .limit(MOST)
                .toList();
    }

    private static boolean fits(Named one, String word) {
        return one.name().toLowerCase(Locale.ROOT).contains(word)
                || word.matches("\\d{2,}") && String.valueOf(one.epsg()).startsWith(word);
    }

    /** Name of a code; empty for one that is not in the list. */
    public static String of(int epsg) {
        return ALL.stream()
                .filter(one -> one.epsg() == epsg)
                .map(Named::name)
                .findFirst()
                .orElse("");
    }
}
