/**
 * How the core says that something put in cannot be right.
 *
 * <p>Imports nothing of the core; every other package may import it.
 */
package yalos.core.fault;
