/**
 * Patterns: how the lines of a pass lie over a block, in which direction and order, with which exposures.
 *
 * <p>May import {@code flight} and what lies below it.
 */
package yalos.core.pattern;
