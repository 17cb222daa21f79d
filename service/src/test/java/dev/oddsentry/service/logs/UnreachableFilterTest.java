package dev.oddsentry.service.logs;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.read.ListAppender;
import java.net.ConnectException;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.slf4j.LoggerFactory;

class UnreachableFilterTest {
    private final UnreachableFilter filter = new UnreachableFilter();
    private final Logger logger = (Logger) LoggerFactory.getLogger("dev.oddsentry.unreachable");
    private final ListAppender<ILoggingEvent> lines = new ListAppender<>();

    @BeforeEach
    void listen() {
        lines.start();
        logger.setLevel(Level.INFO);
        logger.addAppender(lines);
    }

    @AfterEach
    void leave() {
        logger.detachAppender(lines);
        filter.destroy();
    }

    static Stream<Arguments> expected() {
        return Stream.of(
                Arguments.of(
                        new IllegalStateException(
                                "no transaction", new SQLTransientConnectionException("pool\n  is empty")),
                        "Task t1 failed: pool is empty"),
                Arguments.of(
                        new SQLException("closed", "08006", new ConnectException("Connection refused")),
                        "Task t1 failed: Connection refused"),
                Arguments.of(
                        new RuntimeException(new SQLException("the server shuts down", "57P01")),
                        "Task t1 failed: the server shuts down"));
    }

    @Test
    void whatFailedOnTheWayOutCountsToo() {
        var closed = new IllegalStateException("rollback", new SQLException("Connection is closed"));
        closed.addSuppressed(new IllegalStateException(new SQLException("An I/O error occurred.", "08006")));
        logger.error("It goes on.", closed);
        assertThat(lines.list)
                .singleElement()
                .satisfies(
                        line -> assertThat(line.getFormattedMessage()).isEqualTo("It goes on: An I/O error occurred."));
    }

    @ParameterizedTest
    @MethodSource("expected")
    void aServerThatCannotBeReachedIsOneLine(Throwable thrown, String expected) {
        logger.error("Task {} failed", "t1", thrown);
        assertThat(lines.list).singleElement().satisfies(line -> {
            assertThat(line.getFormattedMessage()).isEqualTo(expected);
            assertThat(line.getLevel()).isEqualTo(Level.ERROR);
            assertThat(line.getThrowableProxy()).isNull();
        });
    }

    @Test
    void bracesInAMessageAreLeftAlone() {
        logger.warn("{} left", new SQLException("no \"{}\"", "08001"));
        assertThat(lines.list)
                .singleElement()
                .satisfies(line -> assertThat(line.getFormattedMessage()).isEqualTo("{} left: no \"{}\""));
    }

    @Test
    void whateverElseHappensKeepsItsTrace() {
        var thrown = new SQLException("duplicate key", "23505", new IllegalStateException("of ours"));
        logger.error("Task failed", new IllegalStateException(thrown));
        assertThat(lines.list)
                .singleElement()
                .satisfies(line -> assertThat(line.getThrowableProxy()).isNotNull());
    }

    @Test
    void atDebugTheTraceIsKept() {
        logger.setLevel(Level.DEBUG);
        logger.error("Task failed", new SQLTransientConnectionException("gone"));
        assertThat(lines.list)
                .singleElement()
                .satisfies(line -> assertThat(line.getThrowableProxy()).isNotNull());
    }

    @Test
    void whatALoggerDoesNotSayItDoesNotSayInOneLineEither() {
        logger.setLevel(Level.ERROR);
        logger.warn("Task failed", new SQLTransientConnectionException("gone"));
        assertThat(lines.list).isEmpty();
    }
}
