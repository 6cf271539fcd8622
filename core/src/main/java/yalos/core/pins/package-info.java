/**
 * Quantities, what of them the operator has fixed, and what holds where nothing is fixed.
 *
 * <p>May import {@code fault}, {@code units} and {@code kit}.
 */
package yalos.core.pins;
