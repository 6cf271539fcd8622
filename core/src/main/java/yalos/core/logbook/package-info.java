/** The log: what was flown, by whom, with what; hours and cycles added up; service that falls due; the same light and the next date of a series. */
package yalos.core.logbook;
