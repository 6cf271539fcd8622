package yalos.web;

import java.io.File;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.Path;

/** The application in a process of its own, which can be killed. */
public final class YalosProcess implements AutoCloseable {
    private final Process process;
    private final int port;

    private YalosProcess(Process process, int port) {
        this.process = process;
        this.port = port;
    }

    /** Starts it and returns once it answers. */
    public static YalosProcess start(Path data) throws IOException {
        int port = freePort();
        String classPath = System.getProperty("surefire.test.class.path", System.getProperty("java.class.path"));
        Process process = new ProcessBuilder(
                        System.getProperty("java.home") + File.separator + "bin" + File.separator + "java",
                        "-cp",
                        classPath,
                        "yalos.web.YalosApplication",
                        "--server.port=" + port,
                        "--yalos.data=" + data)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        YalosProcess started = new YalosProcess(process, port);
        started.await();
        return started;
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }

    /** Asks until there is an answer, as long as the process lives. */
    private void await() {
        while (process.isAlive()) {
            try {
                HttpURLConnection connection = (HttpURLConnection)
                        URI.create("http://127.0.0.1:" + port + "/jobs").toURL().openConnection();
                if (connection.getResponseCode() == 200) {
                    return;
                }
            } catch (IOException notYet) {
                Thread.onSpinWait();
            }
        }
        throw new AssertionError("the process did not start");
    }

    public Visitor visitor() {
        return new Visitor("http://127.0.0.1:" + port);
    }

    /** Ends it as a cut of the power would, and returns when it is gone. */
    public void kill() {
        try {
            process.destroyForcibly().waitFor();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() {
        kill();
    }
}
