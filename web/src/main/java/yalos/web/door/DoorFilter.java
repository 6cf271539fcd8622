package yalos.web.door;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.util.Optional;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Refuses, before anything is read, what no page of ours and no script of the operator sends: a foreign {@code Host} (a name that was
 * pointed at this machine), and changes that another site's page sends.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
final class DoorFilter extends OncePerRequestFilter {
    private static final Set<String> READING = Set.of("GET", "HEAD", "OPTIONS");

    private final Doorway doorway;

    DoorFilter(Doorway doorway) {
        this.doorway = doorway;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        response.setHeader("Cross-Origin-Resource-Policy", "same-origin");
        response.setHeader("Cross-Origin-Opener-Policy", "same-origin");
        String host = Optional.ofNullable(request.getHeader("Host")).orElse("");
        if (!doorway.answersTo(host)) {
            Refusal.send(
                    request,
                    response,
                    421,
                    "“%s” is not an address Yalos was started with. Open it by its number, or start it with --host %s."
                            .formatted(host, host.replaceFirst(":\\d+$", "")));
        } else if (!READING.contains(request.getMethod()) && fromElsewhere(request, host)) {
            Refusal.send(request, response, 403, "A page of another site sent this. Nothing was changed.");
        } else {
            chain.doFilter(request, response);
        }
    }

    /** Browsers say where a change comes from; a script says nothing, and carries no cookie either. */
    private static boolean fromElsewhere(HttpServletRequest request, String host) {
        String origin = request.getHeader("Origin");
        String site = Optional.ofNullable(request.getHeader("Sec-Fetch-Site")).orElse("none");
        boolean sameSite = site.equals("same-origin") || site.equals("none");
        return !sameSite || origin != null && !host.equalsIgnoreCase(authority(origin));
    }

    private static String authority(String origin) {
        try {
            return Optional.ofNullable(URI.create(origin).getRawAuthority()).orElse("");
        } catch (IllegalArgumentException notOne) {
            return "";
        }
    }
}
