/**
 * The interface: one package for each stage of the order of work, and few shared ones: {@code shell} (the frame round
 * every page), {@code store} (what is kept), {@code block} (one block opened, changed, undone), {@code sheet} (the plan
 * sheet). Controllers translate; the core computes.
 */
package yalos.web;
