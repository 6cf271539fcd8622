package yalos.core.rehearsal;

/** What it is doing. */
public enum Phase {
    READY("on the ground, ready"),
    FLYING("flying the sortie"),
    HOLDING("hanging"),
    RETURNING("coming home"),
    LANDING("coming down"),
    FALLING("falling"),
    LANDED("landed"),
    LOST("lost");

    private final String words;

    Phase(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    public boolean inTheAir() {
        return this != READY && this != LANDED && this != LOST;
    }
}
