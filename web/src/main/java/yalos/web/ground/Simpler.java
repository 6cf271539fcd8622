package yalos.web.ground;

import yalos.core.block.PlaneBlock;

/**
 * What a block would be with fewer corners.
 *
 * @param byM how far an edge may move at the most
 * @param before its corners now
 * @param corners it would have
 * @param areaShare of its area that would come or go
 */
record Simpler(double byM, int before, int corners, double areaShare) {
    /** From so many corners on it is offered: cells are not tried beyond. */
    static final int MANY = 400;

    private static final double[] TOLERANCES_M = {0.1, 0.25, 0.5, 1, 2, 5};

    static Simpler of(PlaneBlock block, double byM) {
        PlaneBlock simple = block.simplified(byM);
        return new Simpler(byM, block.corners(), simple.corners(), simple.areaM2() / block.areaM2() - 1);
    }

    /** The least tolerance of a few with which few enough corners are left; the greatest where none does. */
    static Simpler offered(PlaneBlock block) {
        Simpler offered = null;
        for (double byM : TOLERANCES_M) {
            offered = of(block, byM);
            if (offered.corners() <= MANY) {
                return offered;
            }
        }
        return offered;
    }
}
