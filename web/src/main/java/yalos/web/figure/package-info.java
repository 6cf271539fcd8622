/** Charts as SVG, from one small set of marks: axis, tick, line, band, bar, text; the same in all looks and in print. */
package yalos.web.figure;
