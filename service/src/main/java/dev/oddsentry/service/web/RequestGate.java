package dev.oddsentry.service.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.InvalidMediaTypeException;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Refuses, by its headers alone, what nothing behind it could answer: before anybody is looked up and before any of the body is read. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class RequestGate extends OncePerRequestFilter {
    private final WebLimits limits;
    private final ProblemWriter problems;

    RequestGate(WebLimits limits, ProblemWriter problems) {
        this.limits = limits;
        this.problems = problems;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var refusal = refusal(request);
        if (refusal == null) {
            chain.doFilter(request, response);
            return;
        }
        // The rest of what was sent is not read.
        response.setHeader(HttpHeaders.CONNECTION, "close");
        problems.write(response, refusal.status, refusal.detail);
    }

    private record Refusal(HttpStatus status, String detail) {}

    private @Nullable Refusal refusal(HttpServletRequest request) {
        if (request.getContentLengthLong() > limits.maxBody().toBytes())
            return new Refusal(
                    HttpStatus.CONTENT_TOO_LARGE, tooLarge(limits.maxBody().toBytes()));
        String query = request.getQueryString();
        if (query != null && !isReadable(query))
            return new Refusal(
                    HttpStatus.BAD_REQUEST,
                    "The query of the address is malformed: a % needs two hexadecimal digits, in UTF-8.");
        return refusalOfType(request);
    }

    private static @Nullable Refusal refusalOfType(HttpServletRequest request) {
        String type = request.getContentType();
        if (type == null) return null;
        try {
            var parsed = MediaType.parseMediaType(type);
            if (parsed.isWildcardType() || parsed.isWildcardSubtype())
                return new Refusal(
                        HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                        "Content-Type must name one media type, such as application/json.");
            // Only pages that mail programs call take a form; elsewhere one would be read before it is known who sends
            // it.
            boolean form = parsed.isCompatibleWith(MediaType.APPLICATION_FORM_URLENCODED)
                    || "multipart".equals(parsed.getType());
            String page = request.getRequestURI();
            if (form && !page.startsWith("/leave/") && !page.startsWith("/your-mail/"))
                return new Refusal(
                        HttpStatus.UNSUPPORTED_MEDIA_TYPE, "Forms are not accepted here; send application/json.");
            return null;
        } catch (InvalidMediaTypeException malformed) {
            return new Refusal(
                    HttpStatus.UNSUPPORTED_MEDIA_TYPE, "Content-Type is malformed. Example: application/json");
        }
    }

    static String tooLarge(long limit) {
        return "The request's body is too large: at most " + limit / 1024 + " kB.";
    }

    private static boolean isReadable(String query) {
        return PercentEncoding.decode(query)
                .filter(text -> text.indexOf('\0') < 0)
                .isPresent();
    }
}
