package yalos.web.shell;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpServletResponseWrapper;
import java.io.IOException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.resource.ResourceUrlEncodingFilter;
import org.springframework.web.servlet.resource.ResourceUrlProvider;

/**
 * Gives links to libraries and to our own styles and scripts their version, and leaves all other links as they stand. The framework's own filter looks
 * every link of a page up as a file, which took two fifths of the time of a page with a hundred links.
 */
@Configuration(proxyBeanMethods = false)
class StaticLinks {
    @Bean
    FilterRegistrationBean<ResourceUrlEncodingFilter> everyLinkLookedUp() {
        FilterRegistrationBean<ResourceUrlEncodingFilter> off =
                new FilterRegistrationBean<>(new ResourceUrlEncodingFilter());
        off.setEnabled(false);
        return off;
    }

    @Bean
    FilterRegistrationBean<Versioned> staticLinksVersioned(
            ObjectProvider<ResourceUrlProvider> resources, StaticFiles files) {
        return new FilterRegistrationBean<>(new Versioned(resources, files));
    }

    static final class Versioned extends OncePerRequestFilter {
        private final ObjectProvider<ResourceUrlProvider> resources;
        private final StaticFiles files;
        private final Map<String, String> known = new ConcurrentHashMap<>();

        Versioned(ObjectProvider<ResourceUrlProvider> resources, StaticFiles files) {
            this.resources = resources;
            this.files = files;
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                throws ServletException, IOException {
            chain.doFilter(request, new HttpServletResponseWrapper(response) {
                /** No session is ever put into a link. */
                @Override
                public String encodeURL(String url) {
                    if (StaticFiles.ours(url)) {
                        return files.address(url);
                    }
                    return url.startsWith(StaticFiles.LIBRARIES)
                            ? known.computeIfAbsent(url, Versioned.this::library)
                            : url;
                }
            });
        }

        private String library(String url) {
            String found = resources.getObject().getForLookupPath(url);
            return found == null ? url : found;
        }
    }
}
