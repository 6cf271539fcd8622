/**
 * Points as they were measured on the ground: read from tables, doubted, judged, their bases put right, held against known marks.
 */
package yalos.core.measured;
