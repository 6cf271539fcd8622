/** How good the delivered map is: residuals of points that were measured on the ground, what a standard makes of them, and what their pattern suggests. */
package yalos.core.accuracy;
