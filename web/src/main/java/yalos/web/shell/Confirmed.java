package yalos.web.shell;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import yalos.web.store.Durability;

/** Whatever a page changed is on the disk before a word of the answer is written. */
@Component
class Confirmed implements HandlerInterceptor, WebMvcConfigurer {
    private final Durability durability;

    Confirmed(Durability durability) {
        this.durability = durability;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).excludePathPatterns("/api/**");
    }

    @Override
    public void postHandle(
            HttpServletRequest request, HttpServletResponse response, Object handler, ModelAndView view) {
        if (request.getMethod().equals("POST")) {
            durability.sync();
        }
    }
}
