package dev.oddsentry.service.access;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.web.AuthenticationEntryPoint;
import org.springframework.security.web.access.AccessDeniedHandler;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Refusals of access as problem+json, like every other refusal. */
@Component
class AccessProblems implements AuthenticationEntryPoint, AccessDeniedHandler {
    private final JsonMapper json;

    AccessProblems(JsonMapper json) {
        this.json = json;
    }

    @Override
    public void commence(HttpServletRequest request, HttpServletResponse response, AuthenticationException refused)
            throws IOException {
        write(response, HttpStatus.UNAUTHORIZED, "You are not logged in, or the log-in has expired.");
    }

    @Override
    public void handle(HttpServletRequest request, HttpServletResponse response, AccessDeniedException refused)
            throws IOException {
        write(response, HttpStatus.FORBIDDEN, "This is not yours to do, or the page is too old: load it again.");
    }

    private void write(HttpServletResponse response, HttpStatus status, String detail) throws IOException {
        response.setStatus(status.value());
        response.setContentType("application/problem+json");
        response.setCharacterEncoding(StandardCharsets.UTF_8);
        response.getWriter().write(json.writeValueAsString(ProblemDetail.forStatusAndDetail(status, detail)));
    }
}
