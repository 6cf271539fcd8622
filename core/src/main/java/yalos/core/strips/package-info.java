/**
 * Strips over a block: how far apart, in which direction, in which order, with which exposure stations, and how long it
 * takes to fly them.
 *
 * <p>May import {@code fault}, {@code geodesy}, {@code block}, {@code camera} and {@code kit}.
 */
package yalos.core.strips;
