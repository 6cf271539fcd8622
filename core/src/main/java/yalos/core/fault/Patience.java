package yalos.core.fault;

import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;

/**
 * How long computations of this thread may go on. Whoever starts one says when it is to stop ({@link #during}); loops that may run long ask
 * ({@link #check}). Without anybody's word they run to their end.
 */
public final class Patience {
    private static final ThreadLocal<BooleanSupplier> GOES_ON = new ThreadLocal<>();

    private Patience() {}

    /**
     * Runs something that may be stopped.
     *
     * @param goesOn asked again and again, in this thread
     * @throws CancellationException where it was stopped
     * @throws Exception as the work throws it
     */
    public static <T> T during(BooleanSupplier goesOn, Callable<T> work) throws Exception {
        BooleanSupplier before = GOES_ON.get();
        GOES_ON.set(goesOn);
        try {
            return work.call();
        } finally {
            if (before == null) {
                GOES_ON.remove();
            } else {
                GOES_ON.set(before);
            }
        }
    }

    /** Whether somebody has said when this thread is to stop. */
    public static boolean asked() {
        return GOES_ON.get() != null;
    }

    /**
     * A place where a long computation may be stopped.
     *
     * @throws CancellationException where it is
     */
    public static void check() {
        BooleanSupplier goesOn = GOES_ON.get();
        if (goesOn != null && !goesOn.getAsBoolean()) {
            throw new CancellationException("called off");
        }
    }
}
