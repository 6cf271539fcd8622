package yalos.web.door;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.web.util.HtmlUtils;
import yalos.web.shell.Htmx;

/** A sentence from the door: a line on the page for htmx, plain text for the rest. */
final class Refusal {
    private Refusal() {}

    static void send(HttpServletRequest request, HttpServletResponse response, int status, String sentence)
            throws IOException {
        response.setStatus(status);
        boolean htmx = Htmx.asked(request);
        if (htmx) {
            response.setHeader(Htmx.RETARGET, "#notice");
            response.setHeader(Htmx.RESWAP, "innerHTML");
        }
        response.setContentType(htmx ? "text/html;charset=UTF-8" : "text/plain;charset=UTF-8");
        String text = htmx
                ? "<div class=\"notice\" role=\"alert\"><p><b>Not taken</b> <span>%s</span></p>%s</div>"
                        .formatted(
                                HtmlUtils.htmlEscape(sentence),
                                "<button type=\"button\" class=\"button\" data-dismiss>Dismiss</button>")
                : sentence;
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        response.setContentLength(bytes.length);
        response.getOutputStream().write(bytes);
        // Sent now: what the server makes of a body that was cut off would otherwise take its place.
        response.flushBuffer();
    }
}
