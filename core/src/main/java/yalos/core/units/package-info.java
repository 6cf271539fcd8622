/**
 * Units at the border: typed and shown quantities become SI doubles here and nowhere else.
 *
 * <p>Inside the core a number carries its SI unit in its name ({@code heightM}, {@code speedMps}, {@code yawRad}).
 * May import {@code fault} only.
 */
package yalos.core.units;
