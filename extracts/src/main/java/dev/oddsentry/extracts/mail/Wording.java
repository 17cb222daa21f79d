package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.RowsAs;
import dev.oddsentry.core.extract.SeverityLooks;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.extracts.chart.Chart;
import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.extracts.words.SeverityWords;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** The sentences that the HTML and the text of a mail share, so that they never say different things. */
final class Wording {
    private static final Duration ALMOST_A_WEEK = Duration.ofHours(6 * 24 + 12);
    private static final int FIRST_LINE_CELLS = 4;
    /** Of the recipients of a message. */
    private static final int MOST_NAMED = 8;

    private final Phrases phrases;
    private final int year;
    private final RowWords rows;

    private Wording(Phrases phrases, int year) {
        this.phrases = phrases;
        this.year = year;
        this.rows = new RowWords(phrases, year);
    }

    static Wording in(Language language) {
        return new Wording(Phrases.in(language), 0);
    }

    static Wording of(RoundUp said) {
        return new Wording(
                Phrases.in(said.language()), said.slot().atZone(said.zone()).getYear());
    }

    static Wording of(CollectionMail.Collection said) {
        return new Wording(
                Phrases.in(said.language()), said.slot().atZone(said.zone()).getYear());
    }

    static Wording of(Announcement said) {
        return new Wording(
                Phrases.in(said.news().language()),
                said.slot().atZone(said.zone()).getYear());
    }

    Phrases phrases() {
        return phrases;
    }

    RowWords rows() {
        return rows;
    }

    String chart(Chart chart) {
        return ChartWords.of(chart, phrases);
    }

    /** As they are called where rules with words of their own stand together. */
    SeverityWords usualSeverities() {
        return new SeverityWords(phrases, SeverityLooks.USUAL);
    }

    static boolean isCleared(Extract.Row row) {
        return row.kinds().contains(UpdateKind.CLEARED);
    }

    /** Of a plain report {@code 417 rows}, else as the updates are. */
    String headline(Extract extract) {
        return extract.arrangement().plain()
                ? phrases.of("plain.rows", extract.rows().size())
                : headline(extract.rows(), rows.severities(extract));
    }

    /** {@code 3 new (2 critical)}. */
    String headline(List<Extract.Row> rows, SeverityWords severities) {
        if (rows.isEmpty()) return phrases.of("quiet.headline");
        var parts = new ArrayList<String>();
        for (var kind : UpdateKind.values()) {
            long count = rows.stream().filter(row -> leading(row) == kind).count();
            if (count > 0) parts.add(phrases.of("headline." + kind.name(), count));
        }
        long reminded =
                rows.stream().filter(row -> leading(row) == UpdateKind.REMINDER).count();
        long stillOpen = reminded > 0
                ? 0
                : rows.stream().filter(row -> row.kinds().isEmpty()).count();
        if (stillOpen > 0) parts.add(phrases.of("headline.REMINDER", stillOpen));
        long critical = rows.stream()
                .filter(row -> row.severity() == Severity.CRITICAL && !row.isOver())
                .count();
        return String.join(", ", parts) + severities.criticalOf(critical, rows.size());
    }

    /** A row told under several names is counted under the first of them; one told again in full has none. */
    private static @Nullable UpdateKind leading(Extract.Row row) {
        return row.kinds().stream().sorted().findFirst().orElse(null);
    }

    /** {@code 2 critical, 2 warnings: Late sailings without a reason}, unless a person wrote another. */
    String subject(Announcement said) {
        if (said.own().subject() != null) return oneLine(said.own().subject());
        String counts = said.isPlainReport()
                ? headline(said.news())
                : counts(said.news().rows(), rows.severities(said.news()));
        return counts + ": " + oneLine(said.title());
    }

    /** {@code 2 critical, 2 warnings}. */
    String counts(List<Extract.Row> rows, SeverityWords severities) {
        if (rows.isEmpty()) return phrases.of("quiet.subject");
        var parts = new ArrayList<String>();
        for (var severity : List.of(Severity.CRITICAL, Severity.WARNING, Severity.NOTICE)) {
            long count = rows.stream()
                    .filter(row -> row.severity() == severity && !row.isOver())
                    .count();
            if (count > 0) parts.add(severities.count(severity, count));
        }
        long cleared = rows.stream().filter(Wording::isCleared).count();
        if (cleared > 0) parts.add(phrases.of("count.cleared", cleared));
        long away = rows.stream().filter(row -> row.isOver() && !isCleared(row)).count();
        if (away > 0) parts.add(phrases.of("count.away", away));
        return String.join(", ", parts);
    }

