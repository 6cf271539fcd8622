package yalos.web.shell;

import jakarta.servlet.http.HttpServletResponse;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** What is handed out as a file of its own: it is never shown as a page of this place, and never kept on the way. */
public final class Download {
    private Download() {}

    public static ResponseEntity<byte[]> of(byte[] content, String type, String name) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(type))
                .cacheControl(CacheControl.noStore())
                .header(HttpHeaders.CONTENT_DISPOSITION, disposition(name))
                .body(content);
    }

    /** The head of an answer whose body is written as it comes. */
    public static void head(HttpServletResponse response, String type, String name) {
        response.setContentType(type);
        response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, disposition(name));
    }

    private static String disposition(String name) {
        return ContentDisposition.attachment().filename(name).build().toString();
    }
}
