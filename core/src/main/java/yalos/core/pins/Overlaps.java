package yalos.core.pins;

/**
 * The overlaps that practice speaks of, in one place; all common practice. Whoever advises, defaults, compares or warns takes them from
 * here.
 *
 * @param forward 0..1
 * @param side 0..1
 */
public record Overlaps(double forward, double side) {
    /** The least for a reconstruction. */
    public static final Overlaps LEAST = new Overlaps(0.75, 0.60);
    /** Usual for mapping; what holds where nothing is pinned. */
    public static final Overlaps USUAL = new Overlaps(0.80, 0.70);
    /** Usual for crops and models of things that stand up. */
    public static final Overlaps DENSE = new Overlaps(0.80, 0.80);
    /** Snow, sand, water, forest, buildings: little to match, or much that hides. */
    public static final Overlaps DENSEST = new Overlaps(0.85, 0.80);
    /** Roads and railways: few neighbours to either side hold the line. */
    public static final Overlaps LINEAR = new Overlaps(0.85, 0.70);

    /** Side overlap below which neighbouring lines no longer hold together over relief. */
    public static final double LOST_SIDE = 0.50;
    /** Where a scanner leads, open ground needs less. */
    public static final double SCANNER_SIDE = 0.30;
    /** Where a scanner leads and walls and roofs matter. */
    public static final double SCANNER_SIDE_BUILT = 0.70;

    /** In whole percent, as practice writes them: 80/70. */
    public String words() {
        return Math.round(forward * 100) + "/" + Math.round(side * 100);
    }
}
