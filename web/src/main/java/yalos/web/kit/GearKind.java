package yalos.web.kit;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Scanner;

/** What the catalogue holds besides cameras. */
enum GearKind {
    KIT("kit", "kits", Kit.class),
    AIRCRAFT("aircraft", "aircraft", Aircraft.class),
    SCANNER("lidar scanner", "lidar scanners", Scanner.class);

    private final String word;
    private final String plural;

    private final Class<?> type;

    GearKind(String word, String plural, Class<?> type) {
        this.word = word;
        this.plural = plural;
        this.type = type;
    }

    public String word() {
        return word;
    }

    public String plural() {
        return plural;
    }

    /** What its entries are. */
    Class<?> type() {
        return type;
    }

    /** Name in addresses. */
    public String key() {
        return name().toLowerCase(Locale.ROOT);
    }

    static Optional<GearKind> ofKey(String key) {
        return Arrays.stream(values()).filter(kind -> kind.key().equals(key)).findFirst();
    }
}
