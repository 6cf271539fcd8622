/** The Ground stage: the outline on the sheet and as a table, import, launch point, grid. */
package yalos.web.ground;
