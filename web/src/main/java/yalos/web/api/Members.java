package yalos.web.api;

import java.util.Comparator;
import java.util.Set;
import tools.jackson.databind.JsonNode;
import yalos.core.fault.InputFault;

/** Which members a service understands: a name that is not among them is refused with the nearest that is, never passed over. */
final class Members {
    private Members() {}

    /**
     * @param path of the object, for the message
     * @throws InputFault naming the first member that is not known
     */
    static void refuseUnknown(JsonNode object, String path, Set<String> known) {
        object.propertyNames().stream()
                .filter(name -> !known.contains(name))
                .findFirst()
                .ifPresent(name -> {
                    throw new InputFault(
                            path + "." + name,
                            name,
                            "“%s” is no member of “%s”. Is “%s” meant?".formatted(name, path, nearest(name, known)));
                });
    }

    private static String nearest(String name, Set<String> known) {
        return known.stream()
                .min(Comparator.<String>comparingInt(one -> distance(name, one))
                        .thenComparing(Comparator.naturalOrder()))
                .orElseThrow();
    }

    /** Letters to be put in, taken out or changed, after Levenshtein (1966, from memory). */
    static int distance(String a, String b) {
        int[] row = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) {
            row[j] = j;
        }
        for (int i = 1; i <= a.length(); i++) {
            int diagonal = row[0];
            row[0] = i;
            for (int j = 1; j <= b.length(); j++) {
                int changed = diagonal + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
                diagonal = row[j];
                row[j] = Math.min(changed, 1 + Math.min(row[j], row[j - 1]));
            }
        }
        return row[b.length()];
    }
}
