/** GeoPackages that are written: vector layers in one SQLite file. */
package yalos.web.gpkg;
