/** The report of a job for whoever ordered it: what was asked, how it was flown, what came of it. */
package yalos.web.report;
