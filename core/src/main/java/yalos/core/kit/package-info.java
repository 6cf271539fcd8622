/**
 * What is flown: aircraft, batteries, camera heads, scanner, and the kit they make together.
 *
 * <p>May import {@code fault} and {@code camera}.
 */
package yalos.core.kit;
