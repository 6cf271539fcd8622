package yalos.web.block;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The order of work, as it runs along the top of the page. */
public enum Stage {
    BRIEF("Brief"),
    GROUND("Ground"),
    KIT("Kit"),
    STRIPS("Strips"),
    OBJECTS("Objects"),
    PROOF("Proof"),
    CONTROL("Control"),
    SORTIES("Sorties"),
    FIELD_PACK("Field pack"),
    FLY("Fly"),
    TAKE("Take"),
    ACCURACY("Accuracy"),
    LOG("Log");

    private final String label;

    Stage(String label) {
        this.label = label;
    }

    public String label() {
        return label;
    }

    /** Name in addresses. */
    public String key() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static Optional<Stage> ofKey(String key) {
        return Arrays.stream(values()).filter(stage -> stage.key().equals(key)).findFirst();
    }
}
