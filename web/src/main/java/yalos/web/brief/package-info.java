/** The Brief stage: what is wanted, what that recommends, and what the operator said to it. */
package yalos.web.brief;
