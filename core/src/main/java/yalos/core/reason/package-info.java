/**
 * Why a figure is what it is: formula, the numbers put in, and the limit that binds. One mechanism for every derived
 * quantity, shown by the interface and printed.
 *
 * <p>Imports {@code units} only.
 */
package yalos.core.reason;
