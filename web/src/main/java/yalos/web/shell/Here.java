package yalos.web.shell;

import jakarta.servlet.http.HttpServletRequest;

/** Ways back within this program. */
public final class Here {
    private Here() {}

    /** The page that is asked for, with what is asked of it, to come back to. */
    public static String of(HttpServletRequest request) {
        String asked = request.getQueryString();
        return request.getMethod().equals("GET") && asked != null
                ? request.getRequestURI() + "?" + asked
                : request.getRequestURI();
    }

    /** The path as given where it is a page of this program, never of another site; otherwise the list of jobs. */
    public static String path(String back) {
        boolean plain = back.chars().allMatch(letter -> letter > 0x20 && letter < 0x7f && letter != '\\');
        return plain && back.startsWith("/") && !back.startsWith("//") ? back : "/jobs";
    }
}
