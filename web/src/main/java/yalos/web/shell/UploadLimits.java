package yalos.web.shell;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Small files stay small: only elevation models and pictures may be as large as the server takes. Told before anything is read. */
@Component
public class UploadLimits implements HandlerInterceptor, WebMvcConfigurer {
    /** What a small file may have, with the form round it. */
    public static final long SMALL_BYTES = 22_000_000;

    private static final Pattern LARGE = Pattern.compile("/blocks/\\d+/(models|picture)|/api/coverage");

    /** Whether a path takes elevation models or pictures. */
    public static boolean mayBeLarge(String path) {
        return LARGE.matcher(path).matches();
    }

    /**
     * The bytes of a file that must be small, for senders that do not say in front how much comes.
     *
     * @throws MaxUploadSizeExceededException for a larger one, before it is taken into memory
     */
    public static byte[] small(MultipartFile file) throws IOException {
        if (file.getSize() > SMALL_BYTES) {
            throw new MaxUploadSizeExceededException(SMALL_BYTES);
        }
        return file.getBytes();
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this)
                .addPathPatterns("/**")
                .excludePathPatterns("/blocks/*/models", "/blocks/*/picture", "/api/coverage");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        if (request.getContentLengthLong() > SMALL_BYTES) {
            throw new MaxUploadSizeExceededException(SMALL_BYTES);
        }
        return true;
    }
}
