package yalos.web.door;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.springframework.web.util.HtmlUtils;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.shell.Htmx;

/** A sentence from the door: a line on the page for htmx, a problem (RFC 9457) for scripts, plain text for the rest. */
final class Refusal {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private Refusal() {}

    static void send(HttpServletRequest request, HttpServletResponse response, int status, String sentence)
            throws IOException {
        response.setStatus(status);
        boolean htmx = Htmx.asked(request);
        if (htmx) {
            response.setHeader(Htmx.RETARGET, "#notice");
            response.setHeader(Htmx.RESWAP, "innerHTML");
        }
        boolean api = request.getRequestURI().startsWith("/api/");
        response.setContentType(
                htmx ? "text/html;charset=UTF-8" : api ? "application/problem+json" : "text/plain;charset=UTF-8");
        String text = htmx
                ? "<div class=\"notice\" role=\"alert\"><p><b>Not taken</b> <span>%s</span></p>%s</div>"
                        .formatted(
                                HtmlUtils.htmlEscape(sentence),
                                "<button type=\"button\" class=\"button\" data-dismiss>Dismiss</button>")
                : api ? JSON.writeValueAsString(Map.of("status", status, "detail", sentence)) : sentence;
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        response.setContentLength(bytes.length);
        response.getOutputStream().write(bytes);
        // Sent now: what the server makes of a body that was cut off would otherwise take its place.
        response.flushBuffer();
    }
}
