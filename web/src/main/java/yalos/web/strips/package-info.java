/** The Strips stage: the ledger. */
package yalos.web.strips;
