package yalos.web.block;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The order of work, as it runs along the top of the page. */
public enum Stage {
    BRIEF("Brief", true),
    GROUND("Ground", true),
    KIT("Kit", true),
    STRIPS("Strips", true),
    PROOF("Proof", true),
    CONTROL("Control", true),
    SORTIES("Sorties", true),
    FIELD_PACK("Field pack", true),
    FLY("Fly", true),
    TAKE("Take", true),
    ACCURACY("Accuracy", true),
    LOG("Log", false);

    private final String label;
    private final boolean built;

    Stage(String label, boolean built) {
        this.label = label;
        this.built = built;
    }

    public String label() {
        return label;
    }

    /** Whether the program has this stage yet. */
    public boolean built() {
        return built;
    }

    /** Name in addresses. */
    public String key() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static Optional<Stage> ofKey(String key) {
        return Arrays.stream(values())
                .filter(stage -> stage.built && stage.key().equals(key))
                .findFirst();
    }
}
