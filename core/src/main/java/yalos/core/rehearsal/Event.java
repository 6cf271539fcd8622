package yalos.core.rehearsal;

/**
 * Something that happened.
 *
 * @param who pressed it; empty for what happens by itself
 */
public record Event(double seconds, String kind, String words, String who) {}