    /** The hidden first line that an inbox shows beside the subject. */
    String firstLine(Extract news) {
        if (news.rows().isEmpty()) return headline(news);
        var first = news.rows().getFirst();
        String told = IntStream.range(0, news.columns().size())
                .limit(FIRST_LINE_CELLS)
                .mapToObj(index -> rows.labelled(news, first, index))
                .collect(Collectors.joining(", "));
        int more = news.rows().size() - 1;
        return told + (more > 0 ? phrases.of("firstLine.more", more) : ".");
    }

    String context(Announcement said) {
        if (said.isPlainReport()) return "";
        String since =
                said.since() == null ? phrases.of("first") : phrases.of("since", longSlot(said.since(), said.zone()));
        long others = said.openButNotTold();
        return since
                + (others == 0 ? "" : " " + phrases.of(said.since() == null ? "others.first" : "others.again", others))
                + (said.leftOut() == 0 ? "" : " " + phrases.of("leftOut", said.leftOut()));
    }

    String slot(Instant slot, ZoneId zone) {
        String name = zoneName(zone);
        boolean universal = name.equals("UTC") || name.equals("Z");
        return longSlot(slot, zone) + " " + (universal ? "UTC" : phrases.of("zone", name));
    }

    String longSlot(Instant slot, ZoneId zone) {
        return phrases.time("date.slot", slot.atZone(zone));
    }

    /** {@code Europe/Oslo} as {@code Oslo}. */
    private static String zoneName(ZoneId zone) {
        String id = zone.normalized().equals(ZoneOffset.UTC) ? "UTC" : zone.getId();
        return id.substring(id.lastIndexOf('/') + 1).replace('_', ' ');
    }

    /** Line breaks and other controls in data would let a cell draw lines of its own. */
    static String oneLine(String text) {
        return text.replaceAll("[\\p{Cntrl}\\u2028\\u2029\\u202a-\\u202e\\u2066-\\u2069]+", " ")
                .strip();
    }

    String more(Announcement said) {
        int more = said.news().rows().size() - said.mostRows();
        if (more <= 0 || said.news().arrangement().rowsAs() == RowsAs.FIGURES) return "";
        return phrases.of(said.files().attached().isEmpty() ? "more.link" : "more.attachment", more);
    }

    /** Of rows below the updates. */
    String moreOf(List<Extract.Row> below, Announcement said) {
        int more = below.size() - said.mostRows();
        boolean rows = said.news().arrangement().rowsAs() != RowsAs.FIGURES;
        return more > 0 && rows ? phrases.of("more.other", more) : "";
    }

    /** A weekday alone says which only within a week. */
    private String next(Instant slot, ZonedDateTime next) {
        if (!next.toInstant().isAfter(slot.plus(ALMOST_A_WEEK))) return phrases.time("date.short", next);
        return phrases.time(next.getYear() == year ? "date.slot" : "date.slot.year", next);
    }

    /** {@code 3 days} in the language of the mail. */
    private String length(String english) {
        var parts = english.split(" ", 2);
        if (parts.length < 2) return english;
        String key = "length." + parts[1];
        return parts[0] + " " + phrases.of(key);
    }

    /** {@code Sailings of the day: 24}. */
    String also(Announcement.Also also) {
        return oneLine(also.title()) + ": " + also.all();
    }

    String moreOf(Announcement.Also also) {
        long more = also.all() - also.most();
        return more <= 0 ? "" : phrases.of("more.other", more);
    }

    String seeAll(long open) {
        if (open == 0) return phrases.of("see.none");
        return open == 1 ? phrases.of("see.one") : phrases.of("see.many", open);
    }

    record Link(String text, String to) {}

    /** Recipients who may not have the rows in the mail get a link to them; others get one to all open findings. */
    Link mainLink(Announcement said) {
        var links = said.links();
        if (said.isPlainReport())
            return links.archive() == null
                    ? new Link(phrases.of("plain.rule"), links.findings())
                    : new Link(phrases.of(said.linkOnly() ? "see.rows" : "archive"), links.archive());
        return said.linkOnly() && links.archive() != null
                ? new Link(phrases.of("see.rows"), links.archive())
                : new Link(seeAll(said.open()), links.findings());
    }

