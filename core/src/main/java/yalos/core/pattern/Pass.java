package yalos.core.pattern;

/**
 * One pass over a block: a pattern, and the settings it is flown with. A block is a list of them.
 */
public record Pass(Pattern pattern, Task task) {}
