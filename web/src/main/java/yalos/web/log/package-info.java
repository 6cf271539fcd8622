/** The Log stage: flights as they were flown, hours and cycles, service, the job's report, the same again next season. */
package yalos.web.log;
