package dev.oddsentry.service.web;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import java.util.stream.Stream;
import org.apache.catalina.connector.ClientAbortException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.TypeMismatchException;
import org.springframework.context.MessageSourceResolvable;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.AuthenticationException;
import org.springframework.validation.FieldError;
import org.springframework.validation.method.ParameterErrors;
import org.springframework.validation.method.ParameterValidationResult;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.method.annotation.HandlerMethodValidationException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** Every refusal as problem+json (RFC 9457). What was not expected gets a reference that stands in the log beside the cause. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

    @ExceptionHandler
    ResponseEntity<Object> refused(RefusedException refused) {
        return answer(detail(refused.status(), refused.getMessage()));
    }

    @ExceptionHandler
    ResponseEntity<Object> invalid(InvalidDefinitionException invalid) {
        return answer(detail(invalid));
    }

    private static ProblemDetail detail(InvalidDefinitionException invalid) {
        long errors = invalid.problems().stream().filter(Problem::stopsSave).count();
        var detail = detail(
                HttpStatus.UNPROCESSABLE_CONTENT, errors == 1 ? "1 problem to fix." : errors + " problems to fix.");
        detail.setProperty("problems", inOrder(invalid.problems()));
        return detail;
    }

    private static List<Problem> inOrder(List<Problem> problems) {
        return problems.stream()
                .sorted(Comparator.comparingInt(
                        problem -> problem.place() == null ? 0 : problem.place().offset()))
                .toList();
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleMethodArgumentNotValid(
            MethodArgumentNotValidException invalid, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        return answer(detail(new InvalidDefinitionException(problems(invalid.getFieldErrors()))));
    }

    /** Where the address is checked beside the body. */
    @Override
    protected @Nullable ResponseEntity<Object> handleHandlerMethodValidationException(
            HandlerMethodValidationException invalid, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        var problems = invalid.getParameterValidationResults().stream()
                .flatMap(result -> result instanceof ParameterErrors body
                        ? problems(body.getFieldErrors()).stream()
                        : result.getResolvableErrors().stream().map(error -> problem(parameter(result), error)))
                .toList();
        return answer(detail(new InvalidDefinitionException(problems)));
    }

    private static String parameter(ParameterValidationResult result) {
        return Objects.requireNonNullElse(result.getMethodParameter().getParameterName(), "");
    }

    private static List<Problem> problems(List<FieldError> errors) {
        return errors.stream().map(error -> problem(error.getField(), error)).toList();
    }

    private static Problem problem(String field, MessageSourceResolvable error) {
        return Problem.error("\"" + field + "\" " + error.getDefaultMessage(), field, null);
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException unreadable,
            HttpHeaders headers,
            HttpStatusCode status,
            WebRequest request) {
        return answer(detail(HttpStatus.BAD_REQUEST, UnreadableBody.words(unreadable)));
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleTypeMismatch(
            TypeMismatchException mismatch, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        String name = mismatch instanceof MethodArgumentTypeMismatchException argument
                ? argument.getName()
                : mismatch.getPropertyName();
        return answer(detail(
                HttpStatus.BAD_REQUEST, "\"" + mismatch.getValue() + "\" is not a valid value of " + name + "."));
    }

    /** A refusal is problem+json whatever the request accepts: an empty answer would say nothing to anybody. */
    @Override
    protected ResponseEntity<Object> createResponseEntity(
            @Nullable Object body, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        return ResponseEntity.status(status)
                .headers(headers)
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(body);
    }

    private static ResponseEntity<Object> answer(ProblemDetail detail) {
        return ResponseEntity.status(detail.getStatus())
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(detail);
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

    /** A person who mistyped an address gets the console, which says so; a program gets a problem. */
    @Override
    protected @Nullable ResponseEntity<Object> handleNoResourceFoundException(
            NoResourceFoundException unknown, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        String accepted = request.getHeader(HttpHeaders.ACCEPT);
        boolean byPerson = accepted != null && accepted.contains(MediaType.TEXT_HTML_VALUE);
        boolean isPage =
                Stream.of("api/", "actuator/", "assets/", "feeds/").noneMatch(unknown.getResourcePath()::startsWith);
        if (!byPerson || !isPage) return super.handleNoResourceFoundException(unknown, headers, status, request);
        return ResponseEntity.status(status)
                .contentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8))
                .body(new ClassPathResource("static/index.html"));
    }

    /** The client has closed the connection; there is nobody to answer. */
    @ExceptionHandler
    void gone(ClientAbortException gone) {
        LOG.debug("The client has gone", gone);
    }

    @ExceptionHandler
    ResponseEntity<Object> unexpected(Exception unexpected) {
        var known = UnexpectedCauses.explain(unexpected);
        if (known.isPresent()) {
            LOG.debug("Refused", unexpected);
            return answer(detail(known.get().status(), known.get().words()));
        }
        String reference = UUID.randomUUID().toString();
        LOG.error("Unexpected, reference {}", reference, unexpected);
        var detail = detail(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "Internal error. Give the operator this reference: " + reference + ".");
        detail.setProperty("reference", reference);
        return answer(detail);
    }

    private static ProblemDetail detail(HttpStatus status, @Nullable String message) {
        return ProblemDetail.forStatusAndDetail(status, message == null ? status.getReasonPhrase() : message);
    }
}
