/** The plan service for scripts: stateless, no cookie, described in docs/api.md. */
package yalos.web.api;
