package yalos.web;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/** Starts the real application once for the whole suite, on a free port, with a data folder of its own. */
public final class RunningYalos implements BeforeAllCallback {
    private static final ExtensionContext.Namespace SPACE = ExtensionContext.Namespace.create(RunningYalos.class);
    private static ConfigurableApplicationContext application;

    @Override
    public void beforeAll(ExtensionContext context) {
        context.getRoot().getStore(SPACE).getOrComputeIfAbsent("application", key -> start());
    }

    private static AutoCloseable start() {
        application = application(newFolder(), 0);
        return () -> application.close();
    }

    /** An application of one's own, for tests that stop or restart it. */
    public static ConfigurableApplicationContext application(Path data, int port, String... more) {
        return run(
                data,
                port,
                false,
                Stream.concat(Stream.of("--yalos.warm-up=false"), Stream.of(more))
                        .toArray(String[]::new));
    }

    /** The same as somebody starts it, warmed up in the background. */
    public static ConfigurableApplicationContext asStarted(Path data) {
        return run(data, 0, false);
    }

    /** An application of one's own with the demo job, without the photos of its take: painting them takes a while. */
    public static ConfigurableApplicationContext demo() {
        return run(newFolder(), 0, true, "--yalos.demo-take=false", "--yalos.warm-up=false");
    }

    /** As somebody starts it, warmed up in the background. */
    public static ConfigurableApplicationContext demoAsStarted() {
        return run(newFolder(), 0, true, "--yalos.demo-take=false");
    }

    /** The same with its photos, which are there some time after it stands. */
    public static ConfigurableApplicationContext demoWithTake() {
        return run(newFolder(), 0, true, "--yalos.warm-up=false");
    }

    /** Returns when what runs has warmed itself up. */
    public static void warmedUp() throws InterruptedException {
        for (Thread thread : Thread.getAllStackTraces().keySet()) {
            if (thread.getName().equals("warm-up")) {
                thread.join();
            }
        }
    }

    private static ConfigurableApplicationContext run(Path data, int port, boolean demo, String... more) {
        Stream<String> own = Stream.of(
                "--server.port=" + port,
                "--yalos.data=" + data,
                "--yalos.demo=" + demo,
                "--spring.main.register-shutdown-hook=false");
        return YalosApplication.start(Stream.concat(own, Stream.of(more)).toArray(String[]::new));
    }

    public static Path newFolder() {
        try {
            return Files.createTempDirectory("yalos-test");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static int portOf(ConfigurableApplicationContext context) {
        return ((WebServerApplicationContext) context).getWebServer().getPort();
    }

    public static String url() {
        return "http://127.0.0.1:" + portOf(application);
    }

    public static <T> T bean(Class<T> type) {
        return application.getBean(type);
    }
}
