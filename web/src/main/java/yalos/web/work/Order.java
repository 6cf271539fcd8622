package yalos.web.work;

import java.time.Duration;

/**
 * What is asked of the {@link WorkQueue}.
 *
 * @param client who asks; the queue is fair between clients
 * @param what it is, as a sentence begins: {@code The proof}
 * @param bytes of memory it takes at the most, asked for before it is begun
 * @param deadline from its beginning; then it is called off
 */
public record Order(String client, String what, long bytes, Duration deadline) {
    /** Five minutes. */
    public static final Duration USUAL = Duration.ofMinutes(5);

    /** Work with the usual deadline of five minutes. */
    public Order(String client, String what, long bytes) {
        this(client, what, bytes, USUAL);
    }
}
