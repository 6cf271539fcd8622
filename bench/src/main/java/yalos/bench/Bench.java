package yalos.bench;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.Options;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.openjdk.jmh.runner.options.TimeValue;

/** Runs all measurements and writes them to docs/benchmarks.md. */
public final class Bench {
    private static final Path REPORT = Path.of("docs/benchmarks.md");

    private final List<String> rows = new ArrayList<>();

    private Bench() {}

    public static void main(String[] args) throws Exception {
        Locale.setDefault(Locale.ROOT);
        new Bench().run();
    }

    private void run() throws RunnerException, IOException, InterruptedException {
        Collection<RunResult> results = new Runner(options()).run();
        int stations = Samples.block(true).plan().photos();
        int photos = Samples.squareKilometre().plan().photos();
        double plan = milliseconds(results, "PlanBench.plan") / 1000;
        double bands = milliseconds(results, "PlanBench.planBandsByJts") / 1000;
        double best = milliseconds(results, "PlanBench.best") / 1000;
        double layouts = milliseconds(results, "PlanBench.bestByWholeLayouts") / 1000;
        double count = milliseconds(results, "CountBench.count");
        double plain = 100 * milliseconds(results, "CountBench.countCellByPhoto");
        row(
                "plan of %,d stations".formatted(stations),
                plan,
                "bands cut by the geometry library, no stations",
                bands,
                "5 ms");
        row("best of 360 directions for it", best, "360 whole layouts", layouts, "60 ms");
        row(
                "count grid of %,d photos, 1 km² at 0.5 m".formatted(photos),
                count,
                "every cell against every photo (1 % measured, times 100)",
                plain,
                "");
        Optional<Double> gdal = GdalBaseline.milliseconds();
        if (gdal.isPresent()) {
            row("the same", count, "gdal_rasterize -add of the same footprints", gdal.get(), "5 times faster");
        } else {
            rows.add("| the same | | gdal_rasterize is not installed | | | |");
        }
        ServedFigures served = ServedFigures.measure();
        row(
                "ledger change over HTTP, 95th percentile, %,d stations".formatted(served.stations()),
                served.changeP95Ms(),
                "GET /icon.svg, 95th percentile",
                served.staticP95Ms(),
                "80 ms");
        row(
                "start of the built application",
                served.startMs(),
                "the same without class-data archive",
                served.plainStartMs(),
                "7 s");
        report();
    }

    private static Options options() {
        return new OptionsBuilder()
                .include("yalos.bench.(Plan|Count)Bench")
                .forks(1)
                .warmupIterations(3)
                .warmupTime(TimeValue.seconds(1))
                .measurementIterations(5)
                .measurementTime(TimeValue.seconds(1))
                .build();
    }

    private static double milliseconds(Collection<RunResult> results, String name) {
        return results.stream()
                .filter(result -> result.getParams().getBenchmark().endsWith("." + name))
                .findFirst()
                .orElseThrow()
                .getPrimaryResult()
                .getScore();
    }

    private void row(String what, double ms, String baseline, double baselineMs, String target) {
        rows.add("| %s | %s | %s | %s | %.2f | %s |"
                .formatted(what, time(ms), baseline, time(baselineMs), baselineMs / ms, target));
    }

    private static String time(double ms) {
        return ms >= 1000
                ? "%.1f s".formatted(ms / 1000)
                : ms >= 10 ? "%.0f ms".formatted(ms) : "%.2f ms".formatted(ms);
    }

    private void report() throws IOException {
        StringBuilder text = new StringBuilder();
        text.append("# Benchmarks\n\n")
                .append(
                        "Made by `./yalos bench`. Times are of one machine on one day and say little; the ratio, baseline over ours in the\n")
                .append(
                        "same run, says more: above 1 ours is quicker. Targets are those the project set itself. %d processors, Java %s.\n\n"
                                .formatted(Runtime.getRuntime().availableProcessors(), Runtime.version()))
                .append("| measured | time | baseline | its time | ratio | target |\n|---|---|---|---|---|---|\n");
        rows.forEach(row -> text.append(row).append('\n'));
        Files.createDirectories(REPORT.getParent());
        Files.writeString(REPORT, text.toString());
        PrintStream out = System.out;
        out.println(text);
    }
}
