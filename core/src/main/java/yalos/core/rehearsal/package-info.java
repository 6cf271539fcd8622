/** A simulated aircraft that flies a sortie: to rehearse it, to train on it, and to bring home a take before anything has flown. */
package yalos.core.rehearsal;
