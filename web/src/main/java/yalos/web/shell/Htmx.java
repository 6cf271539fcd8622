package yalos.web.shell;

import jakarta.servlet.http.HttpServletRequest;

/** What a request by htmx looks like. */
public final class Htmx {
    /** Its answer is put here instead of where the request said. */
    public static final String RETARGET = "HX-Retarget";

    public static final String RESWAP = "HX-Reswap";
    /** Events its answer sets off in the page. */
    public static final String TRIGGER = "HX-Trigger";

    private Htmx() {}

    public static boolean asked(HttpServletRequest request) {
        return "true".equals(request.getHeader("HX-Request"));
    }
}
