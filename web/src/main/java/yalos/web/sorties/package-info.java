/** The Sorties stage: sorties and their launch points, sight, heights and fences, the day with its light and weather, batteries and papers. */
package yalos.web.sorties;