    /** Those that stand in the foot. */
    List<Link> links(Announcement said) {
        var links = said.links();
        var inFoot = new ArrayList<Link>();
        if (said.isPlainReport()) {
            if (links.archive() != null) inFoot.add(new Link(phrases.of("plain.rule"), links.findings()));
        } else if (said.linkOnly() && links.archive() != null)
            inFoot.add(new Link(seeAll(said.open()), links.findings()));
        else if (links.archive() != null) inFoot.add(new Link(phrases.of("archive"), links.archive()));
        inFoot.addAll(readerLinks(links.leave(), links.own()));
        return inFoot;
    }

    /** What a reader can do about the mail itself. */
    List<Link> readerLinks(@Nullable String leave, @Nullable String own) {
        var links = new ArrayList<Link>();
        if (own != null) links.add(new Link(phrases.of("own"), own));
        if (leave != null) links.add(new Link(phrases.of("leave"), leave));
        return links;
    }

    String because(Announcement said) {
        String notCounted = said.notCounted().isEmpty() ? "" : oneLine(said.notCounted()) + " ";
        if (said.isPlainReport()) return notCounted + habit(said.habit());
        return phrases.of("because", oneLine(said.because())) + " " + notCounted + habit(said.habit());
    }

    private String habit(Announcement.Habit habit) {
        if (habit.tells() == Announcement.Tells.ROWS)
            return phrases.of(habit.evenIfNothing() ? "plain.always" : "plain.any");
        if (habit.tells() == Announcement.Tells.EVERYTHING_OPEN) return phrases.of("habit.full");
        var again = new ArrayList<String>();
        for (var kind : List.of(
                UpdateKind.RETURNED,
                UpdateKind.WORSENED,
                UpdateKind.IMPROVED,
                UpdateKind.CHANGED,
                UpdateKind.CLEARED,
                UpdateKind.MOVED)) if (habit.reports().contains(kind)) again.add(phrases.of("again." + kind.name()));
        if (habit.remindEvery() != null) again.add(phrases.of("again.remind", length(habit.remindEvery())));
        return again.isEmpty() ? phrases.of("habit.once") : phrases.of("habit.again", phrases.joinedByOr(again));
    }

    String foot(Announcement said) {
        var parts = new ArrayList<String>();
        var files = said.files();
        parts.addAll(attached(said));
        if (!files.attached().isEmpty() && files.encrypted()) parts.add(phrases.of("encrypted"));
        if (!files.others().isEmpty()) parts.add(phrases.of("attached.others", String.join(", ", files.others())));
        if (!files.byLink().isEmpty()) parts.add(phrases.of("byLink", String.join(", ", files.byLink())));
        if (!files.tooGreat().isEmpty()) parts.add(phrases.of("tooGreat", String.join(", ", files.tooGreat())));
        if (!files.instead().isEmpty()) parts.add(phrases.of("instead", String.join(", ", files.instead())));
        if (said.next() != null)
            parts.add(phrases.of("next", next(said.slot(), said.next().atZone(said.zone()))));
        parts.add(phrases.of("owner", oneLine(said.owner())));
        if (!said.sentTo().isEmpty()) parts.add(sentTo(said.sentTo()));
        return String.join(" ", parts);
    }

    private String sentTo(List<String> all) {
        String named = oneLine(String.join(", ", all.subList(0, Math.min(MOST_NAMED, all.size()))));
        int more = all.size() - MOST_NAMED;
        return more > 0 ? phrases.of("sentTo.more", named, more) : phrases.of("sentTo", named);
    }

    /** {@code All open findings are attached: late-sailings-2026-11-24.csv.}, for each kind of rows. */
    private List<String> attached(Announcement said) {
        var byRows = new LinkedHashMap<String, List<String>>();
        for (var file : said.files().attached()) {
            String key = said.isPlainReport()
                    ? "plain.attached"
                    : file.rows() == null
                            ? "attached"
                            : "attached." + file.rows().name();
            byRows.computeIfAbsent(key, _ -> new ArrayList<>()).add(file.name());
        }
        return byRows.entrySet().stream()
                .map(each -> phrases.of(each.getKey(), String.join(", ", each.getValue())))
                .toList();
    }
}
