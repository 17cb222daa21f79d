package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import java.util.List;

/** Says in a mail that nobody has taken what it tells of. */
public final class PassedOnWords {
    private PassedOnWords() {}

    /** {@code Nobody has taken 2 critical: Late sailings}. */
    public static String subject(Language language, List<Extract.Row> rows, String title) {
        var words = Wording.in(language);
        return words.phrases().of("passedOn.subject", words.counts(rows), Wording.oneLine(title));
    }

    public static String opening(Language language) {
        return Wording.in(language).phrases().of("passedOn.opening");
    }
}
