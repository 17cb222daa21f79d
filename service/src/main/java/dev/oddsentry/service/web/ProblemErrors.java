package dev.oddsentry.service.web;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ErrorReportValve;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.http.HttpStatus;
import org.springframework.security.web.firewall.RequestRejectedException;
import org.springframework.security.web.firewall.RequestRejectedHandler;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.RequestMapping;

/** Refusals that come from before or behind the controllers, as problem+json like all others. */
@Controller
class ProblemErrors implements ErrorController, RequestRejectedHandler {
    private final ProblemWriter problems;

    ProblemErrors(ProblemWriter problems) {
        this.problems = problems;
    }

    /** Where the server sends a request that ended in an error. Nobody calls it from outside. */
    @RequestMapping("/error")
    void error(HttpServletRequest request, HttpServletResponse response) throws IOException {
        if (request.getAttribute(RequestDispatcher.ERROR_EXCEPTION) instanceof Throwable thrown) {
            var known = UnexpectedCauses.explain(thrown);
            if (known.isPresent()) {
                problems.write(response, known.get().status(), known.get().words());
                return;
            }
        }
        var code = (Integer) request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        var status = code == null ? HttpStatus.NOT_FOUND : status(code);
        problems.write(response, status, words(status));
    }

    @Override
    public void handle(HttpServletRequest request, HttpServletResponse response, RequestRejectedException rejected)
            throws IOException {
        problems.write(
                response,
                HttpStatus.BAD_REQUEST,
                "The address or the headers contain characters that are not allowed, such as an encoded slash, a backslash, a semicolon or a control"
                        + " character.");
    }

    private static HttpStatus status(int code) {
        var status = HttpStatus.resolve(code);
        return status == null ? HttpStatus.INTERNAL_SERVER_ERROR : status;
    }

    private static String words(HttpStatus status) {
        return switch (status) {
            case NOT_FOUND -> "There is nothing at this address.";
            case BAD_REQUEST ->
                "The request is malformed: its address or its headers contain what is not allowed, such as an encoded slash.";
            case INTERNAL_SERVER_ERROR -> "Internal error. The log of the service says more.";
            default -> status.getReasonPhrase() + ".";
        };
    }

    /** Answers what the server refuses before any of the above is reached, such as a malformed request line. */
    public static final class Valve extends ErrorReportValve {
        @Override
        protected void report(Request request, Response response, @Nullable Throwable throwable) {
            int code = response.getStatus();
            if (code < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) return;
            // It was the request that asked for a transfer coding that nobody offers; a 5xx would call it the service's
            // fault.
            var status = code == HttpStatus.NOT_IMPLEMENTED.value() ? HttpStatus.BAD_REQUEST : status(code);
            try {
                response.setStatus(status.value());
                response.setContentType("application/problem+json");
                response.setCharacterEncoding(StandardCharsets.UTF_8.name());
                var writer = response.getReporter();
                if (writer == null) return;
                writer.write(String.format(
                        Locale.ROOT,
                        "{\"detail\":\"%s\",\"status\":%d,\"title\":\"%s\"}",
                        words(status),
                        status.value(),
                        status.getReasonPhrase()));
                response.finishResponse();
            } catch (IOException | IllegalStateException gone) {
                // The client gets the bare status.
            }
        }
    }
}
