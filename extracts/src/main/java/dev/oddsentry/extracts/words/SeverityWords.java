package dev.oddsentry.extracts.words;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.SeverityLooks;
import dev.oddsentry.core.extract.Tone;
import dev.oddsentry.core.finding.Severity;

/** Severities as readers see them: by the rule's own word, else by that of their language. */
public final class SeverityWords {
    private final Phrases phrases;
    private final SeverityLooks looks;

    public SeverityWords(Phrases phrases, SeverityLooks looks) {
        this.phrases = phrases;
        this.looks = looks;
    }

    /** As the layout of the extract says. */
    public static SeverityWords of(Phrases phrases, Extract extract) {
        return new SeverityWords(phrases, extract.arrangement().severities());
    }

    public String word(Severity severity) {
        String own = looks.word(severity);
        return own == null ? phrases.of("severity." + severity.name()) : own;
    }

    /** {@code ▲ critical}. */
    public String signAndWord(Severity severity) {
        return looks.sign(severity) + " " + word(severity);
    }

    public String sign(Severity severity) {
        return looks.sign(severity);
    }

    /** {@code 2 critical}, {@code 2 over the limit}. */
    public String count(Severity severity, long count) {
        String own = looks.word(severity);
        return own == null ? phrases.of("count." + severity.name(), count) : phrases.of("count.own", count, own);
    }

    /** How many of all are of the worst severity, behind the number of all: {@code (2 critical)}, {@code (all critical)}. */
    public String criticalOf(long critical, long all) {
        if (critical == 0) return "";
        String own = looks.word(Severity.CRITICAL);
        String key = critical == all ? "critical.all" : "critical.some";
        return own == null ? phrases.of(key, critical) : phrases.of(key + ".own", critical, own);
    }

    /** As {@code #rrggbb} on white; the colour of what is over for a row that cleared. */
    public String colour(Extract.Row row) {
        if (row.isOver()) return Tone.GREEN.onWhite();
        var severity = row.severity();
        return (severity == null ? Tone.GREY : looks.colour(severity)).onWhite();
    }
}
