/**
 * The ground: elevation models from files, their georeference and height system, and what follows from them (slope, relief,
 * contours, lines of sight). Nodata is never invented: where a model knows nothing, a height is not a number.
 *
 * <p>May import {@code fault}, {@code geodesy}, {@code units} and {@code block}.
 */
package yalos.core.terrain;
