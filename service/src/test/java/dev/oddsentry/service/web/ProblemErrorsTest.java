package dev.oddsentry.service.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.json.JsonMapper;

/** Errors that no controller sees, because a filter before it failed: the log-in is looked up in the records. */
class ProblemErrorsTest {
    private final ProblemErrors errors = new ProblemErrors(new ProblemWriter(new JsonMapper()));

    static Stream<Arguments> ofFilters() {
        return Stream.of(
                Arguments.of(
                        new IllegalStateException(new SQLTransientConnectionException("the pool is empty")),
                        503,
                        "its database does not answer"),
                Arguments.of(
                        new IllegalStateException(new SQLException("the server shuts down", "57P01")),
                        503,
                        "its database does not answer"),
                Arguments.of(new IllegalStateException("secret"), 500, "Internal error. The log of the service"));
    }

    @ParameterizedTest
    @MethodSource("ofFilters")
    void aFilterThatFailsIsAnsweredByItsCause(Throwable thrown, int status, String words) throws IOException {
        var request = mock(HttpServletRequest.class);
        when(request.getAttribute(RequestDispatcher.ERROR_EXCEPTION)).thenReturn(thrown);
        when(request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE)).thenReturn(500);
        var response = mock(HttpServletResponse.class);
        var body = new StringWriter();
        when(response.getWriter()).thenReturn(new PrintWriter(body));
        errors.error(request, response);
        verify(response).setStatus(status);
        assertThat(body.toString()).contains(words).doesNotContain("secret", "57P01");
    }
}
