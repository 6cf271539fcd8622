/**
 * What stands on the site or hangs over it: obstacles with their heights, zones with floor and ceiling.
 *
 * <p>May import {@code fault}, {@code geodesy}, {@code block} and {@code terrain}.
 */
package yalos.core.site;
