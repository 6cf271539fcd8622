/**
 * The brief: what must be delivered, how the day goes, what is packed, and what follows from it for GSD, overlap, pattern, positioning, control and light. Every
 * piece of advice has its reason and says whether it is published or common practice.
 *
 * <p>May import {@code fault}, {@code units}, {@code camera}, {@code kit} and {@code ledger}.
 */
package yalos.core.brief;
