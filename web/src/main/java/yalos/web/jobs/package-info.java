/** The jobs page: jobs with their blocks, made, renamed, copied, deleted. */
package yalos.web.jobs;
