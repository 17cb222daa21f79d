package dev.oddsentry.service.access;

import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Ends the session of a person who has been made inactive, and lets a changed role count at the next request. */
@Component
class ActivePersonFilter extends OncePerRequestFilter {
    /** A session ends even while it is used, so that a forgotten browser does not stay logged in. */
    private static final Duration LONGEST = Duration.ofDays(7);

    private final People people;
    private final Clock clock;

    ActivePersonFilter(People people, Clock clock) {
        this.clock = clock;
        this.people = people;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var session = request.getSession(false);
        if (session != null && SecurityContextHolder.getContext().getAuthentication() instanceof LoggedIn kept) {
            boolean over = clock.instant().isAfter(end(session));
            var now = over
                    ? Optional.<Person>empty()
                    : people.active(kept.getPrincipal().id());
            // Another context than the session's, which is not written again.
            var context = SecurityContextHolder.createEmptyContext();
            now.ifPresent(person -> context.setAuthentication(new LoggedIn(person)));
            SecurityContextHolder.setContext(context);
            if (now.isEmpty()) session.invalidate();
        }
        chain.doFilter(request, response);
    }

    private static Instant end(HttpSession session) {
        var latest = Instant.ofEpochMilli(session.getCreationTime()).plus(LONGEST);
        return session.getAttribute(ConsoleLogIn.ENDS_AT) instanceof Long earlier && earlier < latest.toEpochMilli()
                ? Instant.ofEpochMilli(earlier)
                : latest;
    }
}
