package yalos.web.shell;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import yalos.web.store.Disk;
import yalos.web.store.Durability;
import yalos.web.store.NotKept;

/** Whatever a page changed is on the disk before a word of the answer is written. */
@Component
class Confirmed implements HandlerInterceptor, WebMvcConfigurer {
    private final Durability durability;

    private final Disk disk;

    Confirmed(Durability durability, Disk disk) {
        this.durability = durability;
        this.disk = disk;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).excludePathPatterns("/api/**");
    }

    /** What the disk would not take is not begun. */
    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        String trouble = changes(request) ? disk.trouble(Math.max(0, request.getContentLengthLong())) : "";
        if (!trouble.isEmpty()) {
            throw new NotKept(trouble);
        }
        return true;
    }

    private static boolean changes(HttpServletRequest request) {
        return request.getMethod().equals("POST") && request.getDispatcherType() == DispatcherType.REQUEST;
    }

    @Override
    public void postHandle(
            HttpServletRequest request, HttpServletResponse response, Object handler, ModelAndView view) {
        if (changes(request)) {
            durability.sync();
        }
    }
}
