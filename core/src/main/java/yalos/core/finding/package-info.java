/**
 * The program's judgement of a plan: findings with figures, places and remedies.
 *
 * <p>May import every other package of the core but {@code exchange}.
 */
package yalos.core.finding;
