package yalos.web.sorties;

/**
 * A line that must be read.
 *
 * @param mood {@code stop}, {@code mind} or {@code done}
 */
public record Warned(String mood, String words) {}
