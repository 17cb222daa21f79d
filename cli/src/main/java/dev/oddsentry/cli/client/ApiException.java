package dev.oddsentry.cli.client;

import tools.jackson.databind.JsonNode;

/** The service refused, with a problem document (RFC 9457). */
public final class ApiException extends RuntimeException {
    private final int status;
    private final transient JsonNode problem;

    ApiException(int status, JsonNode problem) {
        super(problem.path("detail").asString("The service answered with status " + status + "."));
        this.status = status;
        this.problem = problem;
    }

    public boolean isAboutAccess() {
        return status == 401 || status == 403;
    }

    /** Whether the service, or its database, cannot answer now. */
    public boolean isUnavailable() {
        return status == 503;
    }

    /** The problems of a document, each with its place; empty where the refusal is not about one. */
    public JsonNode problems() {
        return problem.path("problems");
    }
}
