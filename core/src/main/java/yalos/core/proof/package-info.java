/**
 * Proof: what each bit of ground is given. Over level ground for now.
 *
 * <p>May import {@code camera}, {@code block} and {@code strips}.
 */
package yalos.core.proof;
