/**
 * What is flown, by anyone, at any time: exposures, legs in three dimensions, whole flights, and when each place is reached.
 * The waist of the program: patterns make flights, everything later reads them.
 *
 * <p>May import {@code fault}, {@code geodesy}, {@code wind}, {@code camera}, {@code kit} and {@code block}.
 */
package yalos.core.flight;
