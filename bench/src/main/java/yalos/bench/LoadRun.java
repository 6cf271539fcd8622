package yalos.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Fifty operators at once, each with a block of its own: a page, a change, a moment to look, and again; for a minute. One more visitor
 * fetches a static picture all the while, as the baseline of the same machine under the same load.
 */
record LoadRun(
        double readP95Ms,
        double changeP95Ms,
        double staticP95Ms,
        int errors,
        double megabytesEarly,
        double megabytesLate) {
    static final int OPERATORS = 50;
    private static final long RUN_NANOS = 60_000_000_000L;
    /** An operator looks at what came before the next change. */
    private static final long LOOKS_MS = 6000;

    static LoadRun of(ServedFigures.Server server) throws IOException, InterruptedException {
        ConcurrentLinkedQueue<Double> reads = new ConcurrentLinkedQueue<>();
        ConcurrentLinkedQueue<Double> changes = new ConcurrentLinkedQueue<>();
        ConcurrentLinkedQueue<Double> pictures = new ConcurrentLinkedQueue<>();
        AtomicInteger errors = new AtomicInteger();
        List<Long> blocks = new ArrayList<>();
        for (int i = 0; i < OPERATORS; i++) {
            blocks.add(server.newBlock("Load " + i));
        }
        long end = System.nanoTime() + RUN_NANOS;
        List<Thread> threads = new ArrayList<>();
        for (int i = 0; i < OPERATORS; i++) {
            int operator = i;
            threads.add(new Thread(() -> {
                if (!waited(LOOKS_MS * operator / OPERATORS)) {
                    return;
                }
                for (int round = 0; System.nanoTime() < end; round++) {
                    try {
                        ServedFigures.Server.Seen page = server.page(blocks.get(operator));
                        reads.add(page.ms());
                        changes.add(server.change(
                                blocks.get(operator), page.version(), 60 + operator * 0.1 + round * 0.01));
                        reads.add(server.timed("/blocks/" + blocks.get(operator) + "/sheet.json"));
                        Thread.sleep(LOOKS_MS);
                    } catch (IOException | IllegalStateException fault) {
                        errors.incrementAndGet();
                    } catch (InterruptedException stopped) {
                        return;
                    }
                }
            }));
        }
        threads.add(new Thread(() -> {
            while (System.nanoTime() < end) {
                try {
                    pictures.add(server.timed("/icon.svg"));
                    Thread.sleep(20);
                } catch (IOException fault) {
                    errors.incrementAndGet();
                } catch (InterruptedException stopped) {
                    return;
                }
            }
        }));
        threads.forEach(Thread::start);
        Thread.sleep(RUN_NANOS / 1_000_000 / 3);
        double early = megabytes(server.pid());
        for (Thread thread : threads) {
            thread.join();
        }
        return new LoadRun(p95(reads), p95(changes), p95(pictures), errors.get(), early, megabytes(server.pid()));
    }

    /** Operators do not move in step. */
    private static boolean waited(long ms) {
        try {
            Thread.sleep(ms);
            return true;
        } catch (InterruptedException stopped) {
            return false;
        }
    }

    private static double p95(ConcurrentLinkedQueue<Double> times) {
        double[] sorted =
                times.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        return sorted[(int) (sorted.length * 0.95)];
    }

    /** Memory of a process that is really taken, by Linux. */
    private static double megabytes(long pid) throws IOException {
        return Files.readAllLines(Path.of("/proc/" + pid + "/status")).stream()
                .filter(line -> line.startsWith("VmRSS:"))
                .mapToDouble(line -> Double.parseDouble(line.replaceAll("\\D", "")) / 1024)
                .findFirst()
                .orElse(Double.NaN);
    }
}
