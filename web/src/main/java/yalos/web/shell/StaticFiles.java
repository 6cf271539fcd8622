package yalos.web.shell;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Our styles, scripts and fonts under an address that changes with what is in them, {@code /parts/}version{@code /js/yalos.js}: browsers keep them and
 * never ask whether they have changed. What a script or style names beside itself lies under the same address. Libraries have their version in their
 * address already.
 */
@Configuration(proxyBeanMethods = false)
class StaticFiles implements WebMvcConfigurer {
    static final String LIBRARIES = "/webjars/";
    private static final String FOLDER = "/static/";
    private static final List<String> OURS = List.of("/css/", "/js/", "/coastline.svg");
    private static final CacheControl KEPT =
            CacheControl.maxAge(Duration.ofDays(365)).immutable();

    private final String place = "/parts/" + version();

    /** Whether an address is one of ours that has a version. */
    static boolean ours(String url) {
        return OURS.stream().anyMatch(url::startsWith);
    }

    /** Where one of ours is to be had in the version of this program. */
    String address(String url) {
        return place + url;
    }

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler(place + "/**")
                .addResourceLocations("classpath:" + FOLDER)
                .setCacheControl(KEPT);
        registry.addResourceHandler(LIBRARIES + "**")
                .addResourceLocations("classpath:/META-INF/resources" + LIBRARIES)
                .setCacheControl(KEPT)
                .resourceChain(true);
    }

    private static List<Resource> files() {
        try {
            Resource[] found = new PathMatchingResourcePatternResolver().getResources("classpath:" + FOLDER + "**/*.*");
            return Arrays.stream(found)
                    .sorted(Comparator.comparing(StaticFiles::name))
                    .toList();
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    private static String name(Resource file) {
        try {
            String where = file.getURL().toString();
            return where.substring(where.lastIndexOf(FOLDER) + FOLDER.length() - 1);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    /** A sum over names and bytes. */
    private static String version() {
        try {
            MessageDigest sum = MessageDigest.getInstance("SHA-256");
            for (Resource file : files()) {
                sum.update(name(file).getBytes(StandardCharsets.UTF_8));
                try (InputStream bytes = file.getInputStream()) {
                    sum.update(bytes.readAllBytes());
                }
            }
            return HexFormat.of().formatHex(sum.digest(), 0, 5);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        } catch (NoSuchAlgorithmException never) {
            throw new IllegalStateException(never);
        }
    }
}
