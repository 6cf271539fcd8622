/** The plan sheet: what the map draws, as data and as pictures. */
package yalos.web.sheet;
