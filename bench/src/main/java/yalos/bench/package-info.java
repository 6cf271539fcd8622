/** Speed figures, each against a named baseline in the same run. {@code ./yalos bench} runs them all. */
package yalos.bench;
