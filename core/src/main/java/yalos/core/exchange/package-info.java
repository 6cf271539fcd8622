/**
 * Outlines in, plans out, in open formats that need no JSON: KML, KMZ, GPX, typed coordinates, CSV. Readers refuse what
 * is hostile or broken with a message that names the place.
 *
 * <p>May import every other package of the core; none of them imports this one.
 */
package yalos.core.exchange;
