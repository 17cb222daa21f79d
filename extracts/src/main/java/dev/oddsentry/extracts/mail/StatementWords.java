package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.extracts.words.SeverityWords;
import java.util.ArrayList;
import java.util.List;

/** A statement of checks as sentences, each with its full stop. */
public final class StatementWords {
    private final Wording words;
    private final Phrases phrases;
    private final CheckStatement said;

    private StatementWords(CheckStatement said, Language language) {
        this.words = Wording.in(language);
        this.phrases = words.phrases();
        this.said = said;
    }

    /** Whether silence can be trusted first, then how it was checked, what was reported and what was not. */
    public static List<String> of(CheckStatement said, Language language) {
        var words = new StatementWords(said, language);
        var sentences = new ArrayList<String>();
        words.verdict(sentences);
        words.checks(sentences);
        words.reported(sentences);
        words.unreported(sentences);
        words.open(sentences);
        return sentences;
    }

    private void verdict(List<String> sentences) {
        if (said.paused()) sentences.add(phrases.of("statement.paused"));
        if (said.isComplete()) sentences.add(phrases.of("statement.complete"));
        else if (said.gaps().isEmpty())
            sentences.add(phrases.of(said.checks().good() == 0 ? "statement.unchecked" : "statement.partly"));
        for (var gap : said.gaps()) sentences.add(gap(gap));
    }

    private String gap(CheckStatement.Gap gap) {
        var after = gap.after();
        var until = gap.until();
        if (after == null)
            return until == null
                    ? phrases.of("statement.gap.all")
                    : phrases.of("statement.gap.start", words.longSlot(until, said.zone()));
        return until == null
                ? phrases.of("statement.gap.end", words.longSlot(after, said.zone()))
                : phrases.of("statement.gap", words.longSlot(after, said.zone()), words.longSlot(until, said.zone()));
    }

    private void checks(List<String> sentences) {
        var checks = said.checks();
        if (checks.good() > 0) sentences.add(phrases.of("statement.checked", checks.good()) + rows(checks));
        add(sentences, "statement.covered", checks.covered());
        add(sentences, "statement.failed", checks.failed());
        add(sentences, "statement.approval", checks.awaitingApproval());
        add(sentences, "statement.unknown.rows", checks.unknownRows());
        add(sentences, "statement.unknown.groups", checks.unknownGroups());
    }

    private String rows(CheckStatement.Checks checks) {
        var least = checks.leastRows();
        var most = checks.mostRows();
        if (least == null || most == null) return "";
        return " "
                + (least.equals(most)
                        ? phrases.of("statement.rows.same", least)
                        : phrases.of("statement.rows", least, most));
    }

    private void reported(List<String> sentences) {
        var reported = said.reported();
        if (reported.updates() == null)
            sentences.add(phrases.of(
                    reported.messages() == 0 ? "statement.sent.none" : "statement.sent", reported.messages()));
        else
            sentences.add(
                    reported.updates() == 0
                            ? phrases.of("statement.reported.none")
                            : phrases.of("statement.reported", reported.updates(), reported.messages()));
        add(sentences, "statement.undelivered", reported.undelivered());
        add(sentences, "statement.waiting", reported.waiting());
    }

    private void unreported(List<String> sentences) {
        var not = said.unreported();
        var parts = new ArrayList<String>();
        add(parts, "statement.not.snoozed", not.snoozed());
        add(parts, "statement.not.accepted", not.accepted());
        add(parts, "statement.not.lessSevere", not.lessSevere());
        add(parts, "statement.not.waiting", not.waiting());
        if (!parts.isEmpty()) sentences.add(phrases.of("statement.not", String.join(", ", parts)));
        add(sentences, "statement.pending", not.pending());
        add(sentences, "statement.known", not.known());
    }

    private void open(List<String> sentences) {
        if (said.reported().updates() == null) return;
        var open = said.open();
        if (open.all() == 0) {
            sentences.add(phrases.of("statement.open.none"));
            return;
        }
        var parts = new ArrayList<String>();
        var severities = new SeverityWords(phrases, open.severities());
        for (var severity : List.of(Severity.CRITICAL, Severity.WARNING, Severity.NOTICE)) {
            long count = open.bySeverity().getOrDefault(severity, 0L);
            if (count > 0) parts.add(severities.count(severity, count));
        }
        var silenced = new ArrayList<String>();
        add(silenced, "statement.not.snoozed", open.snoozed());
        add(silenced, "statement.not.accepted", open.accepted());
        sentences.add(phrases.of(
                silenced.isEmpty() ? "statement.open" : "statement.open.silenced",
                String.join(", ", parts),
                String.join(", ", silenced)));
    }

    private void add(List<String> to, String key, long count) {
        if (count > 0) to.add(phrases.of(key, count));
    }
}
