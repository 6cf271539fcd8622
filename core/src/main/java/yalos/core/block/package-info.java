/**
 * The block: the area flown with one set-up. Its outline on the ellipsoid, the checks an outline must pass, and the
 * block laid into a plane of true metres for the planning.
 *
 * <p>May import {@code fault} and {@code geodesy}.
 */
package yalos.core.block;
