package dev.oddsentry.cli.client;

import dev.oddsentry.contract.Problem;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The service refused, with a problem document (RFC 9457). */
public final class ApiException extends RuntimeException {
    private final int status;
    private final transient List<Problem> problems;

    ApiException(int status, @Nullable String detail, List<Problem> problems) {
        super(detail == null ? "The service answered with status " + status + "." : detail);
        this.status = status;
        this.problems = problems;
    }

    public boolean isAboutAccess() {
        return status == 401 || status == 403;
    }

    /** Whether the service, or its database, cannot answer now. */
    public boolean isUnavailable() {
        return status == 503;
    }

    /** The problems of a document, each with its place; empty where the refusal is not about one. */
    public List<Problem> problems() {
        return problems;
    }
}
