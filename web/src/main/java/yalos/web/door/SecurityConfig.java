package yalos.web.door;

import java.time.Duration;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.provisioning.InMemoryUserDetailsManager;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter;

/**
 * One operator on one machine: nobody signs in, but no other page may act for them, and no page runs script from
 * elsewhere.
 */
@Configuration
class SecurityConfig {
    /** OpenLayers draws on canvas and makes pictures of its own; everything else comes from here. */
    private static final String CONTENT = "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self';"
            + " img-src 'self' data: blob:; connect-src 'self'; worker-src 'self' blob:; form-action 'self';"
            + " base-uri 'none'; frame-ancestors 'none'; manifest-src 'self'";

    private static final Duration TOKEN_IS_KEPT = Duration.ofDays(365);

    /** Keeps Boot from inventing a user with a password. */
    @Bean
    UserDetailsService nobodySignsIn() {
        return new InMemoryUserDetailsManager();
    }

    /** The token lies in a cookie, so that an open page still works after a restart. */
    @Bean
    SecurityFilterChain chain(HttpSecurity http) throws Exception {
        return http.authorizeHttpRequests(all -> all.anyRequest().permitAll())
                .csrf(csrf -> csrf.csrfTokenRepository(cookieOfThisSite())
                        .csrfTokenRequestHandler(new TokenOfThePage())
                        .ignoringRequestMatchers("/api/**"))
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT))
                        .referrerPolicy(policy -> policy.policy(ReferrerPolicyHeaderWriter.ReferrerPolicy.SAME_ORIGIN))
                        .permissionsPolicyHeader(
                                policy -> policy.policy("camera=(), microphone=(), geolocation=(self)"))
                        .frameOptions(frames -> frames.deny()))
                .sessionManagement(sessions -> sessions.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .requestCache(AbstractHttpConfigurer::disable)
                .formLogin(AbstractHttpConfigurer::disable)
                .httpBasic(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                .anonymous(AbstractHttpConfigurer::disable)
                .build();
    }

    /** Read by our scripts, and kept when the browser is closed, for it may open the same pages again. */
    private static CookieCsrfTokenRepository cookieOfThisSite() {
        CookieCsrfTokenRepository repository = CookieCsrfTokenRepository.withHttpOnlyFalse();
        repository.setCookieCustomizer(
                cookie -> cookie.sameSite("Strict").path("/").maxAge(TOKEN_IS_KEPT));
        return repository;
    }
}
