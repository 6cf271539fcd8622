package yalos.web.block;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import org.springframework.core.MethodParameter;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import yalos.core.fault.InputFault;

/** Makes a {@link Visit} of the parameters {@code version} and {@code stage}. */
@Component
class VisitResolver implements HandlerMethodArgumentResolver, WebMvcConfigurer {
    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(this);
    }

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
        return parameter.getParameterType() == Visit.class;
    }

    @Override
    public Object resolveArgument(
            MethodParameter parameter,
            ModelAndViewContainer container,
            NativeWebRequest request,
            WebDataBinderFactory binders) {
        String stage = request.getParameter("stage");
        return new Visit(
                version(request.getParameter("version")),
                Stage.ofKey(stage == null ? "" : stage).orElse(Stage.STRIPS),
                request.getNativeRequest(HttpServletRequest.class),
                request.getNativeResponse(HttpServletResponse.class),
                (Model) container.getModel());
    }

    private static long version(String text) {
        try {
            return Long.parseLong(text);
        } catch (NumberFormatException e) {
            throw new InputFault("version", text, "The page lacks the state it was made for. Reload it.");
        }
    }
}
