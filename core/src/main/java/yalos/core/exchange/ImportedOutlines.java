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
 * @param candidates areas
 * @param axes lines that a corridor can follow; not both are empty
 * @param remarks whole sentences, such as that a ring was closed
 */
public record ImportedOutlines(List<Candidate> candidates, List<Axis> axes, List<String> remarks) {

    /** One outline with the name it has in the file. */
    public record Candidate(String name, Outline outline) {}

    /** A line with the name it has in the file. */
    public record Axis(String name, List<LonLat> line) {}

    /**
     * The areas, for readers that can use nothing else.
     *
     * @throws InputFault when there are only lines
     */
    public List<Candidate> areas() {
        if (candidates.isEmpty()) {
            throw new InputFault("file", "no area", "The file holds lines only. Export the boundary as a polygon.");
        }
        return candidates;
    }

    /** How many there are to choose from: areas first, then lines. */
    public int choices() {
        return candidates.size() + axes.size();
    }

    /** The same with other remarks. */
    public ImportedOutlines with(List<String> others) {
        return new ImportedOutlines(candidates, axes, others);
    }

    public ImportedOutlines {
        candidates = List.copyOf(candidates);
        axes = List.copyOf(axes);
        remarks = List.copyOf(remarks);
    }

    /** Collects what a reader finds. */
    public static final class Collector {
        private final List<Candidate> candidates = new ArrayList<>();
        private final List<Axis> axes = new ArrayList<>();
        private final List<Axis> lines = new ArrayList<>();
        private final List<String> remarks = new ArrayList<>();

        /** Adds an outline that was found in the file. */
        public void add(String name, Outline outline) {
            candidates.add(new Candidate(called(name, "Outline " + (candidates.size() + 1)), outline));
        }

        /** Adds a line that was found in the file, if it leads anywhere. It counts only where there is no area. */
        public void line(String name, List<LonLat> line) {
            if (line.stream().distinct().count() > 1) {
                lines.add(new Axis(called(name, "Line " + (lines.size() + 1)), line));
            }
        }

        /** Adds a line that may well be meant, whatever else the file holds. */
        public void axis(String name, List<LonLat> line) {
            if (line.stream().distinct().count() > 1) {
                axes.add(new Axis(called(name, "Line " + (axes.size() + 1)), line));
            }
        }

        private static String called(String name, String otherwise) {
            String called = name == null || name.isBlank() ? otherwise : name.strip();
            return called.length() > 80 ? called.substring(0, 80) : called;
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
            if (candidates.isEmpty() && axes.isEmpty()) {
                axes.addAll(lines);
            }
            if (candidates.isEmpty() && axes.isEmpty()) {
                throw new InputFault(
                        "file",
                        "no area",
                        "The %s holds no area and no line. Export the boundary as a polygon, or the axis of a corridor as a line."
                                .formatted(format));
            }
            return new ImportedOutlines(candidates, axes, remarks);
        }
    }
}
