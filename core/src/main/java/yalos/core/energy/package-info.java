/** Power and energy of aircraft: what flying at a speed takes, from the few figures an operator has. */
package yalos.core.energy;
