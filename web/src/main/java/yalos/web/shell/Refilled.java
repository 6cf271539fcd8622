package yalos.web.shell;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Collections;
import java.util.Enumeration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.springframework.util.LinkedMultiValueMap;
import org.springframework.util.MultiValueMap;
import org.springframework.web.util.ContentCachingResponseWrapper;
import org.springframework.web.util.UriComponentsBuilder;

/**
 * A form that was refused and sent without script comes back as the page it stood on: every field as it was typed, the sentence beside
 * the field it is about. With script the page stays and {@code app.js} does the same.
 */
final class Refilled {
    private static final List<String> NOT_TYPED = List.of("hidden", "file", "submit", "button", "image");

    private Refilled() {}

    /**
     * The page, ready to be sent.
     *
     * @param field name of what was refused
     * @return empty where the sender does not name a page of ours, or the page holds no such form
     */
    static Optional<String> page(
            HttpServletRequest request, HttpServletResponse response, String field, String sentence) {
        return from(request).flatMap(page -> shown(page, request, response)).flatMap(html -> {
            Document page = Jsoup.parse(html);
            page.outputSettings().prettyPrint(false);
            List<Element> forms = page.select("form").stream()
                    .filter(form -> path(form.attr("action")).equals(request.getRequestURI()))
                    .toList();
            if (forms.isEmpty()) {
                return Optional.empty();
            }
            forms.forEach(form -> refill(form, request.getParameterMap()));
            tell(page, forms.get(0), field, sentence);
            return Optional.of(page.outerHtml());
        });
    }

    private static String path(String action) {
        return action.replaceFirst("[?#].*", "");
    }

    /** The page of this very server that sent the form. */
    private static Optional<URI> from(HttpServletRequest request) {
        try {
            URI page =
                    URI.create(Optional.ofNullable(request.getHeader("Referer")).orElse(""));
            boolean ours = page.getPath() != null
                    && request.getMethod().equals("POST")
                    && Optional.ofNullable(page.getAuthority()).orElse("").equals(request.getHeader("Host"));
            return ours ? Optional.of(page) : Optional.empty();
        } catch (IllegalArgumentException notAnAddress) {
            return Optional.empty();
        }
    }

    private static Optional<String> shown(URI page, HttpServletRequest request, HttpServletResponse response) {
        ContentCachingResponseWrapper caught = new ContentCachingResponseWrapper(response);
        try {
            request.getRequestDispatcher(page.getRawPath()).include(new Asked(request, page), caught);
            byte[] html = caught.getContentAsByteArray();
            return html.length == 0 ? Optional.empty() : Optional.of(new String(html, StandardCharsets.UTF_8));
        } catch (ServletException | IOException cannotBeShown) {
            return Optional.empty();
        }
    }

    private static void refill(Element form, Map<String, String[]> typed) {
        for (Element field : form.select("input[name], textarea[name], select[name]")) {
            String[] values = typed.get(field.attr("name"));
            if (values == null || NOT_TYPED.contains(field.attr("type"))) {
                continue;
            }
            switch (field.normalName()) {
                case "textarea" -> field.text(values[0]);
                case "select" ->
                    field.select("option")
                            .forEach(option -> option.attr(
                                    "selected", Arrays.asList(values).contains(option.val())));
                default -> {
                    if (List.of("checkbox", "radio").contains(field.attr("type"))) {
                        field.attr("checked", Arrays.asList(values).contains(field.val()));
                    } else {
                        field.val(values[0]);
                    }
                }
            }
        }
    }

    private static void tell(Document page, Element form, String field, String sentence) {
        Element typed = Optional.ofNullable(page.getElementById("f-" + field))
                .or(() -> form.select("[name]").stream()
                        .filter(one -> one.attr("name").equals(field)
                                && !one.attr("type").equals("hidden"))
                        .findFirst())
                .or(() -> Optional.ofNullable(form.selectFirst("input.figure, input[type=text], textarea")))
                .orElse(form);
        Element line = new Element("p")
                .addClass("field-fault")
                .addClass("fault")
                .attr("role", "alert")
                .attr("id", "fault-of-field")
                .text(sentence);
        Optional.ofNullable(typed.closest(".field")).orElse(form).after(line);
        typed.attr("aria-invalid", "true")
                .attr("aria-errormessage", "fault-of-field")
                .attr("autofocus", true);
        line.parents().select("details").forEach(details -> details.attr("open", true));
    }

    /** The request for the page, as if it had been asked for. */
    private static final class Asked extends HttpServletRequestWrapper {
        private final MultiValueMap<String, String> query = new LinkedMultiValueMap<>();

        Asked(HttpServletRequest request, URI page) {
            super(request);
            query.addAll(UriComponentsBuilder.fromUri(page).build().getQueryParams());
        }

        @Override
        public String getMethod() {
            return "GET";
        }

        @Override
        public String getContentType() {
            return null;
        }

        @Override
        public String getParameter(String name) {
            return query.getFirst(name);
        }

        @Override
        public Map<String, String[]> getParameterMap() {
            Map<String, String[]> all = new HashMap<>();
            query.forEach((name, values) -> all.put(name, values.toArray(String[]::new)));
            return all;
        }

        @Override
        public Enumeration<String> getParameterNames() {
            return Collections.enumeration(query.keySet());
        }

        @Override
        public String[] getParameterValues(String name) {
            List<String> values = query.get(name);
            return values == null ? null : values.toArray(String[]::new);
        }
    }
}
