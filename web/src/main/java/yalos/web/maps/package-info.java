/**
 * Maps under the sheet: packages that lie in the data folder and web maps whose tiles are kept, painted into the job's grid. Nothing is
 * planned by them, and nothing is fetched until somebody asks for it.
 */
package yalos.web.maps;
