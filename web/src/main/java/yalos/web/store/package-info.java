/** What is kept: jobs, blocks with every step of their facts, cameras, preferences. H2 through MyBatis. */
package yalos.web.store;
