package yalos.core.exchange;

import java.util.ArrayList;
import java.util.List;
import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/**
 * What a file or a pasted text holds: one or more outlines to choose from, and what the operator should know about the
 * reading.
 *
 * @param candidates never empty
 * @param remarks whole sentences, such as that a ring was closed
 */
public record ImportedOutlines(List<Candidate> candidates, List<String> remarks) {

    /** One outline with the name it has in the file. */
    public record Candidate(String name, Outline outline) {}

    public ImportedOutlines {
        candidates = List.copyOf(candidates);
        remarks = List.copyOf(remarks);
    }

    /** Collects what a reader finds. */
    public static final class Collector {
        private final List<Candidate> candidates = new ArrayList<>();
        private final List<String> remarks = new ArrayList<>();

        /** Adds an outline that was found in the file. */
        public void add(String name, Outline outline) {
            String called = name == null || name.isBlank() ? "Outline " + (candidates.size() + 1) : name.strip();
            candidates.add(new Candidate(called.length() > 80 ? called.substring(0, 80) : called, outline));
        }

        /** Adds a sentence about what was left out or changed. */
        public void remark(String sentence) {
            if (!remarks.contains(sentence)) {
                remarks.add(sentence);
            }
        }

        /**
         * A ring without its closing corner; says so when the file left it open.
         *
         * @throws InputFault for fewer than three different corners
         */
        public List<LonLat> ring(List<LonLat> corners, String name) {
            long distinct = corners.stream().distinct().count();
            if (distinct < 3) {
                throw new InputFault(
                        "file",
                        distinct + " corners",
                        "“%s” has a ring of %d different corners; an outline needs at least 3."
                                .formatted(name, distinct));
            }
            if (corners.get(0).equals(corners.get(corners.size() - 1))) {
                return corners.subList(0, corners.size() - 1);
            }
            remark("The ring of “%s” was not closed; its last corner now joins the first.".formatted(name));
            return corners;
        }

        /**
         * @param format for the message
         * @throws InputFault when nothing was found
         */
        public ImportedOutlines finish(String format) {
            if (candidates.isEmpty()) {
                throw new InputFault(
                        "file", "no area", "The %s holds no area. Export the boundary as a polygon.".formatted(format));
            }
            return new ImportedOutlines(candidates, remarks);
        }
    }
}
