package yalos.web.door;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.function.Supplier;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.security.web.csrf.CsrfTokenRequestHandler;
import org.springframework.security.web.csrf.XorCsrfTokenRequestAttributeHandler;

/**
 * What shows that one of our pages sends: the token as the page was written with it, disguised, or as it stands in the cookie now, which our
 * scripts send. A page can be older than the cookie: of two tabs that were opened at once, each is given a token, and one cookie is left.
 */
final class TokenOfThePage implements CsrfTokenRequestHandler {
    private final XorCsrfTokenRequestAttributeHandler disguised = new XorCsrfTokenRequestAttributeHandler();

    @Override
    public void handle(HttpServletRequest request, HttpServletResponse response, Supplier<CsrfToken> token) {
        disguised.handle(request, response, token);
    }

    @Override
    public String resolveCsrfTokenValue(HttpServletRequest request, CsrfToken token) {
        String sent = CsrfTokenRequestHandler.super.resolveCsrfTokenValue(request, token);
        return sent != null && MessageDigest.isEqual(bytes(sent), bytes(token.getToken()))
                ? sent
                : disguised.resolveCsrfTokenValue(request, token);
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
