/** The Field pack stage: one document on paper and as a file, open files in a zip, checklists that are signed, and what comes back from the field. */
package yalos.web.pack;
