package dev.oddsentry.core.definition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.time.RelativeDate;
import dev.oddsentry.core.value.Numbers;
import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Locale;

/** The types of a query's parameters, and how a written value becomes one at a slot. */
public enum ParameterType {
    TEXT,
    NUMBER,
    TRUTH,
    DATE,
    /** Without zone: the local time of the rule's zone. */
    TIMESTAMP,
    /** With zone. */
    INSTANT;

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** @throws InvalidDefinitionException if the text is no value of this type */
    public void check(String written) {
        if (isMoment()) RelativeDate.parse(written);
        else if (this == NUMBER) number(written);
        else if (this == TRUTH && !List.of("true", "false").contains(written)) {
            throw refused(written, "true or false");
        }
    }

    private static final int MOST_DIGITS = 1_000;

    /** @return a text, {@link BigDecimal}, {@link Boolean}, date, local timestamp or instant */
    public Object valueAt(Moment moment, String written) {
        return switch (this) {
            case TEXT -> written;
            case NUMBER -> number(written);
            case TRUTH -> Boolean.valueOf(written);
            case DATE -> local(written, moment).toLocalDate();
            case TIMESTAMP -> local(written, moment);
            case INSTANT -> local(written, moment).atZone(moment.zone()).toInstant();
        };
    }

    /** True where the value moves on with the slot. */
    public boolean moves(String written) {
        return isMoment() && RelativeDate.parse(written).moves();
    }

    /** True where it is calculated from the last check. */
    public boolean isSinceLastCheck(String written) {
        return isMoment() && RelativeDate.parse(written).anchor() instanceof RelativeDate.Anchor.LastCheck;
    }

    /** True where it is the last check's slot to the second. */
    public boolean isUnsettled(String written) {
        return isMoment() && RelativeDate.parse(written).isUnsettled();
    }

    private boolean isMoment() {
        return this == DATE || this == TIMESTAMP || this == INSTANT;
    }

    private static LocalDateTime local(String written, Moment moment) {
        return RelativeDate.parse(written).localAt(moment);
    }

    private static BigDecimal number(String written) {
        return Numbers.parse(written, MOST_DIGITS).orElseThrow(() -> refused(written, "a number such as 15 or 2.5"));
    }

    private static InvalidDefinitionException refused(String written, String right) {
        return new InvalidDefinitionException(List.of(Problem.error("\"" + written + "\" is not " + right, "", null)));
    }
}
