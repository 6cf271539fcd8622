/**
 * What a whole block will be worth before a photo is taken: the covariance of its bundle adjustment, linearised at the plan.
 *
 * <p>May import {@code fault} and {@code camera}. Factorising is the linear algebra library's.
 */
package yalos.core.network;
