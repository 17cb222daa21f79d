package dev.oddsentry.service.checks;

import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.rules.CheckState;
import java.util.Locale;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;

/** The life of one check in the log: while this is open, every line of its thread names its rule and check. */
final class CheckLog implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(CheckLog.class);

    private static final String RULE = "rule";
    private static final String CHECK = "check";

    private static final Pattern LINE_BREAKS = Pattern.compile("\\s*\\R\\s*");

    CheckLog(CheckId checkId) {
        MDC.put(CHECK, checkId.toString());
    }

    /** From here on the rule is known. */
    static void began(String rule, int attempt) {
        MDC.put(RULE, rule);
        LOG.debug("Attempt {} began.", attempt);
    }

    /** One line for the outcome; at DEBUG if the check succeeded. */
    void left(RuleCheckRecord check) {
        String reason = check.getReason() == null
                ? "."
                : ": " + LINE_BREAKS.matcher(check.getReason()).replaceAll(" ");
        switch (check.getState()) {
            case RUNNING -> {
                if (check.getRetryAt() != null)
                    LOG.info("Check for {} runs again at {}{}", check.getSlot(), check.getRetryAt(), reason);
            }
            case QUIET, FIRED, INCOMPLETE ->
                LOG.debug("Check for {} ended: {}{}", check.getSlot(), words(check.getState()), reason);
            default -> LOG.info("Check for {} ended: {}{}", check.getSlot(), words(check.getState()), reason);
        }
    }

    private static String words(CheckState state) {
        return state.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    @Override
    public void close() {
        MDC.remove(RULE);
        MDC.remove(CHECK);
    }
}
