package yalos.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.Collection;
import java.util.Locale;
import java.util.Optional;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.Options;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.openjdk.jmh.runner.options.TimeValue;
import yalos.core.pattern.Patterns;

/** Runs all measurements and writes them to docs/benchmarks.md. */
public final class Bench {
    private final Table table = new Table();

    private Bench() {}

    public static void main(String[] args) throws Exception {
        Locale.setDefault(Locale.ROOT);
        new Bench().run();
    }

    private void run() throws RunnerException, IOException, InterruptedException, SQLException {
        Collection<RunResult> results = new Runner(options()).run();
        int stations = Samples.block(true).plan().photos();
        int photos = Samples.squareKilometre().plan().photos();
        double plan = milliseconds(results, "PlanBench.plan") / 1000;
        double bands = milliseconds(results, "PlanBench.planBandsByJts") / 1000;
        double best = milliseconds(results, "PlanBench.best") / 1000;
        double layouts = milliseconds(results, "PlanBench.bestByWholeLayouts") / 1000;
        double count = milliseconds(results, "CountBench.count");
        double plain = 100 * milliseconds(results, "CountBench.countCellByPhoto");
        table.row(
                "plan of %,d stations".formatted(stations),
                plan,
                "bands cut by the geometry library, no stations",
                bands,
                "5 ms");
        table.row("best of 360 directions for it", best, "360 whole flights", layouts, "60 ms");
        table.row(
                "count grid of %,d photos, 1 km² at 0.5 m".formatted(photos),
                count,
                "every cell against every photo (1 % measured, times 100)",
                plain,
                "");
        Optional<Double> gdal = GdalBaseline.milliseconds();
        if (gdal.isPresent()) {
            table.row("the same", count, "gdal_rasterize -add of the same footprints", gdal.get(), "5 times faster");
        } else {
            table.add("| the same | | gdal_rasterize is not installed | | | |");
        }
        solve(results);
        ground();
        ServedFigures served = ServedFigures.measure();
        table.row(
                "ledger change over HTTP, 95th percentile, %,d stations".formatted(served.stations()),
                served.changeP95Ms(),
                "GET /icon.svg, 95th percentile",
                served.staticP95Ms(),
                "80 ms");
        table.row(
                "the first ledger change after a start, eight seconds later",
                served.firstChangeMs(),
                "ledger change, 95th percentile",
                served.changeP95Ms(),
                "250 ms");
        table.row(
                "the very first of a program that knows no block yet, at once",
                served.veryFirstChangeMs(),
                "ledger change, 95th percentile",
                served.changeP95Ms(),
                "");
        table.row(
                "page of the Strips stage over HTTP, 95th percentile",
                served.pageP95Ms(),
                "GET /icon.svg, 95th percentile",
                served.staticP95Ms(),
                "100 ms");
        table.row(
                "list of %,d blocks over HTTP, 95th percentile".formatted(ServedFigures.BLOCKS),
                served.listP95Ms(),
                "GET /icon.svg, 95th percentile",
                served.staticP95Ms(),
                "300 ms");
        table.row(
                "start of the built application",
                served.startMs(),
                "the same without class-data archive",
                served.plainStartMs(),
                "7 s");
        paint(served);
        space();
        load(served.load());
        DiskBench disk = DiskBench.measure();
        table.row(
                "a change on the disk before it is confirmed, one operator",
                disk.forcedMs(),
                "the same change, not forced out",
                disk.keptMs(),
                "the price of two fsyncs, %s each".formatted(Table.time(disk.fsyncMs())));
        table.row(
                "best direction over an outline of 20,000 corners",
                EdgeBench.bestDirectionMs(20_000),
                "ten times that of 2,000",
                10 * EdgeBench.bestDirectionMs(2_000),
                "1 s");
        patterns(
                PatternBench.measure(Patterns.Turns.USUAL, PatternBench.Drawn.STARS),
                PatternBench.measure(new Patterns.Turns(false, true), PatternBench.Drawn.STARS),
                PatternBench.measure(Patterns.Turns.USUAL, PatternBench.Drawn.WINGS));
        wings(WingBench.measure());
        network(NetworkBench.measure());
        sorties(SortieBench.measure());
        RehearsalBench rehearsal = RehearsalBench.measure();
        table.row(
                "45 minutes in the air simulated, a tenth of a second at a time",
                rehearsal.simulatedMs(),
                "place and battery asked of the closed forms as often",
                rehearsal.sampledMs(),
                "1 s");
        take(TakeBench.measure());
        faces(FacesBench.measure());
        table.row(
                "plan of a square kilometre at 0.38 cm, direction fixed",
                PatternBench.hugeMs(true),
                "the same at 2 cm, direction free",
                PatternBench.hugeMs(false),
                "500 ms");
        table.report();
    }

