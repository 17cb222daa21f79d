package dev.oddsentry.service.ids;

/** The number of an audience: those who get one part of a rule's report. */
public record AudienceId(long value) {
    /** The number alone, as logs have it. */
    @Override
    public String toString() {
        return String.valueOf(value);
    }
}
