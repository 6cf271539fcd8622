package yalos.core.sortie;

/** What the aircraft does when it hears nothing from its pilot any more, as set on it. */
public enum LostLink {
    RETURN("comes home"),
    HOVER("stays where it is until its battery is low, then comes home"),
    LAND("lands where it is"),
    GO_ON("flies on to the end of the sortie, then comes home");

    private final String words;

    LostLink(String words) {
        this.words = words;
    }

    /** In words, after "it". */
    public String words() {
        return words;
    }
}
