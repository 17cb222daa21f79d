package dev.oddsentry.core.value;

import java.util.Locale;

/**
 * The types of cells and expressions. A cell of each type is null or an object of the class named here, and nothing else.
 */
public enum Type {
    /** {@link Long}, {@link java.math.BigDecimal}, or a {@link Double} that is NaN or infinite. */
    NUMBER,
    /** {@link String}; trailing spaces are kept. */
    TEXT,
    /** {@link Boolean}. */
    TRUTH,
    /** {@link java.time.LocalDate}; {@link java.time.LocalDate#MIN} and {@code MAX} stand for the infinities. */
    DATE,
    /** {@link java.time.LocalTime}. */
    TIME,
    /** {@link java.time.LocalDateTime}: a timestamp without zone, local to the rule's zone. */
    TIMESTAMP,
    /** {@link java.time.Instant}: a timestamp with zone. */
    INSTANT,
    /** {@code byte[]}; can be an identity, cannot be compared. */
    BYTES,
    /** {@link dev.oddsentry.core.time.Span}. */
    DURATION,
    /** The bare word {@code null}, which fits every other type. */
    NULL;

    public boolean isMoment() {
        return this == DATE || this == TIMESTAMP || this == INSTANT;
    }

    /** The type in a person's words. */
    public String word() {
        return switch (this) {
            case NUMBER -> "a number";
            case TEXT -> "a text";
            case TRUTH -> "a truth value";
            case DATE -> "a date";
            case TIME -> "a time of day";
            case TIMESTAMP -> "a timestamp";
            case INSTANT -> "a timestamp with time zone";
            case BYTES -> "bytes";
            case DURATION -> "a duration";
            case NULL -> "null";
        };
    }

    /** The type as it stands in documents and in the API. */
    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
