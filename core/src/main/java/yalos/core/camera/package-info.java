/**
 * What a camera sees: pixel pitch, fields of view, footprint, GSD per axis, and single rays between image and ground.
 *
 * <p>May import {@code fault}.
 */
package yalos.core.camera;
