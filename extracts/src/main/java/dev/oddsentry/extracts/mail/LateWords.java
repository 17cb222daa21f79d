package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Language;
import java.time.Instant;
import java.time.ZoneId;

/** Says of when a mail is that comes late. */
public final class LateWords {
    private LateWords() {}

    public static String of(Language language, Instant slot, ZoneId zone) {
        var words = Wording.in(language);
        return words.phrases().of("late", words.slot(slot, zone));
    }
}
