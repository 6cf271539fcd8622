package yalos.web.shell;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/** The three looks. Kept by each device for itself, since the tablet is outdoors when the desk is not. */
public enum Look {
    /** For the desk. */
    PAPER,
    /** Greatest contrast, for outdoors. */
    SUN,
    /** Dark. */
    DUSK;

    static final String COOKIE = "look";

    /** Name in the page, the cookie and the address. */
    public String key() {
        return name().toLowerCase(Locale.ROOT);
    }

    static Look of(String key) {
        return Arrays.stream(values())
                .filter(look -> look.key().equals(key))
                .findFirst()
                .orElse(PAPER);
    }

    static Look of(HttpServletRequest request) {
        return Optional.ofNullable(request.getCookies()).stream()
                .flatMap(Stream::of)
                .filter(cookie -> cookie.getName().equals(COOKIE))
                .map(Cookie::getValue)
                .map(Look::of)
                .findFirst()
                .orElse(PAPER);
    }
}
