/** What must never be lost: a job as one file, out and in again; copies of all data; the bin. */
package yalos.web.keep;
