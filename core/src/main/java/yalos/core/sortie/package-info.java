/** From take-off to landing: what the battery gives, where a plan is cut, from where it is flown, what is seen and how it comes home. */
package yalos.core.sortie;
