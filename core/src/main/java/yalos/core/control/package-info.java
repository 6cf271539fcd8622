/**
 * Control and check points: where they go, what they make a block worth, how they are walked to, and whether they were measured well. The network of a plan is built here and
 * adjusted in {@code yalos.core.network}.
 */
package yalos.core.control;
