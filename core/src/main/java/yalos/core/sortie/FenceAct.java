package yalos.core.sortie;

/** What the aircraft does at its distance fence. Manuals and aircraft differ: it is tried on site. */
public enum FenceAct {
    UNKNOWN("not tried yet"),
    STOPS("stops and hangs there"),
    RETURNS("turns home");

    private final String words;

    FenceAct(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
