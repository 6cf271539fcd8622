/**
 * A plan as rows: every quantity with its figure, whether it is pinned, and why it is what it is.
 *
 * <p>May import {@code plan} and what lies below it.
 */
package yalos.core.ledger;
