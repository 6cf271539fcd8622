package yalos.web.keep;

import java.util.List;

/**
 * What an archive says of itself; its last entry.
 *
 * @param format always {@value #FORMAT}
 * @param version of the archive's layout
 * @param schema of the database it was written from
 * @param made when, by the clock of the machine
 * @param files every other entry with its size and sum
 */
record Manifest(
        String format, Integer version, Integer schema, String program, String made, String job, List<Part> files) {
    static final String NAME = "manifest.json";
    static final String FORMAT = "yalos-job";
    /** Grows when an older program could not read what a newer one writes. */
    static final int VERSION = 1;

    /** An entry. */
    record Part(String name, Long bytes, String sha256) {}
}
