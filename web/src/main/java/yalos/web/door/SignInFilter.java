package yalos.web.door;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import yalos.web.shell.Here;
import yalos.web.shell.Person;
import yalos.web.store.PassMapper;

/** Over the network nothing is served before somebody has signed in, but the page to do so and its styles. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 20)
final class SignInFilter extends OncePerRequestFilter {
    static final String COOKIE = "yalos-session";
    private static final String BEARER = "Bearer ";

    private final Doorway doorway;
    private final PassMapper passes;

    SignInFilter(Doorway doorway, PassMapper passes) {
        this.doorway = doorway;
        this.passes = passes;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !doorway.guarded();
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String path = request.getRequestURI();
        boolean api = path.startsWith("/api/");
        Optional<String> name = api ? byToken(request) : Optional.empty();
        name = name.isPresent() ? name : byCookie(request);
        if (name.isPresent()) {
            request.setAttribute(Person.ATTRIBUTE, name.get());
            chain.doFilter(request, response);
        } else if (openToAll(path)) {
            chain.doFilter(request, response);
        } else if (api) {
            response.setHeader("WWW-Authenticate", "Bearer");
            Refusal.send(
                    request, response, 401, "Send a token: Authorization: Bearer …. One is made on the page /tokens.");
        } else if (request.getMethod().equals("GET") && request.getHeader("HX-Request") == null) {
            response.sendRedirect("/sign-in?to=" + URLEncoder.encode(Here.of(request), StandardCharsets.UTF_8));
        } else {
            response.setHeader("HX-Redirect", "/sign-in");
            Refusal.send(request, response, 401, "You are not signed in any more. Sign in again; nothing was changed.");
        }
    }

    /** Exact paths and plain style and font files alone: nothing that resolves to more. */
    private static boolean openToAll(String path) {
        return path.equals("/sign-in")
                || path.equals("/icon.svg")
                || path.matches("/parts/[0-9a-f]+/(css|fonts)/[a-z0-9._-]+\\.(css|woff2)");
    }

    private Optional<String> byToken(HttpServletRequest request) {
        return Optional.ofNullable(request.getHeader("Authorization"))
                .filter(header -> header.startsWith(BEARER))
                .flatMap(header -> passes.tokenOf(
                        Secrets.hash(header.substring(BEARER.length()).strip())));
    }

    private Optional<String> byCookie(HttpServletRequest request) {
        return cookie(request).flatMap(token -> passes.signedIn(Secrets.hash(token), LocalDateTime.now()));
    }

    static Optional<String> cookie(HttpServletRequest request) {
        return Stream.of(Optional.ofNullable(request.getCookies()).orElse(new Cookie[0]))
                .filter(cookie -> cookie.getName().equals(COOKIE))
                .map(Cookie::getValue)
                .findFirst();
    }
}
