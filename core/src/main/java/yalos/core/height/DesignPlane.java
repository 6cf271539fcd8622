package yalos.core.height;

/** From which ground a level or stepped height is measured. */
public enum DesignPlane {
    HIGHEST("the highest ground: overlap holds everywhere, GSD is coarser below"),
    MEAN("the mean ground: overlap is less on high ground, GSD coarser on low"),
    LOWEST("the lowest ground: GSD holds everywhere, overlap is less above"),
    BOTH("GSD on the lowest ground, strips spaced for the highest: both hold, at a price");

    private final String words;

    DesignPlane(String words) {
        this.words = words;
    }

    /** The ground a level height counts from, in two words. */
    public String ground() {
        return switch (this) {
            case HIGHEST -> "highest ground";
            case MEAN -> "mean ground";
            case LOWEST, BOTH -> "lowest ground";
        };
    }

    /** What it is called on the page. */
    public String words() {
        return words;
    }

    /** The level it means, between least, mean and greatest ground. */
    double level(double least, double mean, double most) {
        return switch (this) {
            case HIGHEST -> most;
            case MEAN -> mean;
            case LOWEST, BOTH -> least;
        };
    }
}
