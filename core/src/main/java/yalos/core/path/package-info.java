/**
 * How high the aircraft flies along its path: height references, following the ground within climb limits, and what that gives
 * in clearance, GSD and overlap.
 *
 * <p>May import {@code fault}, {@code block}, {@code camera}, {@code kit}, {@code terrain}, {@code site} and {@code strips}.
 */
package yalos.core.path;
