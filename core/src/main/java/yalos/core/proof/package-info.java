/**
 * Proof: what each bit of ground is given, over level ground and over terrain with what stands in the way.
 *
 * <p>May import {@code camera}, {@code terrain}, {@code block} and {@code strips}.
 */
package yalos.core.proof;
