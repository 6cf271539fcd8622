/**
 * What is flown: the aircraft and its pace.
 *
 * <p>May import {@code fault} and {@code camera}.
 */
package yalos.core.kit;