    /** What the browser measured just before; see PaintTest. */
    private void paint(ServedFigures served) throws IOException {
        Path file = Path.of("bench/target/paint");
        if (!Files.exists(file)) {
            return;
        }
        double[] ms = Arrays.stream(Files.readString(file).split(" "))
                .mapToDouble(Double::parseDouble)
                .toArray();
        table.row(
                "nudge until sheet and ledger are on the screen, demo block A, 95th percentile",
                ms[1],
                "ledger change over HTTP, 95th percentile",
                served.changeP95Ms(),
                "100 ms");
        table.row(
                "the same, in the middle", ms[3], "ledger change over HTTP, 95th percentile", served.changeP95Ms(), "");
        table.row(
                "the first of them after a start, once it has warmed itself up",
                ms[0],
                "the 95th percentile",
                ms[1],
                "250 ms");
        table.row("the first of them while it still does", ms[4], "the 95th percentile", ms[1], "");
        String page = "page from nothing until its plan is on the screen, 95th percentile";
        table.row(
                "another stage, from the press that is let go until it is on the screen, 95th percentile",
                ms[5],
                page,
                ms[2],
                "100 ms");
        table.row("the same, in the middle", ms[6], page, ms[2], "");
        table.row("another stage by its key, 95th percentile", ms[7], page, ms[2], "100 ms");
        table.row("the same, in the middle", ms[8], page, ms[2], "");
        String worked = "until the map has drawn it and can be worked on";
        table.row(page, ms[2], worked, ms[11], "100 ms");
        table.row("the same, in the middle", ms[10], worked, ms[12], "");
        table.row(
                "page from nothing until it can be worked on, 95th percentile",
                ms[11],
                "a page on which nothing is drawn, with the same styles and scripts",
                ms[9],
                "");
    }

    private void space() throws IOException {
        Path file = Path.of("bench/target/space");
        if (!Files.exists(file)) {
            return;
        }
        String[] figures = Files.readString(file).split(" ");
        double frames = Double.parseDouble(figures[1]);
        double most = Double.parseDouble(figures[2]);
        table.row(
                "a frame of the look from anywhere while it turns, %s photos, drawn by the processor"
                        .formatted(figures[0]),
                1000 / frames,
                "a frame of a page that changes nothing",
                1000 / most,
                "33 ms (30 frames a second)");
    }

    /** Times against the least possible, area over strip spacing and speed. */
    private void patterns(PatternBench bench, PatternBench rounded, PatternBench wings) {
        table.add(
                "| flight time over the least possible, 1,000 concave outlines, mean | %.3f | one sweep in its best direction | %.3f | %.2f | 1.4 |"
                        .formatted(bench.mean(), bench.single(), bench.single() / bench.mean()));
        table.add("| the same, worst; %d of them slower than one sweep | %.3f |  |  |  | none slower |"
                .formatted(bench.slower(), bench.worst()));
        table.add("| saved on the %d that are flown in cells | %.1f %% |  |  |  | 5 %% |"
                .formatted(bench.cells(), bench.saved() * 100));
        table.add(
                "| flight time over the least possible, turns rounded; %d of them slower than one sweep | %.3f | turns square | %.3f | %.2f | 1.4 |"
                        .formatted(rounded.slower(), rounded.mean(), bench.mean(), bench.mean() / rounded.mean()));
        table.add(
                "| flight time over the least possible, 1,000 outlines with wings; %d of them slower than one sweep | %.3f | one sweep in its best direction | %.3f | %.2f |  |"
                        .formatted(wings.slower(), wings.mean(), wings.single(), wings.single() / wings.mean()));
        table.add("| saved on the %d of these that are flown in cells | %.1f %% |  |  |  | 5 %% |"
                .formatted(wings.cells(), wings.saved() * 100));
        table.row(
                "plan of a concave outline, cells tried",
                bench.planMs(),
                "one sweep alone",
                bench.singleMs(),
                "100 ms");
    }

    private void take(TakeBench bench) {
        double all = bench.readMs() + bench.matchedMs() + bench.provedMs();
        table.row(
                "1,000 photos of 10 MB read, matched, proved", all, "every byte of them read", bench.bytesMs(), "60 s");
        table.row("what they say of themselves read", bench.readMs(), "every byte of them read", bench.bytesMs(), "");
        table.row("each with its station, pictures judged", bench.matchedMs(), "the same proved", bench.provedMs(), "");
        table.row(
                "proved as flown, a quarter of a million cells", bench.provedMs(), "as planned", bench.plannedMs(), "");
        table.row("a picture of 20 megapixels looked at", bench.seenMs(), "decoded whole", bench.decodedMs(), "");
    }

    private void faces(FacesBench bench) {
        table.row(
                "40 walls proved, %,d cells of 5 cm, 1,200 photos, all layers".formatted(bench.cells()),
                bench.provedMs(),
                "every cell against every photo (1 % measured, times 100, shared by the processors)",
                bench.plainMs(),
                "50 times faster");
    }

