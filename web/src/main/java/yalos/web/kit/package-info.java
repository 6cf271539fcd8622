/** The Kit stage: the operator's catalogue of cameras. */
package yalos.web.kit;
