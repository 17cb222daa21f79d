package dev.oddsentry.service.access;

import dev.oddsentry.service.config.Settings;
import jakarta.servlet.DispatcherType;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.security.config.annotation.method.configuration.EnableMethodSecurity;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.csrf.CsrfFilter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.session.web.http.CookieSerializer;
import org.springframework.session.web.http.DefaultCookieSerializer;

/**
 * Nothing but the console's own files and the two log-in calls answers without a log-in. The console uses a session cookie and a
 * CSRF token, the command line a bearer token, which needs none since no browser sends it by itself.
 */
@Configuration
@EnableMethodSecurity
class SecurityConfig {
    /** Scripts, styles and data from here alone; the mail of the outbox comes with a stricter policy of its own. */
    private static final String CONTENT_POLICY =
            "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; object-src 'none';"
                    + " base-uri 'none'; form-action 'self'; frame-ancestors 'self'";

    @Bean
    SecurityFilterChain security(HttpSecurity http, BearerTokenFilter bearer, AccessProblems problems)
            throws Exception {
        return http.csrf(csrf -> csrf.spa()
                        .ignoringRequestMatchers(BearerTokenFilter::hasBearerToken)
                        .ignoringRequestMatchers("/api/tokens")
                        // Mail programs press that button too, and know nothing of our pages; the link is the proof.
                        .ignoringRequestMatchers("/leave/**"))
                .securityContext(
                        context -> context.securityContextRepository(new HttpSessionSecurityContextRepository()))
                .authorizeHttpRequests(requests -> requests.dispatcherTypeMatchers(DispatcherType.ASYNC)
                        // The end of what was allowed when it began.
                        .permitAll()
                        .requestMatchers(HttpMethod.POST, "/api/session", "/api/tokens", "/leave/**")
                        .permitAll()
                        .requestMatchers("/actuator/**")
                        .hasRole("OPERATOR")
                        .requestMatchers("/api/**")
                        .authenticated()
                        .requestMatchers(HttpMethod.GET, "/**")
                        .permitAll()
                        .anyRequest()
                        .denyAll())
                .addFilterBefore(bearer, CsrfFilter.class)
                .exceptionHandling(
                        handling -> handling.authenticationEntryPoint(problems).accessDeniedHandler(problems))
                .requestCache(cache -> cache.disable())
                .logout(logout -> logout.disable())
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_POLICY))
                        .frameOptions(frames -> frames.sameOrigin())
                        .referrerPolicy(referrer -> referrer.policy(ReferrerPolicy.SAME_ORIGIN)))
                .build();
    }

    @Bean
    CookieSerializer sessionCookie(Settings settings) {
        var cookie = new DefaultCookieSerializer();
        cookie.setCookieName("odd_session");
        cookie.setUseHttpOnlyCookie(true);
        cookie.setSameSite("Strict");
        cookie.setUseSecureCookie("https".equals(settings.baseUrl().getScheme()));
        return cookie;
    }

    /** People log in through our own two calls; without this bean the framework would invent a user with a password in the log. */
    @Bean
    UserDetailsService nobodyElse() {
        return login -> {
            throw new UsernameNotFoundException(login);
        };
    }
}