    private void wings(WingBench bench) {
        table.row(
                "finest GSD of a wing for 2 battery sets over a concave outline",
                bench.solveMs(),
                "the same for a multirotor",
                bench.rotorMs(),
                "500 ms");
        table.row(
                "plan of %d strips of a wing, the best order chosen".formatted(bench.strips()),
                bench.orderMs(),
                "every order and direction of them tried",
                bench.allMs(),
                "");
        table.add("| turns of that order | %.1f m | the least of all orders | %.1f m | %.3f | 1.000 |"
                .formatted(bench.turnsM(), bench.leastM(), bench.leastM() / bench.turnsM()));
    }

    private void sorties(SortieBench bench) {
        table.row(
                "2,000 stations cut into sorties",
                bench.splitMs(),
                "plain loops, every piece looked at whole",
                bench.plainMs(),
                "100 ms");
        table.row(
                "launch points of a square kilometre, 2,500 places",
                bench.searchMs(),
                "sorties cut properly from each (10 measured, taken for all)",
                bench.eachMs(),
                "3 s");
        table.row(
                "shadows of one hour on 1 million cells",
                bench.shadeMs(),
                "rays marched metre by metre (1 % measured, times 100, shared by the processors)",
                bench.marchedMs(),
                "300 ms");
    }

    private void network(NetworkBench bench) {
        table.row(
                "expected accuracy of 200 photos and 600 points",
                bench.smallMs(),
                "a matrix of as many unknowns inverted by the linear algebra library",
                bench.denseMs(),
                "1 s");
        table.row(
                "expected accuracy of 1,500 photos and 4,000 points",
                bench.largeMs(),
                "7.5 times that of 200",
                7.5 * bench.smallMs(),
                "20 s");
        table.row(
                "twenty layouts of control on 200 photos, adjusted once",
                bench.layoutsMs(),
                "the same, each adjusted by itself",
                bench.eachMs(),
                "1 s");
    }

    private void load(LoadRun load) {
        String operators = "%d operators for a minute, %d errors".formatted(LoadRun.OPERATORS, load.errors());
        table.row(
                "pages of " + operators + ", 95th percentile",
                load.readP95Ms(),
                "GET /icon.svg under the same load",
                load.staticP95Ms(),
                "300 ms");
        table.row(
                "changes of the same, 95th percentile",
                load.changeP95Ms(),
                "GET /icon.svg under the same load",
                load.staticP95Ms(),
                "500 ms");
        table.add("| memory of the process after a minute of it | %.0f MB | after 20 s | %.0f MB | %.2f | steady |"
                .formatted(load.megabytesLate(), load.megabytesEarly(), load.megabytesEarly() / load.megabytesLate()));
    }

    private void solve(Collection<RunResult> results) {
        table.row(
                "finest GSD for 2 battery sets, direction free",
                milliseconds(results, "PlanBench.solveByBatteries") / 1000,
                "GSDs tried one after the other, a hundredth of a centimetre apart",
                milliseconds(results, "PlanBench.solveByWalking") / 1000,
                "150 ms");
    }

    /** Single shots: a proof takes long enough to be timed once at a time. */
    private void ground() throws RunnerException {
        Collection<RunResult> counts = new Runner(shots("count", "500", "1000", "3160")).run();
        Collection<RunResult> every = new Runner(shots("everyLayer", "1000")).run();
        Collection<RunResult> plain = new Runner(shots("plain", "1000")).run();
        int processors = Runtime.getRuntime().availableProcessors();
        double million = milliseconds(counts, "count", "1000");
        double baseline = 100 * milliseconds(plain, "plain", "1000") / processors;
        String photos = "%,d photos".formatted(GroundBench.photos(1000).size());
        table.row(
                "proof with occlusion, 1 million cells, " + photos,
                million,
                "every cell against every photo, rays marched (1 % measured, times 100, shared by the processors)",
                baseline,
                "1.5 s, 100 times faster");
        table.row("the same with every layer", milliseconds(every, "everyLayer", "1000"), "photos alone", million, "");
        double quarter = milliseconds(counts, "count", "500");
        table.row(
                "a quarter of a million cells, %,d photos"
                        .formatted(GroundBench.photos(500).size()),
                quarter,
                "a quarter of the million's time",
                million / 4,
                "grows with what is seen");
        table.row(
                "ten million cells, %,d photos"
                        .formatted(GroundBench.photos(3160).size()),
                milliseconds(counts, "count", "3160"),
                "ten times the million's time",
                million * 10,
                "grows with what is seen");
    }

    private static Options shots(String name, String... sides) {
        return new OptionsBuilder()
                .include("yalos.bench.GroundBench." + name + "$")
                .param("side", sides)
                .forks(1)
                .warmupIterations(3)
                .measurementIterations(5)
                .build();
    }

    private static double milliseconds(Collection<RunResult> results, String name, String side) {
        return results.stream()
                .filter(result -> result.getParams().getBenchmark().endsWith("." + name))
                .filter(result -> result.getParams().getParam("side").equals(side))
                .findFirst()
                .orElseThrow()
                .getPrimaryResult()
                .getScore();
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
}
