/**
 * Maps to work on: pyramids of picture tiles in open forms, which tile of them covers a piece of the job's grid, and where each pixel of it
 * lies. A map is only looked at; nothing is planned or measured by it.
 *
 * <p>May import {@code fault} and {@code geodesy}.
 */
package yalos.core.basemap;
