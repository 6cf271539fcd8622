package yalos.web.door;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import yalos.web.store.JobMapper;

/**
 * Looks at size, sender and target of what is sent before a byte of it is read or spooled, and lets only so many bodies in at once that
 * pages are always answered.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 30)
final class UploadFilter extends OncePerRequestFilter {
    private static final Pattern BLOCK = Pattern.compile("/blocks/(\\d{1,18})/.*");
    private static final long MOST_TEXT_BYTES = 8L << 20;
    /** Of the server's 300 threads; see application.yaml. */
    private static final int BODIES_AT_ONCE = 200;

    private final JobMapper blocks;
    private final Semaphore bodies = new Semaphore(BODIES_AT_ONCE);

    UploadFilter(JobMapper blocks) {
        this.blocks = blocks;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        boolean body = request.getContentLengthLong() > 0 || request.getHeader("Transfer-Encoding") != null;
        return !body;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        long size = request.getContentLengthLong();
        boolean form = type(request).startsWith("application/x-www-form-urlencoded");
        boolean multipart = type(request).startsWith("multipart/");
        if (size > UploadLimits.mostBytes(request.getRequestURI())) {
            Refusal.send(request, response, 413, UploadLimits.tooMuch(request.getRequestURI()));
        } else if (form && size > MOST_TEXT_BYTES) {
            Refusal.send(
                    request, response, 413, "Pasted text may have up to 8 MB. Bring it in as a file, or in pieces.");
        } else if (multipart && !ofOurs(request)) {
            Refusal.send(
                    request,
                    response,
                    403,
                    "The page was too old to send a file. Open it again and repeat what you did.");
        } else if (multipart && !targetIsThere(request)) {
            Refusal.send(request, response, 404, "There is no such block any more; nothing was read of the file.");
        } else if (bodies.tryAcquire()) {
            try {
                String fault = unread(request, multipart);
                if (fault.isEmpty()) {
                    chain.doFilter(request, response);
                } else {
                    Refusal.send(request, response, 413, fault);
                }
            } finally {
                bodies.release();
            }
        } else {
            SlowBodies.body(request).ifPresent(SlowBodies.Body::leave);
            response.setHeader("Retry-After", "10");
            Refusal.send(
                    request,
                    response,
                    503,
                    "Too much is being sent at once. Try again in some seconds; nothing was changed.");
        }
    }

    private static String type(HttpServletRequest request) {
        return Optional.ofNullable(request.getContentType()).orElse("").toLowerCase(Locale.ROOT);
    }

    /** Reads the form; why it was not read to its end, or nothing. Cut off it would look like one that lacks its fields. */
    private static String unread(HttpServletRequest request, boolean multipart) throws ServletException {
        String fault = "";
        try {
            request.getParameterMap();
            if (multipart) {
                request.getParts();
            }
        } catch (IOException | IllegalStateException unread) {
            fault =
                    "A form may have up to 20,000 fields and 50 parts, and must come whole; this one has more, or was cut off.";
        }
        boolean tooMuch =
                SlowBodies.body(request).filter(SlowBodies.Body::tooMuch).isPresent();
        return tooMuch ? UploadLimits.tooMuch(request.getRequestURI()) : fault;
    }

    /** Sent by one of our pages: the browser says so, or the token of the page is in a header; a script of {@code /api} needs neither. */
    private static boolean ofOurs(HttpServletRequest request) {
        return request.getRequestURI().startsWith("/api/")
                || request.getHeader("X-XSRF-TOKEN") != null
                || request.getHeader("Origin") != null
                || request.getHeader("Sec-Fetch-Site") != null;
    }

    private boolean targetIsThere(HttpServletRequest request) {
        Matcher block = BLOCK.matcher(request.getRequestURI());
        return !block.matches() || blocks.isThere(Long.parseLong(block.group(1)));
    }
}
