package yalos.web;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** A browser without a screen: keeps cookies, sends forms with their token. */
public final class Visitor {
    private static final Pattern TOKEN = Pattern.compile("X-XSRF-TOKEN&quot;: &quot;([^&]+)&quot;");
    private static final Pattern VERSION = Pattern.compile("data-version=\"(\\d+)\"");

    private static final Pattern FIELD_TOKEN = Pattern.compile("name=\"_csrf\" value=\"([^\"]+)\"");

    private final String url;
    private final HttpClient client = HttpClient.newBuilder()
            .cookieHandler(new CookieManager())
            .followRedirects(HttpClient.Redirect.NORMAL)
            .build();

    public Visitor(String url) {
        this.url = url;
    }

    public HttpResponse<String> get(String path) {
        return send(HttpRequest.newBuilder(URI.create(url + path)).GET());
    }

    /** A file as it comes. */
    public byte[] bytes(String path) {
        return client.sendAsync(
                        HttpRequest.newBuilder(URI.create(url + path)).GET().build(),
                        HttpResponse.BodyHandlers.ofByteArray())
                .join()
                .body();
    }

    /** Posts a form as a page would; pairs of name and value. */
    public HttpResponse<String> post(String path, String... form) {
        return send(formTo(path, form));
    }

    /** Posts a form as a browser without script would from one of our pages. */
    public HttpResponse<String> postFrom(String page, String path, String... form) {
        return send(formTo(path, form).header("Referer", url + page));
    }

    /** Posts a form as htmx would. */
    public HttpResponse<String> htmx(String path, String... form) {
        return send(formTo(path, form).header("HX-Request", "true"));
    }

    /** Changes a block as htmx would, from a page of the stage made for its present version; answers the page. */
    public String change(long block, String stage, String path, String... form) {
        return htmx("/blocks/" + block + path, visited(block, stage, form)).body();
    }

    /** Changes a block by a file; answers the page. */
    public String bring(long block, String stage, String path, String fileName, byte[] content, String... form) {
        return upload("/blocks/" + block + path, fileName, content, visited(block, stage, form))
                .body();
    }

    /** The remedies of a finding as the page asks for them, each tried. */
    public String mends(long block, String stage, String key) {
        return get("/blocks/" + block + "/mends?key=" + key + "&stage=" + stage + "&version=" + version(block))
                .body();
    }

    private String[] visited(long block, String stage, String... form) {
        return Stream.concat(Arrays.stream(form), Stream.of("version", version(block), "stage", stage))
                .toArray(String[]::new);
    }

    /** A file of a form. */
    public record Part(String field, String fileName, byte[] content) {}

    public HttpResponse<String> upload(String path, String fileName, byte[] content, String... form) {
        return upload(path, List.of(new Part("file", fileName, content)), form);
    }

    /** Posts a form with several files. */
    public HttpResponse<String> upload(String path, List<Part> files, String... form) {
        String boundary = "yalos-boundary";
        List<byte[]> parts = new ArrayList<>();
        for (int i = 0; i < form.length; i += 2) {
            parts.add(("--" + boundary + "\r\nContent-Disposition: form-data; name=\"" + form[i] + "\"\r\n\r\n"
                            + form[i + 1] + "\r\n")
                    .getBytes(StandardCharsets.UTF_8));
        }
        for (Part file : files) {
            parts.add(("--" + boundary + "\r\nContent-Disposition: form-data; name=\"" + file.field()
                            + "\"; filename=\"" + file.fileName()
                            + "\"\r\nContent-Type: application/octet-stream\r\n\r\n")
                    .getBytes(StandardCharsets.UTF_8));
            parts.add(file.content());
            parts.add("\r\n".getBytes(StandardCharsets.UTF_8));
        }
        parts.add(("--" + boundary + "--\r\n").getBytes(StandardCharsets.UTF_8));
        return send(HttpRequest.newBuilder(URI.create(url + path))
                .header("Content-Type", "multipart/form-data; boundary=" + boundary)
                .header("HX-Request", "true")
                .header("X-XSRF-TOKEN", token())
                .POST(HttpRequest.BodyPublishers.ofByteArrays(parts)));
    }

    /** Posts JSON without cookie or token, as a script would. */
    public HttpResponse<String> script(String path, String body) {
        return script(path, body, Map.of());
    }

    /** The same with headers. */
    public HttpResponse<String> script(String path, String body, Map<String, String> headers) {
        try {
            HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(url + path))
                    .header("Content-Type", "application/geo+json")
                    .POST(HttpRequest.BodyPublishers.ofString(body));
            headers.forEach(request::setHeader);
            return HttpClient.newHttpClient().send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Signs in where the program is open to the network. */
    public HttpResponse<String> signIn(String name, String phrase) {
        Matcher token = FIELD_TOKEN.matcher(get("/sign-in").body());
        if (!token.find()) {
            throw new AssertionError("no token on the page to sign in");
        }
        return send(HttpRequest.newBuilder(URI.create(url + "/sign-in"))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(
                        "_csrf=" + encoded(token.group(1)) + "&name=" + encoded(name) + "&phrase=" + encoded(phrase))));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    /** A new job at a place; answers the id of its block. */
    public long newBlock(String job, String place) {
        String landed = post("/jobs", "name", job, "place", place).uri().getPath();
        return Long.parseLong(landed.split("/")[2]);
    }

    /** The version a page of a block was made for. */
    public String version(long block) {
        return versionOf(get("/blocks/" + block + "/strips").body());
    }

    public static String versionOf(String page) {
        Matcher matcher = VERSION.matcher(page);
        if (!matcher.find()) {
            throw new AssertionError("no version in " + page);
        }
        return matcher.group(1);
    }

    private HttpRequest.Builder formTo(String path, String... form) {
        StringBuilder body = new StringBuilder();
        for (int i = 0; i < form.length; i += 2) {
            body.append(i == 0 ? "" : "&")
                    .append(URLEncoder.encode(form[i], StandardCharsets.UTF_8))
                    .append('=')
                    .append(URLEncoder.encode(form[i + 1], StandardCharsets.UTF_8));
        }
        return HttpRequest.newBuilder(URI.create(url + path))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .header("X-XSRF-TOKEN", token())
                .POST(HttpRequest.BodyPublishers.ofString(body.toString()));
    }

    private String token() {
        Matcher matcher = TOKEN.matcher(get("/units").body());
        if (!matcher.find()) {
            throw new AssertionError("no token on the page");
        }
        return matcher.group(1);
    }

    private HttpResponse<String> send(HttpRequest.Builder request) {
        try {
            return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }
}
