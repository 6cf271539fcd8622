/** The demo scenario: an invented estate, written into an empty store. */
package yalos.web.demo;
