package dev.oddsentry.service.web;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.AuthenticationException;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/** Every refusal as problem+json (RFC 9457). What was not expected gets a reference that stands in the log beside the cause. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

    /** One thing wrong in a document or a condition, as the API tells it. */
    record ProblemBody(
            String weight,
            String message,
            String field,
            @Nullable Place place,
            @Nullable String suggestion) {
        static ProblemBody of(Problem problem) {
            return new ProblemBody(
                    problem.weight().name().toLowerCase(Locale.ROOT),
                    problem.message(),
                    problem.field(),
                    problem.place(),
                    problem.suggestion());
        }
    }

    @ExceptionHandler
    ProblemDetail refused(RefusedException refused) {
        return detail(refused.status(), refused.getMessage());
    }

    @ExceptionHandler
    ProblemDetail invalid(InvalidDefinitionException invalid) {
        long errors = invalid.problems().stream().filter(Problem::isError).count();
        var detail = detail(
                HttpStatus.UNPROCESSABLE_CONTENT,
                errors == 1 ? "There is one thing to put right." : "There are " + errors + " things to put right.");
        detail.setProperty("problems", bodies(invalid.problems()));
        return detail;
    }

    private static List<ProblemBody> bodies(List<Problem> problems) {
        return problems.stream()
                .sorted(Comparator.comparingInt(
                        problem -> problem.place() == null ? 0 : problem.place().offset()))
                .map(ProblemBody::of)
                .toList();
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleMethodArgumentNotValid(
            MethodArgumentNotValidException invalid, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        var problems = invalid.getBindingResult().getFieldErrors().stream()
                .map(error -> Problem.error(
                        "\"" + error.getField() + "\" " + error.getDefaultMessage(), error.getField(), null))
                .toList();
        var detail = invalid(new InvalidDefinitionException(problems));
        return ResponseEntity.status(detail.getStatus()).body(detail);
    }

    /** Not ours: Spring Security answers these. */
    @ExceptionHandler
    void access(AccessDeniedException denied) {
        throw denied;
    }

    @ExceptionHandler
    void authentication(AuthenticationException refused) {
        throw refused;
    }

    @ExceptionHandler
    ProblemDetail unexpected(Exception unexpected) {
        String reference = UUID.randomUUID().toString();
        LOG.error("Unexpected, reference {}", reference, unexpected);
        var detail = detail(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "Something went wrong on our side. The log has it under " + reference + ".");
        detail.setProperty("reference", reference);
        return detail;
    }

    private static ProblemDetail detail(HttpStatus status, @Nullable String message) {
        return ProblemDetail.forStatusAndDetail(status, message == null ? status.getReasonPhrase() : message);
    }
}
