package dev.oddsentry.service.access;

import dev.oddsentry.service.config.Settings;
import jakarta.servlet.DispatcherType;
import jakarta.servlet.Filter;
import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.regex.Pattern;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfFilter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.security.web.util.matcher.AnyRequestMatcher;
import org.springframework.session.web.http.CookieSerializer;
import org.springframework.session.web.http.DefaultCookieSerializer;

/**
 * Nothing but the console's own files, what logs in and the bare state of health answers without a log-in. The console uses a session cookie and a
 * CSRF token, the command line a bearer token, which needs none since no browser sends it by itself.
 */
@Configuration
class SecurityConfig {
    private static final Pattern SESSION_ID = Pattern.compile("[0-9a-f-]{36}");

    /** Scripts, styles and data from here alone; the mail of the outbox comes with a stricter policy of its own. */
    private static final String CONTENT_POLICY =
            "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; object-src 'none';"
                    + " base-uri 'none'; form-action 'self'; frame-ancestors 'self'";

    @Bean
    SecurityFilterChain security(
            HttpSecurity http,
            BearerTokenFilter bearer,
            ActivePersonFilter active,
            AccessProblems problems,
            Settings settings)
            throws Exception {
        boolean https = isHttps(settings);
        return http.csrf(csrf -> csrf.spa()
                        .csrfTokenRepository(csrfCookie(https))
                        .ignoringRequestMatchers(BearerTokenFilter::hasBearerToken)
                        .ignoringRequestMatchers(
                                "/api/tokens",
                                "/api/password-links",
                                "/api/password-links/use",
                                "/api/device-log-ins",
                                "/api/device-log-ins/token")
                        // Mail programs press that button too, and know nothing of our pages; the link is the proof.
                        .ignoringRequestMatchers("/leave/**", "/your-mail/**"))
                .securityContext(
                        context -> context.securityContextRepository(new HttpSessionSecurityContextRepository()))
                .authorizeHttpRequests(requests -> requests.dispatcherTypeMatchers(DispatcherType.ASYNC)
                        // The end of what was allowed when it began.
                        .permitAll()
                        .requestMatchers(
                                HttpMethod.POST,
                                "/api/session",
                                "/api/tokens",
                                "/api/password-links",
                                "/api/password-links/use",
                                "/api/device-log-ins",
                                "/api/device-log-ins/token",
                                "/leave/**",
                                "/your-mail/**")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/actuator/health", "/api/log-in-options")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/actuator/prometheus")
                        .hasAnyRole("OPERATOR", MetricsToken.RIGHT)
                        .requestMatchers("/actuator/**")
                        .hasRole("OPERATOR")
                        .requestMatchers("/api/**")
                        .hasAnyRole("READER", "ANALYST", "LEAD", "OPERATOR", "AUDITOR")
                        .requestMatchers(HttpMethod.GET, "/**")
                        .permitAll()
                        .anyRequest()
                        .denyAll())
                .addFilterBefore(bearer, CsrfFilter.class)
                .addFilterAfter(active, BearerTokenFilter.class)
                .exceptionHandling(
                        handling -> handling.authenticationEntryPoint(problems).accessDeniedHandler(problems))
                .requestCache(cache -> cache.disable())
                .logout(logout -> logout.disable())
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_POLICY))
                        .frameOptions(frames -> frames.sameOrigin())
                        // A proxy in front of it may speak TLS where this server does not see it.
                        .httpStrictTransportSecurity(strict -> {
                            if (https) strict.requestMatcher(AnyRequestMatcher.INSTANCE);
                            else strict.disable();
                        })
                        .referrerPolicy(referrer -> referrer.policy(ReferrerPolicy.SAME_ORIGIN)))
                .build();
    }

    private static boolean isHttps(Settings settings) {
        return "https".equals(settings.baseUrl().getScheme());
    }

    /** The console reads it, so it is not for HTTP alone. */
    private static CookieCsrfTokenRepository csrfCookie(boolean https) {
        var cookie = CookieCsrfTokenRepository.withHttpOnlyFalse();
        cookie.setCookieCustomizer(each -> each.secure(https).sameSite("Strict"));
        return cookie;
    }

    @Bean
    CookieSerializer sessionCookie(Settings settings) {
        var cookie = new DefaultCookieSerializer() {
            /** What cannot be an id is as good as none, and is not looked for. */
            @Override
            public List<String> readCookieValues(HttpServletRequest request) {
                return super.readCookieValues(request).stream()
                        .filter(id -> SESSION_ID.matcher(id).matches())
                        .toList();
            }
        };
        cookie.setCookieName("odd_session");
        cookie.setUseHttpOnlyCookie(true);
        cookie.setSameSite("Strict");
        cookie.setUseSecureCookie(isHttps(settings));
        return cookie;
    }

    /** The filters stand in the chain above; the server must not run them once more. */
    @Bean
    FilterRegistrationBean<BearerTokenFilter> bearerInChainOnly(BearerTokenFilter filter) {
        return inChainOnly(filter);
    }

    @Bean
    FilterRegistrationBean<ActivePersonFilter> activePersonInChainOnly(ActivePersonFilter filter) {
        return inChainOnly(filter);
    }

    private static <F extends Filter> FilterRegistrationBean<F> inChainOnly(F filter) {
        var registration = new FilterRegistrationBean<>(filter);
        registration.setEnabled(false);
        return registration;
    }

    /** People log in through our own calls; without this bean the framework would invent a user with a password in the log. */
    @Bean
    UserDetailsService nobodyElse() {
        return login -> {
            throw new UsernameNotFoundException(login);
        };
    }
}
