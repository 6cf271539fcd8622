package yalos.web.door;

import java.io.IOException;
import java.net.InetAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.MapPropertySource;
import yalos.web.store.SafeFiles;
import yalos.web.store.StartRefused;

/**
 * HTTPS, where it is asked for: by the key store that is named, or by a certificate of one's own, made at the first such start and kept.
 * Browsers warn of the latter once on each device.
 */
public final class SelfSigned implements ApplicationContextInitializer<ConfigurableApplicationContext> {
    private static final String TYPE = "PKCS12";
    private static final String DAYS = "825";

    @Override
    public void initialize(ConfigurableApplicationContext context) {
        ConfigurableEnvironment settings = context.getEnvironment();
        if (!settings.getProperty("yalos.https", Boolean.class, false)) {
            return;
        }
        Path data = Path.of(settings.getProperty("yalos.data", "./data"));
        String given = settings.getProperty("yalos.key-store", "");
        try {
            Path store = given.isEmpty() ? data.resolve("certificate.p12") : Path.of(given);
            Path passwordFile = given.isEmpty()
                    ? data.resolve("certificate-password")
                    : Path.of(settings.getProperty("yalos.key-store-password-file", ""));
            if (given.isEmpty() && !Files.exists(store)) {
                make(store, passwordFile, settings.getProperty("server.address", "127.0.0.1"));
            }
            Map<String, Object> https = new HashMap<>();
            https.put("server.ssl.enabled", "true");
            https.put("server.ssl.key-store", store.toAbsolutePath().toString());
            https.put("server.ssl.key-store-type", TYPE);
            https.put(
                    "server.ssl.key-store-password",
                    Files.readString(passwordFile).strip());
            settings.getPropertySources().addFirst(new MapPropertySource("https", https));
        } catch (IOException e) {
            throw new StartRefused("The key store or its password cannot be read: " + e.getMessage());
        }
    }

    /** By the Java kit's own tool; written aside, so that a killed start leaves none half-made. */
    private static void make(Path store, Path passwordFile, String address) throws IOException {
        SafeFiles.write(passwordFile, Secrets.token().getBytes(StandardCharsets.US_ASCII));
        Path aside = store.resolveSibling("certificate.part");
        Files.deleteIfExists(aside);
        String names = "san=dns:localhost,ip:127.0.0.1" + (isNumber(address) ? ",ip:" + address : ",dns:" + address)
                + ",dns:" + InetAddress.getLocalHost().getHostName();
        Process tool = new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "keytool")
                                .toString(),
                        "-genkeypair",
                        "-alias",
                        "yalos",
                        "-keyalg",
                        "EC",
                        "-groupname",
                        "secp256r1",
                        "-dname",
                        "CN=Yalos",
                        "-validity",
                        DAYS,
                        "-ext",
                        names,
                        "-storetype",
                        TYPE,
                        "-keystore",
                        aside.toString(),
                        "-storepass:file",
                        passwordFile.toString()))
                .redirectErrorStream(true)
                .start();
        String said = new String(tool.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        try {
            if (tool.waitFor() != 0) {
                throw new StartRefused("No certificate could be made: " + said.strip());
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new StartRefused("The start was stopped.");
        }
        SafeFiles.keep(aside, store);
    }

    private static boolean isNumber(String address) {
        return address.matches("[0-9.]+|[0-9a-fA-F:]+");
    }
}
