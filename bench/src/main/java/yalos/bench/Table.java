package yalos.bench;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The rows of the report. */
final class Table {
    private static final Path REPORT = Path.of("docs/benchmarks.md");

    private final List<String> rows = new ArrayList<>();

    /** A row as it stands, where a ratio says nothing. */
    void add(String row) {
        rows.add(row);
    }

    /** A figure against a baseline measured in the same run. */
    void row(String what, double ms, String baseline, double baselineMs, String target) {
        rows.add("| %s | %s | %s | %s | %.2f | %s |"
                .formatted(what, time(ms), baseline, time(baselineMs), baselineMs / ms, target));
    }

    static String time(double ms) {
        return ms >= 1000
                ? "%.1f s".formatted(ms / 1000)
                : ms >= 10 ? "%.0f ms".formatted(ms) : "%.2f ms".formatted(ms);
    }

    void report() throws IOException {
        StringBuilder text = new StringBuilder();
        text.append("# Benchmarks\n\n")
                .append(
                        "Made by `./yalos bench`. Times are of one machine on one day and say little; the ratio, baseline over ours in the\n")
                .append(
                        "same run, says more: above 1 ours is quicker. Targets are those the project set itself. %d processors, Java %s.\n\n"
                                .formatted(Runtime.getRuntime().availableProcessors(), Runtime.version()))
                .append("| measured | time | baseline | its time | ratio | target |\n|---|---|---|---|---|---|\n");
        rows.forEach(row -> text.append(row).append('\n'));
        text.append(
                        "\nMemory of a proof: 2 bytes a cell for each count, 4 for each other layer, 26 for all of them; besides them the ground's\n")
                .append("heights, 4 bytes a cell. Nothing else grows with the cells.\n");
        Files.createDirectories(REPORT.getParent());
        Files.writeString(REPORT, text.toString());
        PrintStream out = System.out;
        out.println(text);
    }
}
