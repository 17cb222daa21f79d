package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;

/** Says in a mail that nobody has taken what it tells of. */
public final class PassedOnWords {
    private PassedOnWords() {}

    /** {@code Nobody has taken 2 critical: Late sailings}. */
    public static String subject(Language language, Extract passedOn, String title) {
        var words = Wording.in(language);
        String counts = words.counts(passedOn.rows(), words.rows().severities(passedOn));
        return words.phrases().of("passedOn.subject", counts, Wording.oneLine(title));
    }

    public static String opening(Language language) {
        return Wording.in(language).phrases().of("passedOn.opening");
    }
}
