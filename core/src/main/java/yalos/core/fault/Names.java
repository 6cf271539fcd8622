package yalos.core.fault;

import java.util.Locale;

/** Names as people and files give them, made fit to be shown, stored and written into any file. */
public final class Names {
    /** No name of anything is longer. */
    public static final int LONGEST = 200;

    private Names() {}

    /**
     * A name without letters that nobody sees: controls, halves of pairs and what no XML may hold are dropped, runs of space become one.
     */
    public static String clean(String given) {
        int[] letters = given.codePoints()
                .map(letter -> Character.isWhitespace(letter) ? ' ' : letter)
                .filter(Names::shows)
                .toArray();
        return new String(letters, 0, letters.length).replaceAll(" {2,}", " ").strip();
    }

    private static boolean shows(int letter) {
        int type = Character.getType(letter);
        return type != Character.CONTROL
                && type != Character.SURROGATE
                && type != Character.FORMAT
                && type != Character.UNASSIGNED
                && letter != 0xFFFE
                && letter != 0xFFFF;
    }

    /**
     * A name somebody typed.
     *
     * @throws InputFault for one that is empty or longer than allowed
     */
    public static String typed(String field, String given, int longest) {
        String name = clean(given == null ? "" : given);
        if (name.isEmpty() || name.length() > longest) {
            throw new InputFault(field, name, "Give it a name of 1 to %d characters.".formatted(longest));
        }
        return name;
    }

    /** A name as a file may bear it everywhere: small letters, figures and hyphens; another where nothing is left. */
    public static String ofFile(String given, String otherwise) {
        String plain =
                given.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
        return plain.isEmpty() ? otherwise : plain;
    }

    /** A name from a file, cut where it is too long; another where it is empty. */
    public static String given(String given, String otherwise) {
        String name = clean(given == null ? "" : given);
        String cut = name.length() > LONGEST ? clean(name.substring(0, LONGEST)) : name;
        return cut.isEmpty() ? otherwise : cut;
    }
}
