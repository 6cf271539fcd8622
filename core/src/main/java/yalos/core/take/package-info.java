/** The take: what a flight's photos, positions, base log and points say of themselves, which station each photo belongs to, how good its picture is, what is missing. */
package yalos.core.take;
