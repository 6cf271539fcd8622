/**
 * What if: other heights, overlaps, winds, triggers and kits tried on the same block, each a true plan.
 *
 * <p>May import {@code plan} and what lies below it.
 */
package yalos.core.trial;
