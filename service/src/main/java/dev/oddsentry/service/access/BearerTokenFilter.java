package dev.oddsentry.service.access;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.security.authentication.AbstractAuthenticationToken;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Logs a request in by its bearer token, for that request alone. */
@Component
public class BearerTokenFilter extends OncePerRequestFilter {
    private static final String SCHEME = "Bearer ";
    private static final String SCOPE = BearerTokenFilter.class.getName() + ".scope";

    private final AccessTokens tokens;
    private final MetricsToken metrics;

    BearerTokenFilter(AccessTokens tokens, MetricsToken metrics) {
        this.tokens = tokens;
        this.metrics = metrics;
    }

    public static boolean hasBearerToken(HttpServletRequest request) {
        String header = request.getHeader(HttpHeaders.AUTHORIZATION);
        return header != null && header.startsWith(SCHEME);
    }

    public static String tokenOf(HttpServletRequest request) {
        return request.getHeader(HttpHeaders.AUTHORIZATION).substring(SCHEME.length());
    }

    /** What the token of a request is for; empty where a person is logged in without one. */
    static Optional<TokenScope> scopeOf(HttpServletRequest request) {
        return Optional.ofNullable((TokenScope) request.getAttribute(SCOPE));
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (hasBearerToken(request)) {
            var context = SecurityContextHolder.createEmptyContext();
            String token = tokenOf(request);
            if (metrics.matches(token)) context.setAuthentication(new MetricsReader());
            else
                tokens.use(token).ifPresent(used -> {
                    context.setAuthentication(new LoggedIn(used.owner()));
                    request.setAttribute(SCOPE, used.scope());
                });
            SecurityContextHolder.setContext(context);
        }
        chain.doFilter(request, response);
    }

    /** A program that may read the metrics; no person. */
    private static final class MetricsReader extends AbstractAuthenticationToken {
        MetricsReader() {
            super(List.of(new SimpleGrantedAuthority("ROLE_" + MetricsToken.RIGHT)));
            setAuthenticated(true);
        }

        @Override
        public Object getPrincipal() {
            return "metrics";
        }

        @Override
        public @Nullable Object getCredentials() {
            return null;
        }
    }
}
