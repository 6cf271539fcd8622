/**
 * Wind over a track: crab angle, ground speed, airspeed needed.
 *
 * <p>May import {@code fault}.
 */
package yalos.core.wind;
