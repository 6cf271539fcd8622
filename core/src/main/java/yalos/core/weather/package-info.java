/** Weather by the hour, and what it means for flying: go, mind or stop, each with its reason. */
package yalos.core.weather;
