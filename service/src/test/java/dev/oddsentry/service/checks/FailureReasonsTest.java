package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.queries.QueryFailureException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Whatever goes wrong with a check ends it in words, and is tried again only where that may help. */
class FailureReasonsTest {
    private final CheckId check = CheckId.random();

    @AfterEach
    void nobodyIsInterrupted() {
        assertThat(Thread.interrupted()).isFalse();
    }

    private static QueryFailureException queryFailure(FailureKind kind, String message) {
        return new QueryFailureException(kind, message, null);
    }

    @Test
    void whatLiesInTheRuleIsNotTriedAgain() {
        var row = FailureReasons.of(
                check, new CheckFailureException(FailureKind.SAME_KEY, "Two rows have the same identity."));
        assertThat(row.reason()).isEqualTo("Two rows have the same identity.");
        assertThat(row.kind()).isEqualTo(FailureKind.SAME_KEY);
        assertThat(row.again()).isFalse();
        var columns = FailureReasons.of(
                check,
                new InvalidDefinitionException(List.of(Problem.error("unknown column \"dely\"", "exceptions", null))));
        assertThat(columns.reason())
                .startsWith("The rule no longer fits its query: ")
                .contains("dely");
        assertThat(columns.again()).isFalse();
    }

    @Test
    void whatLiesInTheSourceOrInUsIs() {
        assertThat(FailureReasons.of(check, queryFailure(FailureKind.SOURCE_REFUSED, "division by zero"))
                        .again())
                .isTrue();
        var ours = FailureReasons.of(check, new IllegalStateException("a bug with a password in it"));
        assertThat(ours.again()).isTrue();
        assertThat(ours.reason()).contains("Give the operator this reference").doesNotContain("password");
        assertThat(FailureReasons.of(check, new StackOverflowError()).reason())
                .contains("Give the operator this reference");
    }

    @Test
    void fullDisksAreNamed() {
        var folder = new UncheckedIOException(new IOException("No space left on device"));
        assertThat(FailureReasons.of(check, folder).reason()).contains("temporary files", "no room left");
        var records = new IllegalStateException(new SQLException("could not extend file", "53100"));
        assertThat(FailureReasons.of(check, records).reason())
                .contains("The disk of the service's own database is full");
    }

    @Test
    void aFailureIsOfItsKind() {
        assertThat(FailureReasons.of(check, queryFailure(FailureKind.TIME_LIMIT, "too slow"))
                        .timedOut())
                .isTrue();
        assertThat(FailureReasons.of(check, queryFailure(FailureKind.SOURCE_UNREACHABLE, "down"))
                        .kind())
                .isEqualTo(FailureKind.SOURCE_UNREACHABLE);
        assertThat(FailureReasons.of(check, new IllegalStateException("a bug")).kind())
                .isEqualTo(FailureKind.INTERNAL);
        assertThat(FailureReasons.endedTheService(3).kind()).isEqualTo(FailureKind.SERVICE_ENDED);
    }

    @Test
    void memoryThatRunsOutEndsTheCheckAndSaysHowMuchThereIs() {
        var failure = FailureReasons.of(check, new OutOfMemoryError("Java heap space"));
        assertThat(failure.reason()).contains("more memory than the service has", "MiB", "the log has it under");
        assertThat(failure.again()).as("it would need as much again").isFalse();
    }

    @Test
    void aNodeThatShutsDownLeavesItToAnother() {
        var interrupted = queryFailure(FailureKind.QUERY_STOPPED, "The service is shutting down.");
        Thread.currentThread().interrupt();
        try {
            assertThatThrownBy(() -> FailureReasons.of(check, interrupted)).isSameAs(interrupted);
        } finally {
            Thread.interrupted();
        }
    }
}
