package yalos.bench;

import java.io.IOException;
import java.net.CookieManager;
import java.net.ServerSocket;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Figures of the built application, started as {@code ./yalos} starts it and asked over HTTP. */
record ServedFigures(
        double startMs,
        double plainStartMs,
        double veryFirstChangeMs,
        double firstChangeMs,
        double changeP95Ms,
        double pageP95Ms,
        double staticP95Ms,
        double listP95Ms,
        int stations,
        LoadRun load) {
    private static final Path JAR = Path.of("web/target/app/yalos.jar");
    private static final Path ARCHIVE = Path.of("web/target/yalos.jsa");
    private static final int WARM_UP = 200;
    private static final int MEASURED = 300;
    private static final long LOOKED_MS = 8_000;
    /** Blocks in the list of jobs. */
    static final int BLOCKS = 1_000;

    static ServedFigures measure() throws IOException, InterruptedException {
        Server plain = new Server(false, newData());
        plain.stop();
        Path data = newData();
        Server first = new Server(true, data);
        long block = first.newBlock("Bench");
        double veryFirst = first.change(block, 74);
        first.stop();
        Server server = new Server(true, data);
        try {
            // The operator looks for his job; the program warms itself up.
            Thread.sleep(LOOKED_MS);
            double[] change = new double[WARM_UP + MEASURED];
            double[] fetch = new double[WARM_UP + MEASURED];
            for (int i = 0; i < change.length; i++) {
                // each a height that was never planned before
                change[i] = server.change(block, 75 + i * 0.01);
                fetch[i] = server.timed("/icon.svg");
            }
            double[] page = new double[WARM_UP + MEASURED];
            for (int i = 0; i < page.length; i++) {
                page[i] = server.timed("/blocks/" + block + "/strips");
            }
            server.copies(block, BLOCKS - 1);
            double[] list = new double[WARM_UP + MEASURED];
            for (int i = 0; i < list.length; i++) {
                list[i] = server.timed("/jobs");
            }
            return new ServedFigures(
                    server.startMs,
                    plain.startMs,
                    veryFirst,
                    change[0],
                    p95(change),
                    p95(page),
                    p95(fetch),
                    p95(list),
                    server.stations(block),
                    LoadRun.of(server));
        } finally {
            server.stop();
        }
    }

    private static Path newData() throws IOException {
        return Files.createTempDirectory("yalos-bench");
    }

    private static double p95(double[] times) {
        double[] measured = Arrays.copyOfRange(times, WARM_UP, times.length);
        Arrays.sort(measured);
        return measured[(int) (measured.length * 0.95)];
    }

    static final class Server {
        private final HttpClient client = HttpClient.newBuilder()
                .cookieHandler(new CookieManager())
                .followRedirects(HttpClient.Redirect.NORMAL)
                .build();
        private final Process process;
        private final String url;
        private final double startMs;
        private String token = "";

        Server(boolean archive, Path data) throws IOException, InterruptedException {
            int port;
            try (ServerSocket socket = new ServerSocket(0)) {
                port = socket.getLocalPort();
            }
            url = "http://127.0.0.1:" + port;
            List<String> command = new ArrayList<>(List.of("java", "-XX:+UseSerialGC"));
            if (archive) {
                command.add("-XX:SharedArchiveFile=" + ARCHIVE);
            }
            command.addAll(List.of("-jar", JAR.toString(), "--server.port=" + port, "--yalos.data=" + data));
            long start = System.nanoTime();
            process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            await();
            startMs = (System.nanoTime() - start) / 1e6;
        }

        private void await() throws InterruptedException {
            for (int i = 0; i < 600; i++) {
                try {
                    Matcher matcher =
                            Pattern.compile("X-XSRF-TOKEN&quot;: &quot;([^&]+)").matcher(get("/jobs"));
                    if (matcher.find()) {
                        token = matcher.group(1);
                        return;
                    }
                } catch (IOException notYet) {
                    Thread.sleep(50);
                }
            }
            throw new IllegalStateException("the application did not start; build it first");
        }

        long pid() {
            return process.pid();
        }

        void stop() throws InterruptedException {
            process.destroy();
            process.waitFor();
        }

        long newBlock(String job) throws IOException, InterruptedException {
            HttpResponse<String> made = post("/jobs", "name", job, "place", "54.51, -4.35");
            long block = Long.parseLong(made.uri().getPath().split("/")[2]);
            post(
                    "/blocks/" + block + "/import",
                    "version",
                    version(block),
                    "stage",
                    "strips",
                    "text",
                    "54.5100 -4.3600\n54.5100 -4.3470\n54.5144 -4.3452\n54.5162 -4.3495\n54.5170 -4.3610");
            return block;
        }

        /** Milliseconds of one change of the height, its answer read. */
        double change(long block, double heightM) throws IOException, InterruptedException {
            return change(block, version(block), heightM);
        }

        /** The same from a page that was made for a version. */
        double change(long block, String version, double heightM) throws IOException, InterruptedException {
            long start = System.nanoTime();
            HttpResponse<String> answer = post(
                    "/blocks/" + block + "/ledger/height",
                    "version",
                    version,
                    "stage",
                    "strips",
                    "value",
                    String.valueOf(heightM));
            double ms = (System.nanoTime() - start) / 1e6;
            if (answer.statusCode() != 200) {
                throw new IllegalStateException(answer.body());
            }
            return ms;
        }

        /** Copies of a block beside it. */
        void copies(long block, int many) throws IOException, InterruptedException {
            for (int i = 0; i < many; i++) {
                post("/blocks/" + block + "/copy");
            }
        }

        /** A page of a block, the milliseconds it took, and the version it was made for. */
        Seen page(long block) throws IOException, InterruptedException {
            long start = System.nanoTime();
            String body = get("/blocks/" + block + "/strips");
            return new Seen((System.nanoTime() - start) / 1e6, found(body, "data-version=\"(\\d+)\""));
        }

        record Seen(double ms, String version) {}

        double timed(String path) throws IOException, InterruptedException {
            long start = System.nanoTime();
            get(path);
            return (System.nanoTime() - start) / 1e6;
        }

        int stations(long block) throws IOException, InterruptedException {
            return Integer.parseInt(found(get("/blocks/" + block + "/strips"), "id=\"f-photos\"[^>]*value=\"(\\d+)"));
        }

        private String version(long block) throws IOException, InterruptedException {
            return found(get("/blocks/" + block + "/ground"), "data-version=\"(\\d+)\"");
        }

        private static String found(String page, String pattern) {
            Matcher matcher = Pattern.compile(pattern).matcher(page);
            if (!matcher.find()) {
                throw new IllegalStateException("no " + pattern);
            }
            return matcher.group(1);
        }

        private String get(String path) throws IOException, InterruptedException {
            return client.send(
                            HttpRequest.newBuilder(URI.create(url + path)).build(),
                            HttpResponse.BodyHandlers.ofString())
                    .body();
        }

        private HttpResponse<String> post(String path, String... form) throws IOException, InterruptedException {
            StringBuilder body = new StringBuilder();
            for (int i = 0; i < form.length; i += 2) {
                body.append(form[i])
                        .append('=')
                        .append(URLEncoder.encode(form[i + 1], StandardCharsets.UTF_8))
                        .append('&');
            }
            HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(url + path))
                    .header("Content-Type", "application/x-www-form-urlencoded")
                    .header("X-XSRF-TOKEN", token)
                    .POST(HttpRequest.BodyPublishers.ofString(body.toString()));
            if (path.startsWith("/blocks")) {
                request.header("HX-Request", "true");
            }
            return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
        }
    }
}
