package yalos.core.proof;

/**
 * Connected ground inside the block that too few photos see.
 *
 * @param areaM2 its size
 * @param x a place in it, in the block's plane
 * @param y a place in it
 * @param leastPhotos the fewest photos any of its cells is seen on
 * @param atEdge whether it touches the block's boundary; then a margin helps
 */
public record WeakSpot(double areaM2, double x, double y, int leastPhotos, boolean atEdge) {}
