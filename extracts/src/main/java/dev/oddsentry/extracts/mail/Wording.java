package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.Outline;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.chart.Chart;
import dev.oddsentry.extracts.words.Phrases;
import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** The sentences and short forms that the HTML and the text of a mail share, so that they never say different things. */
final class Wording {
    private static final Duration ALMOST_A_WEEK = Duration.ofHours(6 * 24 + 12);
    private static final int MOST_TITLE_COLUMNS = 2;
    private static final int FIRST_LINE_CELLS = 4;

    private final Phrases phrases;
    private final int year;

    private Wording(Phrases phrases, int year) {
        this.phrases = phrases;
        this.year = year;
    }

    static Wording in(Language language) {
        return new Wording(Phrases.in(language), 0);
    }

    static Wording of(RoundUp said) {
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

    private String word(UpdateKind kind) {
        return phrases.of("kind." + kind.name());
    }

    static boolean isCleared(Extract.Row row) {
        return row.kinds().contains(UpdateKind.CLEARED);
    }

    /** {@code 3 new, 1 worse; 2 of them critical}. */
    String headline(List<Extract.Row> rows) {
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
        String criticalWords = critical == 0
                ? ""
                : critical == rows.size()
                        ? phrases.of("critical.all", critical)
                        : phrases.of("critical.some", critical);
        return String.join(", ", parts) + criticalWords;
    }

    /** A row told under several names is counted under the first of them; one told again in full has none. */
    private static @Nullable UpdateKind leading(Extract.Row row) {
        return row.kinds().stream().sorted().findFirst().orElse(null);
    }

    /** {@code 2 critical, 2 warnings: Late sailings without a reason}, unless a person wrote another. */
    String subject(Announcement said) {
        if (said.own().subject() != null) return oneLine(said.own().subject());
        return counts(said.news().rows()) + ": " + oneLine(said.title());
    }

    /** {@code 2 critical, 2 warnings}. */
    String counts(List<Extract.Row> rows) {
        if (rows.isEmpty()) return phrases.of("quiet.subject");
        var parts = new ArrayList<String>();
        for (var severity : List.of(Severity.CRITICAL, Severity.WARNING, Severity.NOTICE)) {
            long count = rows.stream()
                    .filter(row -> row.severity() == severity && !row.isOver())
                    .count();
            if (count > 0) parts.add(phrases.of("count." + severity.name(), count));
        }
        long cleared = rows.stream().filter(Wording::isCleared).count();
        if (cleared > 0) parts.add(phrases.of("count.cleared", cleared));
        long away = rows.stream().filter(row -> row.isOver() && !isCleared(row)).count();
        if (away > 0) parts.add(phrases.of("count.away", away));
        return String.join(", ", parts);
    }

    /** The hidden first line that an inbox shows beside the subject. */
    String firstLine(Extract news) {
        if (news.rows().isEmpty()) return phrases.of("quiet.headline");
        var first = news.rows().getFirst();
        String told = IntStream.range(0, news.columns().size())
                .limit(FIRST_LINE_CELLS)
                .mapToObj(index -> labelled(news, first, index))
                .collect(Collectors.joining(", "));
        int more = news.rows().size() - 1;
        return told + (more > 0 ? phrases.of("firstLine.more", more) : ".");
    }

    String labelled(Extract extract, Extract.Row row, int index) {
        String value = value(extract, row, index);
        return index < titleColumns(extract)
                ? value
                : extract.columns().get(index).label() + " " + value;
    }

    /** The first columns of the layout name a finding, so they stand without labels; a number without a unit names nothing. */
    static int titleColumns(Extract extract) {
        int names = 0;
        while (names < MOST_TITLE_COLUMNS
                && names < extract.columns().size()
                && namesSomething(extract.columns().get(names))) names++;
        return names;
    }

    private static boolean namesSomething(Extract.Column column) {
        return column.type() != Type.NUMBER || column.unit() != null || column.hasWords();
    }

    String context(Announcement said) {
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

    private String kinds(Extract.Row row) {
        if (row.kinds().isEmpty()) return word(UpdateKind.REMINDER);
        // Whatever got worse, eased or came back has other values too, which the cells show.
        boolean onlyChanged = row.kinds().equals(Set.of(UpdateKind.CHANGED));
        return row.kinds().stream()
                .sorted()
                .filter(kind -> onlyChanged || kind != UpdateKind.CHANGED)
                .map(this::word)
                .collect(Collectors.joining(", "));
    }

    /** {@code ▲ critical, worse}. */
    String severityAndKinds(Extract.Row row) {
        return row.severity().sign() + " "
                + phrases.of("severity." + row.severity().name()) + ", " + kinds(row);
    }

    String value(Extract extract, Extract.Row row, int index) {
        return value(row.cells().get(index).value(), extract.columns().get(index), extract);
    }

    String was(Extract extract, Extract.Row row, int index) {
        Object was = row.cells().get(index).was();
        if (was == null) return "";
        Object before = was == Extract.Cell.WAS_MISSING ? null : was;
        return phrases.of("was", value(before, extract.columns().get(index), extract));
    }

    String value(@Nullable Object value, Extract.Column column, Extract extract) {
        if (value == null) return phrases.of("missing");
        boolean inShort = column.format() == null && !column.hasWords();
        String text = switch (value) {
            case Instant instant
            when inShort && CellWords.isFinite(instant) ->
                timestamp(instant.atZone(extract.zone()).toLocalDateTime());
            case LocalDateTime local
            when inShort && !local.equals(LocalDateTime.MAX) && !local.equals(LocalDateTime.MIN) -> timestamp(local);
            case LocalDate date
            when inShort && !date.equals(LocalDate.MAX) && !date.equals(LocalDate.MIN) ->
                phrases.time("date.cell.date", date);
            default -> oneLine(CellWords.of(value, column, extract));
        };
        return column.unit() == null ? text : text + " " + column.unit();
    }

    /** With its year unless that is the report's, and with the seconds that are there. */
    private String timestamp(LocalDateTime local) {
        String day = local.getYear() == year ? "date.cell.day" : "date.cell.date";
        return phrases.time(day, local) + " " + CellText.of(local.toLocalTime(), ZoneOffset.UTC);
    }

    /** {@code Litres per mile over 31 checks. Tjelden: from 41.2 to 52.1, least 40.8, most 52.1.} */
    String chart(Chart chart) {
        int checks = chart.lines().stream()
                .mapToInt(line -> line.points().size())
                .max()
                .orElse(0);
        String unit = chart.unit() == null ? "" : " " + chart.unit();
        return phrases.of("chart.over", oneLine(chart.label()), checks)
                + chart.lines().stream()
                        .map(line -> " " + (line.name().isEmpty() ? "" : oneLine(line.name()) + ": ")
                                + phrases.of(
                                        "chart.line",
                                        value(line.points().getFirst().value(), unit),
                                        value(line.points().getLast().value(), unit),
                                        value(least(line), unit),
                                        value(most(line), unit)))
                        .collect(Collectors.joining());
    }

    private static BigDecimal least(Chart.Line line) {
        return line.points().stream()
                .map(Chart.Point::value)
                .min(Comparator.naturalOrder())
                .orElseThrow();
    }

    private static BigDecimal most(Chart.Line line) {
        return line.points().stream()
                .map(Chart.Point::value)
                .max(Comparator.naturalOrder())
                .orElseThrow();
    }

    private String value(BigDecimal value, String unit) {
        return CellWords.number(Objects.requireNonNull(Numbers.readable(value)), phrases.language()) + unit;
    }

    /** The values that a group's rows have in common. */
    String group(Extract extract, List<@Nullable Object> values) {
        var groupBy = extract.arrangement().groupBy();
        return IntStream.range(0, values.size())
                .mapToObj(i -> value(values.get(i), extract.columns().get(groupBy.get(i)), extract))
                .collect(Collectors.joining(", "));
    }

    /** {@code Holm – Varsund: Late by, sum 84 min}. */
    String total(Extract extract, Outline.TotalLine total) {
        var parts = new ArrayList<String>();
        for (int i = 0; i < total.totals().size(); i++) {
            Object value = total.totals().get(i);
            var column = extract.columns().get(i);
            if (value == null || column.total() == null) continue;
            String words = CellWords.ofTotal(value, column, extract);
            boolean withUnit = column.unit() != null && column.total() != Total.COUNT;
            parts.add(
                    column.label() + ", " + phrases.of("total." + column.total().name()) + " " + words
                            + (withUnit ? " " + column.unit() : ""));
        }
        String of = total.values().isEmpty()
                ? phrases.of(total.reported() ? "total.reported" : "total.all", total.rows())
                : group(extract, total.values());
        return of + ": " + String.join("; ", parts);
    }

    /** Line breaks and other controls in data would let a cell draw lines of its own. */
    static String oneLine(String text) {
        return text.replaceAll("[\\p{Cntrl}\\u2028\\u2029\\u202a-\\u202e\\u2066-\\u2069]+", " ")
                .strip();
    }

    String more(Announcement said) {
        int more = said.news().rows().size() - said.mostRows();
        if (more <= 0) return "";
        return phrases.of(said.files().attached().isEmpty() ? "more.link" : "more.attachment", more);
    }

    String moreStanding(Announcement said) {
        int more = said.standing().size() - said.mostRows();
        return more <= 0 ? "" : phrases.of("more.other", more);
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

    String inOneLine(Extract extract, Extract.Row row) {
        return IntStream.range(0, extract.columns().size())
                .mapToObj(index -> labelled(extract, row, index))
                .collect(Collectors.joining(", "));
    }

    String seeAll(long open) {
        if (open == 0) return phrases.of("see.none");
        return open == 1 ? phrases.of("see.one") : phrases.of("see.many", open);
    }

    record Link(String text, String to) {}

    /** Recipients who may not have the rows in the mail get a link to them; others get one to all open findings. */
    Link mainLink(Announcement said) {
        var links = said.links();
        return said.linkOnly() && links.archive() != null
                ? new Link(phrases.of("see.rows"), links.archive())
                : new Link(seeAll(said.open()), links.findings());
    }

    /** Those that stand in the foot. */
    List<Link> links(Announcement said) {
        var links = said.links();
        var inFoot = new ArrayList<Link>();
        if (said.linkOnly() && links.archive() != null) inFoot.add(new Link(seeAll(said.open()), links.findings()));
        else if (links.archive() != null) inFoot.add(new Link(phrases.of("archive"), links.archive()));
        if (links.leave() != null) inFoot.add(new Link(phrases.of("leave"), links.leave()));
        return inFoot;
    }

    String because(Announcement said) {
        String notCounted = said.notCounted().isEmpty() ? "" : oneLine(said.notCounted()) + " ";
        return phrases.of("because", oneLine(said.because())) + " " + notCounted + habit(said.habit());
    }

    private String habit(Announcement.Habit habit) {
        if (habit.everythingEachTime()) return phrases.of("habit.full");
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
        if (!files.attached().isEmpty())
            parts.add(phrases.of("attached", String.join(", ", files.attached()))
                    + (files.encrypted() ? " " + phrases.of("encrypted") : ""));
        if (!files.others().isEmpty()) parts.add(phrases.of("attached.others", String.join(", ", files.others())));
        if (!files.tooGreat().isEmpty()) parts.add(phrases.of("tooGreat", String.join(", ", files.tooGreat())));
        if (!files.instead().isEmpty()) parts.add(phrases.of("instead", String.join(", ", files.instead())));
        if (said.next() != null)
            parts.add(phrases.of("next", next(said.slot(), said.next().atZone(said.zone()))));
        parts.add(phrases.of("owner", oneLine(said.owner())));
        return String.join(" ", parts);
    }
}
