package dev.oddsentry.service.access;

import dev.oddsentry.service.people.Person;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Logs a request in by its bearer token, for that request alone. */
@Component
class BearerTokenFilter extends OncePerRequestFilter {
    private static final String SCHEME = "Bearer ";

    private final AccessTokens tokens;

    BearerTokenFilter(AccessTokens tokens) {
        this.tokens = tokens;
    }

    static boolean hasBearerToken(HttpServletRequest request) {
        String header = request.getHeader(HttpHeaders.AUTHORIZATION);
        return header != null && header.startsWith(SCHEME);
    }

    static String tokenOf(HttpServletRequest request) {
        return request.getHeader(HttpHeaders.AUTHORIZATION).substring(SCHEME.length());
    }

    static Authentication authenticated(Person person) {
        var role = new SimpleGrantedAuthority("ROLE_" + person.role());
        return UsernamePasswordAuthenticationToken.authenticated(person, null, List.of(role));
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (hasBearerToken(request)) {
            var context = SecurityContextHolder.createEmptyContext();
            tokens.ownerOf(tokenOf(request)).ifPresent(person -> context.setAuthentication(authenticated(person)));
            SecurityContextHolder.setContext(context);
        }
        chain.doFilter(request, response);
    }
}
