package yalos.core.plan;

import java.util.function.IntPredicate;

/** Where a row of steps changes, found by halving. */
final class Halving {
    private Halving() {}

    /** The first step that is so, between one that is not and a later one that is. */
    static int first(int not, int so, IntPredicate test) {
        return last(not, so, 0, step -> !test.test(step)) + 1;
    }

    /**
     * The last step that is so, between one that is and a later one that is not.
     *
     * @param share of the step itself that it may be short by; 0 for none
     */
    static int last(int so, int not, double share, IntPredicate test) {
        int low = so;
        int high = not;
        while (high - low > Math.max(1, low * share)) {
            int middle = Math.floorDiv(low + high, 2);
            if (test.test(middle)) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return low;
    }
}
