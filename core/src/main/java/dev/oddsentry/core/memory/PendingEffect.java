package dev.oddsentry.core.memory;

/**
 * What people did between two checks that the next good check must respect.
 *
 * @param edit what edits did to the rule's memory; the strongest counts
 * @param report what a person wants reported of the findings that exist; the last choice counts
 */
public record PendingEffect(EditEffect edit, ReportChoice report) {
    /** Nobody did anything that matters. */
    public static final PendingEffect NONE = new PendingEffect(EditEffect.NONE, ReportChoice.NONE);

    /** What an edit did to memory, mildest first. */
    public enum EditEffect {
        /** No edit, or one that leaves memory as it is. */
        NONE,
        /** Other columns are watched: their values are recorded, and the difference is not an update. */
        OTHER_COLUMNS,
        /** Other rows are exceptions: findings that no longer are clear without a message. */
        OTHER_CONDITIONS,
        /** Other key columns: all findings start over. */
        OTHER_KEY
    }

    /** What a person wants reported of the findings that exist. */
    public enum ReportChoice {
        /** No choice was made; an earlier one counts. */
        NONE,
        /** Updates, as at each check. */
        UPDATES,
        /** All open findings, reported before or not. */
        OPEN,
        /** No message; all findings are recorded as reported. */
        TREAT_AS_KNOWN
    }

    public static PendingEffect of(EditEffect edit) {
        return new PendingEffect(edit, ReportChoice.NONE);
    }

    public static PendingEffect of(ReportChoice report) {
        return new PendingEffect(EditEffect.NONE, report);
    }

    /** {@code true} if the next check is one like any other. */
    public boolean isNone() {
        return edit == EditEffect.NONE && !reportsOpen() && !treatsAsKnown();
    }

    /** {@code true} if findings clear because the rule changed, not because they were fixed; no message is sent. */
    public boolean clearsSilently() {
        return edit.compareTo(EditEffect.OTHER_CONDITIONS) >= 0 || treatsAsKnown();
    }

    public boolean treatsAsKnown() {
        return report == ReportChoice.TREAT_AS_KNOWN;
    }

    public boolean reportsOpen() {
        return report == ReportChoice.OPEN;
    }

    /** {@code true} if findings are identified by other columns than before, so that none is recognised. */
    public boolean startsOver() {
        return edit == EditEffect.OTHER_KEY;
    }

    /** {@code true} if fingerprints are of other columns than before, so that their difference is not a change. */
    public boolean watchesOtherColumns() {
        return edit == EditEffect.OTHER_COLUMNS || edit == EditEffect.OTHER_CONDITIONS;
    }

    /** Both effects, if {@code later} was caused after this one. */
    public PendingEffect and(PendingEffect later) {
        return new PendingEffect(
                edit.compareTo(later.edit) >= 0 ? edit : later.edit,
                later.report == ReportChoice.NONE ? report : later.report);
    }
}
