/** The frame round every page: security, preferences, errors. */
package yalos.web.shell;
