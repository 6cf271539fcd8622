/** Heavy work, bounded: one queue for all of it, with deadlines, progress, call-off and a budget of memory. */
package yalos.web.work;
