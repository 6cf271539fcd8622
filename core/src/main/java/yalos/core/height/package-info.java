/**
 * Flights laid over the ground: how high the path is, with what clearance, within which climb limits.
 *
 * <p>May import {@code flight}, {@code pattern}, {@code terrain}, {@code site}, {@code block} and {@code kit}.
 */
package yalos.core.height;
