package dev.oddsentry.service.api.queries;

import dev.oddsentry.service.queries.Asker;
import dev.oddsentry.service.web.ClientLine;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Says, for as long as a request is worked on, that somebody waits for it: its queries run by hand, and end when the other end of the line is gone. */
@Component
@Order(AskerFilter.AFTER_BODY)
class AskerFilter extends OncePerRequestFilter {
    static final int AFTER_BODY = 10;

    private record Client(String login, @Nullable ClientLine line) implements Asker {
        @Override
        public boolean isGone() {
            return line != null && line.isClosed();
        }
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getRequestURI().startsWith("/api/");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var client = new Client(Objects.requireNonNullElse(request.getRemoteUser(), ""), ClientLine.of(request));
        try {
            ScopedValue.where(Asker.CURRENT, client).call(() -> {
                chain.doFilter(request, response);
                return true;
            });
        } catch (IOException | ServletException | RuntimeException passedOn) {
            throw passedOn;
        } catch (Exception impossible) {
            throw new ServletException(impossible);
        }
    }
}
