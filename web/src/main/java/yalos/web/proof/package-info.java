/** The Proof stage: how often each bit of ground is seen. */
package yalos.web.proof;
