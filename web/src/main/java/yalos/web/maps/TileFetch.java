package yalos.web.maps;

import java.io.IOException;
import java.io.InputStream;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/**
 * Fetches tiles of web maps for the pages: few at a time, none that is large or late, none by a redirect, and nothing from the network this
 * machine stands in unless that was allowed. A server that fails is left alone for a while.
 */
@Component
class TileFetch {
    private static final int AT_ONCE = 6;
    private static final int MOST_BYTES = 5_000_000;
    private static final Duration LONGEST = Duration.ofSeconds(8);
    private static final Duration LEFT_ALONE = Duration.ofSeconds(30);

    private final HttpClient client = HttpClient.newBuilder()
            .followRedirects(HttpClient.Redirect.NEVER)
            .connectTimeout(LONGEST)
            .build();
    private final Semaphore free = new Semaphore(AT_ONCE);
    private final Map<String, Trouble> troubles = new ConcurrentHashMap<>();

    /** Why a server was left alone, and until when. */
    record Trouble(String why, Instant until) {}

    /** A tile that could not be had, with the reason as a sentence. */
    static final class NotFetched extends IOException {
        private static final long serialVersionUID = 1L;

        NotFetched(String why) {
            super(why);
        }
    }

    /**
     * The picture at an address; empty where the server says that there is none.
     *
     * @param home whether addresses of this machine and its own network are allowed
     * @throws NotFetched where it was not, or may not be, fetched
     */
    Optional<byte[]> picture(URI address, boolean home) throws NotFetched {
        String server = address.getHost();
        Trouble trouble = troubles.get(server);
        if (trouble != null && Instant.now().isBefore(trouble.until())) {
            throw new NotFetched(trouble.why());
        }
        try {
            if (!free.tryAcquire(LONGEST.toSeconds(), TimeUnit.SECONDS)) {
                throw new NotFetched("Too many tiles are asked for at once.");
            }
            try {
                refuseHome(server, home);
                Optional<byte[]> picture = fetched(address);
                troubles.remove(server);
                return picture;
            } finally {
                free.release();
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new NotFetched("The program stops.");
        } catch (IOException fault) {
            String why = fault instanceof NotFetched ? fault.getMessage() : server + " does not answer.";
            troubles.put(server, new Trouble(why, Instant.now().plus(LEFT_ALONE)));
            throw new NotFetched(why);
        }
    }

    /** What is wrong with a server just now. */
    Optional<String> trouble(String server) {
        return Optional.ofNullable(troubles.get(server))
                .filter(trouble -> Instant.now().isBefore(trouble.until()))
                .map(Trouble::why);
    }

    /** Tries a server again at once. */
    void forgive(String server) {
        troubles.remove(server);
    }

    private Optional<byte[]> fetched(URI address) throws IOException, InterruptedException {
        HttpRequest request = HttpRequest.newBuilder(address)
                .timeout(LONGEST)
                .header("User-Agent", "Yalos")
                .header("Accept", "image/*")
                .build();
        HttpResponse<InputStream> answer = client.send(request, HttpResponse.BodyHandlers.ofInputStream());
        try (InputStream body = answer.body()) {
            int status = answer.statusCode();
            if (status == 404 || status == 204 || status == 410) {
                return Optional.empty();
            }
            if (status / 100 == 3) {
                throw new NotFetched("%s sends elsewhere: %s. Type that address instead."
                        .formatted(
                                address.getHost(),
                                answer.headers().firstValue("Location").orElse("it does not say where")));
            }
            if (status != 200) {
                throw new NotFetched("%s answers with %d.".formatted(address.getHost(), status));
            }
            String type = answer.headers().firstValue("Content-Type").orElse("");
            if (!type.startsWith("image/")) {
                throw new NotFetched("%s sends %s, not pictures."
                        .formatted(address.getHost(), type.isEmpty() ? "something unnamed" : type));
            }
            byte[] bytes = body.readNBytes(MOST_BYTES + 1);
            if (bytes.length > MOST_BYTES) {
                throw new NotFetched("%s sends tiles of more than 5 MB.".formatted(address.getHost()));
            }
            return Optional.of(bytes);
        }
    }

    /** Looked up just before the connection is made, which asks the same memory of names. */
    private static void refuseHome(String server, boolean home) throws NotFetched {
        if (home) {
            return;
        }
        try {
            for (InetAddress at : InetAddress.getAllByName(server)) {
                if (isHome(at)) {
                    throw new NotFetched(
                            "%s is an address of this machine or its own network (%s). Allow that for this map if it is yours."
                                    .formatted(server, at.getHostAddress()));
                }
            }
        } catch (UnknownHostException unknown) {
            throw new NotFetched("Nobody knows a server %s; or there is no network.".formatted(server));
        }
    }

    /** Loopback, private, shared, link-local, multicast, unspecified, IPv4 within IPv6. */
    static boolean isHome(InetAddress at) {
        byte[] bytes = at.getAddress();
        int first = bytes[0] & 0xff;
        int second = bytes[1] & 0xff;
        boolean v6 = at instanceof Inet6Address;
        boolean mapped = v6 && (first == 0 || first == 0x20 && second == 0x02);
        boolean unique = v6 && (first & 0xfe) == 0xfc;
        boolean shared = !v6 && (first == 100 && (second & 0xc0) == 64 || first == 0 || first >= 240);
        return at.isLoopbackAddress()
                || at.isAnyLocalAddress()
                || at.isLinkLocalAddress()
                || at.isSiteLocalAddress()
                || at.isMulticastAddress()
                || unique
                || mapped
                || shared;
    }
}
