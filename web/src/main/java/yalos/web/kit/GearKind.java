package yalos.web.kit;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** What the catalogue holds besides cameras. */
enum GearKind {
    KIT("kit", "kits"),
    AIRCRAFT("aircraft", "aircraft"),
    SCANNER("lidar scanner", "lidar scanners");

    private final String word;
    private final String plural;

    GearKind(String word, String plural) {
        this.word = word;
        this.plural = plural;
    }

    public String word() {
        return word;
    }

    public String plural() {
        return plural;
    }

    /** Name in addresses. */
    public String key() {
        return name().toLowerCase(Locale.ROOT);
    }

    static Optional<GearKind> ofKey(String key) {
        return Arrays.stream(values()).filter(kind -> kind.key().equals(key)).findFirst();
    }
}
