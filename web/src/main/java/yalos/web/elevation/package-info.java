/** Elevation models and pictures of a job: kept as files beside the database, opened for planning and drawing. */
package yalos.web.elevation;
