package yalos.core.control;

import yalos.core.kit.Positioning;

/**
 * How long a crew is out for the points of a block (common practice): base first, then each point laid out, levelled, measured and noted on the way, targets fetched after the flight.
 *
 * @param baseS setting up the base, before anything else
 * @param walkS walking the tour, once to measure
 * @param pointsS at the points
 * @param fetchS walking it again to fetch the targets
 */
public record CrewTime(double baseS, double walkS, double pointsS, double fetchS) {
    private static final double BASE_S = 15 * 60;
    private static final double LAY_OUT_S = 120;
    private static final double NOTE_S = 30;
    private static final double FETCH_S = 20;
    /** From so many epochs on a bipod holds the pole, which takes setting up. */
    public static final int BIPOD_EPOCHS = 60;

    private static final double BIPOD_S = 60;

    /** Of a walk, with so many points at so many epochs of a second. */
    public static CrewTime of(double walkS, int points, int epochs, Positioning mode) {
        if (points == 0) {
            return new CrewTime(needsBase(mode) ? BASE_S : 0, 0, 0, 0);
        }
        double bipod = epochs >= BIPOD_EPOCHS ? BIPOD_S : 0;
        return new CrewTime(BASE_S, walkS, points * (LAY_OUT_S + epochs + NOTE_S + bipod), walkS + points * FETCH_S);
    }

    private static boolean needsBase(Positioning mode) {
        return mode == Positioning.RTK_BASE || mode == Positioning.PPK;
    }

    public double totalS() {
        return baseS + walkS + pointsS + fetchS;
    }
}
