/** Open data in and out: outlines from files, plans to files. GeoJSON lives here because it needs a JSON library. */
package yalos.web.exchange;
