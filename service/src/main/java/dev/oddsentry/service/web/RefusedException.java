package dev.oddsentry.service.web;

import org.springframework.http.HttpStatus;

/** A request that cannot be done as asked; the message is written for the person who asked. */
public final class RefusedException extends RuntimeException {
    private final HttpStatus status;

    private RefusedException(HttpStatus status, String message) {
        super(message);
        this.status = status;
    }

    public static RefusedException unauthorised(String message) {
        return new RefusedException(HttpStatus.UNAUTHORIZED, message);
    }

    public static RefusedException malformed(String message) {
        return new RefusedException(HttpStatus.BAD_REQUEST, message);
    }

    public static RefusedException notFound(String message) {
        return new RefusedException(HttpStatus.NOT_FOUND, message);
    }

    public static RefusedException forbidden(String message) {
        return new RefusedException(HttpStatus.FORBIDDEN, message);
    }

    public static RefusedException conflict(String message) {
        return new RefusedException(HttpStatus.CONFLICT, message);
    }

    /** For a parameter {@code after} that no page of the list gave. */
    public static RefusedException notAPosition(String after) {
        return invalid("after: \"" + after
                + "\" is not a position in this list; use the value of next from an earlier answer.");
    }

    public static RefusedException invalid(String message) {
        return new RefusedException(HttpStatus.UNPROCESSABLE_CONTENT, message);
    }

    /** Something that this depends on does not work now. */
    public static RefusedException unavailable(String message) {
        return new RefusedException(HttpStatus.SERVICE_UNAVAILABLE, message);
    }

    public static RefusedException tooMany(String message) {
        return new RefusedException(HttpStatus.TOO_MANY_REQUESTS, message);
    }

    public HttpStatus status() {
        return status;
    }
}
