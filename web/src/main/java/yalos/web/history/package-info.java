/** What became of a block: its steps, issued revisions and how the present plan differs, settings kept as templates. */
package yalos.web.history;
