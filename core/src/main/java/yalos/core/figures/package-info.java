/** Rows of figures: their middle, their spread. Below everything. */
package yalos.core.figures;
