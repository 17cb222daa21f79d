package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.read.ListAppender;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.rules.CheckState;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;

class CheckLogTest {
    private static final CheckId CHECK = CheckId.of("6f1c3a52-0b1e-4d55-9a35-0f6a5f0f7c11");

    private final Logger logger = (Logger) LoggerFactory.getLogger(CheckLog.class);
    private final ListAppender<ILoggingEvent> lines = new ListAppender<>();

    @BeforeEach
    void listen() {
        lines.start();
        logger.setLevel(Level.DEBUG);
        logger.addAppender(lines);
    }

    @AfterEach
    void leave() {
        logger.detachAppender(lines);
        logger.setLevel(null);
    }

    private RuleCheckRecord check(CheckState state) {
        var check = new RuleCheckRecord();
        check.setSlot(Instant.parse("2026-03-29T01:00:00Z"));
        check.setState(state);
        return check;
    }

    @Test
    void everyLineNamesRuleAndCheckUntilItsEnd() {
        try (var log = new CheckLog(CHECK)) {
            CheckLog.began("late-sailings", 2);
            log.left(check(CheckState.QUIET));
        }
        assertThat(lines.list)
                .extracting(ILoggingEvent::getFormattedMessage)
                .containsExactly("Attempt 2 began.", "Check for 2026-03-29T01:00:00Z ended: quiet.");
        assertThat(lines.list)
                .extracting(ILoggingEvent::getMDCPropertyMap)
                .containsOnly(Map.of("rule", "late-sailings", "check", CHECK.toString()));
        assertThat(MDC.get("rule")).isNull();
        assertThat(MDC.get("check")).isNull();
    }

    @Test
    void whatDidNotGoWellIsOneLineAtInfo() {
        var failed = check(CheckState.FAILED);
        failed.setReason("The source refused the query:\r\n  no table \"sailings\".");
        var again = check(CheckState.RUNNING);
        again.setReason("The source cannot be reached.");
        again.setRetryAt(Instant.parse("2026-03-29T01:05:00Z"));
        try (var log = new CheckLog(CHECK)) {
            log.left(failed);
            log.left(again);
            log.left(check(CheckState.RUNNING));
        }
        assertThat(lines.list)
                .allSatisfy(line -> assertThat(line.getLevel()).isEqualTo(Level.INFO))
                .extracting(ILoggingEvent::getFormattedMessage)
                .containsExactly(
                        "Check for 2026-03-29T01:00:00Z ended: failed: The source refused the query: no table \"sailings\".",
                        "Check for 2026-03-29T01:00:00Z runs again at 2026-03-29T01:05:00Z: The source cannot be reached.");
    }
}
