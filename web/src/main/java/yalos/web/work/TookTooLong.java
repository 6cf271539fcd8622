package yalos.web.work;

/** Work that was called off because it ran for longer than it may. */
public final class TookTooLong extends RuntimeException {
    TookTooLong(Order order) {
        super("%s took longer than %d s and was called off. Ask for less: a smaller area, coarser cells, fewer corners."
                .formatted(order.what(), order.deadline().toSeconds()));
    }
}
