package yalos.web.door;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.coyote.InputBuffer;
import org.apache.tomcat.util.net.ApplicationBufferHandler;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** Who comes in, who does not, and that nothing is read of what is refused. */
@ExtendWith(RunningYalos.class)
class DoorTest {
    private static int port() {
        return Integer.parseInt(RunningYalos.url().replaceFirst(".*:", ""));
    }

    /** A request as it goes over the wire; the answer's first line and all behind it. */
    private static String raw(int port, String request) {
        try (Socket socket = new Socket("127.0.0.1", port)) {
            socket.getOutputStream().write(request.replace("\n", "\r\n").getBytes(StandardCharsets.UTF_8));
            socket.getOutputStream().flush();
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @ParameterizedTest
    @CsvSource({
        "127.0.0.1, true",
        "localhost:8080, true",
        "[::1]:8080, true",
        "evil.example, false",
        "192.168.1.7, false",
        "127.0.0.1.evil.example:80, false",
        "'', false",
        "localhost.evil.example, false",
    })
    void overLoopbackItAnswersToItselfAlone(String host, boolean answers) {
        assertThat(new Doorway("127.0.0.1", "").answersTo(host)).isEqualTo(answers);
    }

    @ParameterizedTest
    @CsvSource({"192.168.1.7:8080, true", "field-tablet, true", "FIELD-TABLET:8443, true", "evil.example, false"})
    void overTheNetworkItAnswersToNumbersAndItsNames(String host, boolean answers) {
        assertThat(new Doorway("0.0.0.0", "field-tablet").answersTo(host)).isEqualTo(answers);
    }

    @Test
    void aNamePointedAtThisMachineReadsNothing() {
        for (String path : new String[] {"/jobs", "/api/openapi", "/blocks/1/sheet.json"}) {
            String answer = raw(port(), "GET " + path + " HTTP/1.1\nHost: evil.example\nConnection: close\n\n");
            assertThat(answer).startsWith("HTTP/1.1 421").contains("is not an address Yalos was started with");
        }
        assertThat(raw(port(), "GET /jobs HTTP/1.1\nHost: localhost\nConnection: close\n\n"))
                .contains("Cross-Origin-Resource-Policy: same-origin", "Cross-Origin-Opener-Policy: same-origin");
    }

    @ParameterizedTest
    @CsvSource({
        "Origin: http://evil.example",
        "Origin: null",
        "Sec-Fetch-Site: cross-site",
        "Sec-Fetch-Site: same-site",
        "Origin: http://localhost:1",
    })
    void aChangeFromAnotherSiteIsRefused(String header) {
        for (String path : new String[] {"/jobs", "/api/plan", "/blocks/1/models"}) {
            String answer = raw(
                    port(),
                    "POST " + path + " HTTP/1.1\nHost: 127.0.0.1:" + port() + "\n" + header
                            + "\nContent-Type: application/x-www-form-urlencoded\nContent-Length: 6\nConnection: close\n\nname=x");
            assertThat(answer).startsWith("HTTP/1.1 403").contains("another site sent this");
        }
    }

    /** Sizes and targets are looked at before the body: the answer comes though the body never does. */
    @ParameterizedTest
    @CsvSource({
        "/blocks/1/import, 3000000000, X-XSRF-TOKEN: x, 413",
        "/blocks/987654321/models, 1000000, X-XSRF-TOKEN: x, 404",
        "/blocks/987654321/models, 1000000, X-Nothing: x, 403",
    })
    void nothingIsReadOfWhatIsRefused(String path, long size, String header, int status) throws IOException {
        try (Socket socket = new Socket("127.0.0.1", port())) {
            socket.getOutputStream()
                    .write(("POST " + path + " HTTP/1.1\r\nHost: localhost\r\n" + header
                                    + "\r\nExpect: 100-continue\r\nContent-Type: multipart/form-data; boundary=x\r\nContent-Length: "
                                    + size + "\r\n\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            byte[] first = socket.getInputStream().readNBytes(12);
            assertThat(new String(first, StandardCharsets.US_ASCII)).isEqualTo("HTTP/1.1 " + status);
        }
    }

    @Test
    void addressesOfFormsCarryNoToken() {
        Visitor visitor = new Visitor(RunningYalos.url());
        long block = visitor.newBlock("No token in addresses", "47.5115, 9.8680");
        for (String page :
                new String[] {"/blocks/" + block + "/ground", "/catalogue", "/blocks/" + block + "/strips"}) {
            String body = visitor.get(page).body();
            assertThat(body).doesNotContain("_csrf=");
            assertThat(body).contains("name=\"_csrf\"");
        }
    }

    @Test
    void aBodyThatDripsIsGivenUp() throws IOException {
        AtomicLong clock = new AtomicLong();
        InputBuffer drips = new InputBuffer() {
            @Override
            public int doRead(ApplicationBufferHandler handler) {
                clock.addAndGet(Duration.ofSeconds(2).toNanos());
                return 1;
            }

            @Override
            public int available() {
                return 0;
            }
        };
        SlowBodies.Paced paced = new SlowBodies.Paced(drips, clock::get, 1000);
        for (int i = 0; i < 10; i++) {
            assertThat(paced.doRead(null)).isEqualTo(1);
        }
        assertThatThrownBy(() -> paced.doRead(null)).isInstanceOf(SocketTimeoutException.class);
        assertThat(SlowBodies.drips(50_000_000, Duration.ofMinutes(5).toNanos()))
                .isFalse();
    }

    @Test
    void wrongPassPhrasesWaitLongerAndLonger() {
        AtomicLong clock = new AtomicLong();
        Throttle throttle = new Throttle(clock::get);
        for (int i = 0; i < 4; i++) {
            throttle.wrong("a");
        }
        assertThat(throttle.waitS("a")).isZero();
        throttle.wrong("a");
        assertThat(throttle.waitS("a")).isBetween(10L, 11L);
        assertThat(throttle.waitS("b")).isZero();
        clock.addAndGet(Duration.ofSeconds(11).toNanos());
        assertThat(throttle.waitS("a")).isZero();
        throttle.wrong("a");
        assertThat(throttle.waitS("a")).isBetween(20L, 21L);
        for (int i = 0; i < 40; i++) {
            throttle.wrong("a");
        }
        assertThat(throttle.waitS("a")).isBetween(3600L, 3601L);
        throttle.right("a");
        assertThat(throttle.waitS("a")).isZero();
    }

    /** Started for the network: the phrase is printed once, nothing is served before sign-in, names go with changes, tokens open the service. */
    @Test
    void overTheNetworkEverybodySignsIn() throws IOException {
        Path data = RunningYalos.newFolder();
        String printed = printedBy(() -> close(network(data)));
        Matcher phrase = Pattern.compile("shown this once: (\\S+)").matcher(printed);
        assertThat(phrase.find()).isTrue();
        assertThat(Files.readString(data.resolve("pass-phrase"))).doesNotContain(phrase.group(1));
        String again = printedBy(() -> {
            ConfigurableApplicationContext application = network(data);
            try {
                signInAndWork(RunningYalos.portOf(application), phrase.group(1));
            } finally {
                close(application);
            }
        });
        assertThat(again).doesNotContain("shown this once");
    }

    private static void signInAndWork(int port, String phrase) {
        Visitor visitor = new Visitor("http://127.0.0.1:" + port);
        for (String path :
                new String[] {"/jobs", "/units", "/blocks/1/strips", "/js/app.js", "/jobs/1/..;/", "/catalogue"}) {
            HttpResponse<String> turned = visitor.get(path);
            assertThat(turned.body())
                    .as(path)
                    .doesNotContain("Thornwane", "hx-get")
                    .containsAnyOf("Sign in", "Bad Request");
        }
        assertThat(visitor.get("/blocks/1/objects?view=3d").body())
                .as("the way back knows what was asked for")
                .contains("value=\"/blocks/1/objects?view=3d\"");
        assertThat(visitor.script("/api/plan", "{}").statusCode()).isEqualTo(401);
        assertThat(visitor.signIn("Ada Pilot", "not the phrase").statusCode()).isEqualTo(401);
        assertThat(visitor.signIn("", phrase).body()).contains("Type your name");
        assertThat(visitor.signIn("Ada Pilot", phrase).body()).contains("Sign out", "Ada Pilot");
        long block = visitor.newBlock("Over the network", "47.5115, 9.8680");
        assertThat(visitor.get("/blocks/" + block + "/history").body()).contains("by Ada Pilot");
        Matcher token = Pattern.compile("id=\"made-token\">([^<]+)<")
                .matcher(visitor.post("/tokens", "name", "nightly").body());
        assertThat(token.find()).isTrue();
        Map<String, String> bearer = Map.of("Authorization", "Bearer " + token.group(1));
        assertThat(visitor.script("/api/plan", "{}", bearer).statusCode()).isEqualTo(400);
        visitor.post("/tokens/1/revoke");
        assertThat(visitor.script("/api/plan", "{}", bearer).statusCode()).isEqualTo(401);
        visitor.post("/sign-out");
        assertThat(visitor.get("/jobs").body()).contains("Pass phrase").doesNotContain("Over the network");
    }

    private static ConfigurableApplicationContext network(Path data) {
        return RunningYalos.application(data, 0, "--server.address=0.0.0.0");
    }

    private static void close(ConfigurableApplicationContext application) {
        application.close();
    }

    private static String printedBy(Runnable work) {
        PrintStream before = System.out;
        ByteArrayOutputStream caught = new ByteArrayOutputStream();
        System.setOut(new PrintStream(caught, true, StandardCharsets.UTF_8));
        try {
            work.run();
        } finally {
            System.setOut(before);
        }
        return caught.toString(StandardCharsets.UTF_8);
    }
}
