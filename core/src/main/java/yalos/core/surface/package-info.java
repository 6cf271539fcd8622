/**
 * What can be seen, as cells with a place and a normal: ground, walls, roofs and undersides; and what stands in the way.
 *
 * <p>May import {@code terrain}, {@code site} and what lies below them.
 */
package yalos.core.surface;
