package dev.oddsentry.service.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.web.UnexpectedCauses.Explanation;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.http.HttpStatus;

class UnexpectedCausesTest {
    private static HttpStatus status(Throwable unexpected) {
        return UnexpectedCauses.explain(unexpected).map(Explanation::status).orElse(null);
    }

    /** No line, a line that broke, too many lines, a full disk, shutting down, starting up; a NUL; and what is our own fault. */
    @ParameterizedTest
    @CsvSource(
            nullValues = "-",
            value = {
                "08001, SERVICE_UNAVAILABLE",
                "08006, SERVICE_UNAVAILABLE",
                "53300, SERVICE_UNAVAILABLE",
                "53100, SERVICE_UNAVAILABLE",
                "57P01, SERVICE_UNAVAILABLE",
                "57P03, SERVICE_UNAVAILABLE",
                "22021, BAD_REQUEST",
                "22P05, BAD_REQUEST",
                "23505, -",
                "42601, -",
                "-, -",
            })
    void theStateOfTheDatabaseSaysWhoseFaultItIs(String state, HttpStatus expected) {
        var broken = new SQLException("somewhere below", state);
        assertThat(status(broken)).isEqualTo(expected);
        assertThat(status(new IllegalStateException("outer", new RuntimeException("inner", broken))))
                .isEqualTo(expected);
    }

    @Test
    void aPoolThatGivesNoConnectionIsNobodysMistake() {
        assertThat(status(new SQLTransientConnectionException("timed out"))).isEqualTo(HttpStatus.SERVICE_UNAVAILABLE);
    }

    @Test
    void aChainOfCausesThatEndsNowhereIsLookedAtOnlySoFar() {
        var first = new RuntimeException("first");
        first.initCause(new RuntimeException("second", first));
        assertThat(UnexpectedCauses.explain(first)).isEmpty();
    }
}
