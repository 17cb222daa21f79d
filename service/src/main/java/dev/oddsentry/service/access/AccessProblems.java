package dev.oddsentry.service.access;

import dev.oddsentry.service.web.ProblemWriter;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.HttpStatus;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.access.AccessDeniedHandler;
import org.springframework.stereotype.Component;

/** Refusals of access as problem+json, like every other refusal. */
@Component
class AccessProblems implements AuthenticationEntryPoint, AccessDeniedHandler {
    private final ProblemWriter problems;

    AccessProblems(ProblemWriter problems) {
        this.problems = problems;
    }

    @Override
    public void commence(HttpServletRequest request, HttpServletResponse response, AuthenticationException refused)
            throws IOException {
        problems.write(response, HttpStatus.UNAUTHORIZED, "You are not logged in or your session expired.");
    }

    @Override
    public void handle(HttpServletRequest request, HttpServletResponse response, AccessDeniedException refused)
            throws IOException {
        problems.write(response, HttpStatus.FORBIDDEN, "You may not do this, or the page has expired. Reload it.");
    }
}
