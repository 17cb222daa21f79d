package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Type;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** The sentences and short forms that the HTML and the text of a mail share, so that they never say different things. */
final class Wording {
    private static final int MOST_TITLE_COLUMNS = 2;
    private static final DateTimeFormatter SLOT = DateTimeFormatter.ofPattern("EEEE d MMMM, HH:mm", Locale.ENGLISH);
    private static final DateTimeFormatter SHORT_SLOT = DateTimeFormatter.ofPattern("EEEE HH:mm", Locale.ENGLISH);
    private static final DateTimeFormatter CELL_TIME = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
    private static final DateTimeFormatter CELL_DATE = DateTimeFormatter.ofPattern("EEE d MMM yyyy", Locale.ENGLISH);

    private Wording() {}

    private static String word(NewsKind kind) {
        return switch (kind) {
            case NEW -> "new";
            case RETURNED -> "back";
            case WORSENED -> "worse";
            case EASED -> "eased";
            case CHANGED -> "changed";
            case CLEARED -> "cleared";
            case MOVED_AWAY -> "moved away";
            case REMINDER -> "still open";
        };
    }

    static boolean isCleared(Extract.Row row) {
        return row.kinds().contains(NewsKind.CLEARED);
    }

    /** Nothing that these readers have to see to any more. */
    static boolean isOver(Extract.Row row) {
        return isCleared(row) || row.kinds().contains(NewsKind.MOVED_AWAY);
    }

    /** {@code 3 new, 1 worse; 2 of them critical}. */
    static String headline(List<Extract.Row> rows) {
        var parts = new ArrayList<String>();
        for (var kind : NewsKind.values()) {
            long count = rows.stream().filter(row -> leading(row) == kind).count();
            if (count > 0) parts.add(count + " " + word(kind));
        }
        long reminded =
                rows.stream().filter(row -> leading(row) == NewsKind.REMINDER).count();
        long stillOpen = reminded > 0
                ? 0
                : rows.stream().filter(row -> row.kinds().isEmpty()).count();
        if (stillOpen > 0) parts.add(stillOpen + " still open");
        long critical = rows.stream()
                .filter(row -> row.severity() == Severity.CRITICAL && !isOver(row))
                .count();
        String criticalWords =
                critical == 0 ? "" : critical == rows.size() ? "; critical" : "; " + critical + " of them critical";
        return String.join(", ", parts) + criticalWords;
    }

    /** A row told under several names is counted under the first of them; one told again in full has none. */
    private static @Nullable NewsKind leading(Extract.Row row) {
        return row.kinds().stream().sorted().findFirst().orElse(null);
    }

    /** {@code 2 critical, 2 warnings: Late sailings without a reason}. */
    static String subject(Announcement said) {
        return counts(said.news().rows()) + ": " + oneLine(said.title());
    }

    /** {@code 2 critical, 2 warnings}. */
    static String counts(List<Extract.Row> rows) {
        var parts = new ArrayList<String>();
        for (var severity : List.of(Severity.CRITICAL, Severity.WARNING, Severity.NOTICE)) {
            long count = rows.stream()
                    .filter(row -> row.severity() == severity && !isOver(row))
                    .count();
            if (count > 0) parts.add(count + " " + plural(severity, count));
        }
        long cleared = rows.stream().filter(Wording::isCleared).count();
        if (cleared > 0) parts.add(cleared + " cleared");
        long away = rows.stream().filter(row -> isOver(row) && !isCleared(row)).count();
        if (away > 0) parts.add(away + " moved away");
        return String.join(", ", parts);
    }

    private static String plural(Severity severity, long count) {
        return severity == Severity.CRITICAL || count == 1 ? severity.word() : severity.word() + "s";
    }

    /** The hidden first line that an inbox shows beside the subject. */
    static String firstLine(Extract news) {
        var first = news.rows().getFirst();
        String told = cells(news).stream()
                .map(index -> labelled(news, first, index))
                .limit(4)
                .collect(Collectors.joining(", "));
        int more = news.rows().size() - 1;
        return told + (more > 0 ? "; " + more + " more." : ".");
    }

    private static List<Integer> cells(Extract extract) {
        var indexes = new ArrayList<Integer>();
        for (int i = 0; i < extract.columns().size(); i++) indexes.add(i);
        return indexes;
    }

    static String labelled(Extract extract, Extract.Row row, int index) {
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
        return column.type() != Type.NUMBER || column.unit() != null;
    }

    static String context(Announcement said) {
        String since = said.since() == null
                ? "This is the first report."
                : "Since the report of " + longSlot(said.since(), said.zone()) + ".";
        long others = said.openButNotTold();
        return since
                + (others == 0
                        ? ""
                        : " " + others + (said.since() == null ? " known" : " reported") + " before "
                                + (others == 1 ? "is" : "are") + " still open.")
                + (said.leftOut() == 0 ? "" : " " + said.leftOut() + " more left out, snoozed or accepted.");
    }

    static String slot(Instant slot, ZoneId zone) {
        return longSlot(slot, zone) + " " + zoneWords(zone);
    }

    static String longSlot(Instant slot, ZoneId zone) {
        return SLOT.format(slot.atZone(zone));
    }

    /** {@code Europe/Oslo} as {@code Oslo time}. */
    private static String zoneWords(ZoneId zone) {
        String id = zone.getId();
        return id.substring(id.lastIndexOf('/') + 1).replace('_', ' ') + " time";
    }

    private static String kinds(Extract.Row row) {
        if (row.kinds().isEmpty()) return "still open";
        // Whatever got worse, eased or came back has other values too, which the cells show.
        boolean onlyChanged = row.kinds().equals(Set.of(NewsKind.CHANGED));
        return row.kinds().stream()
                .sorted()
                .filter(kind -> onlyChanged || kind != NewsKind.CHANGED)
                .map(Wording::word)
                .collect(Collectors.joining(", "));
    }

    /** {@code ▲ critical, worse}. */
    static String severityAndKinds(Extract.Row row) {
        return row.severity().sign() + " " + row.severity().word() + ", " + kinds(row);
    }

    static String value(Extract extract, Extract.Row row, int index) {
        return value(row.cells().get(index).value(), extract.columns().get(index), extract.zone());
    }

    static String was(Extract extract, Extract.Row row, int index) {
        Object was = row.cells().get(index).was();
        return was == null ? "" : " (was " + value(was, extract.columns().get(index), extract.zone()) + ")";
    }

    private static String value(@Nullable Object value, Extract.Column column, ZoneId zone) {
        if (value == null) return "missing";
        String text = switch (value) {
            case Instant instant when isFinite(instant) -> CELL_TIME.format(instant.atZone(zone));
            case LocalDateTime local -> CELL_TIME.format(local);
            case LocalDate date -> CELL_DATE.format(date);
            default -> oneLine(CellText.of(value, zone));
        };
        return column.unit() == null ? text : text + " " + column.unit();
    }

    private static boolean isFinite(Instant instant) {
        return !instant.equals(Instant.MAX) && !instant.equals(Instant.MIN);
    }

    /** Line breaks and other controls in data would let a cell draw lines of its own. */
    static String oneLine(String text) {
        return text.replaceAll("[\\p{Cntrl}\\u2028\\u2029\\u202a-\\u202e\\u2066-\\u2069]+", " ")
                .strip();
    }

    static String more(Announcement said) {
        int more = said.news().rows().size() - Announcement.MOST_ROWS;
        if (more <= 0) return "";
        return "and " + more + " more " + (said.attachment() == null ? "behind the link below" : "in the attachment");
    }

    static String seeAll(long open) {
        if (open == 0) return "See the findings, none of them open";
        return open == 1 ? "See the open finding" : "See all " + open + " open findings";
    }

    static String because(Announcement said) {
        String notCounted = said.notCounted().isEmpty() ? "" : oneLine(said.notCounted()) + " ";
        return "You get this because, " + oneLine(said.because()) + ". " + notCounted + habit(said.habit());
    }

    private static String habit(Announcement.Habit habit) {
        if (habit.everythingEachTime()) return "Everything that is so is reported each time.";
        var again = new ArrayList<String>();
        if (habit.reports().contains(NewsKind.RETURNED)) again.add("if it comes back");
        if (habit.reports().contains(NewsKind.WORSENED)) again.add("if it gets worse");
        if (habit.reports().contains(NewsKind.EASED)) again.add("if it eases");
        if (habit.reports().contains(NewsKind.CHANGED)) again.add("if its values change");
        if (habit.reports().contains(NewsKind.CLEARED)) again.add("when it clears");
        if (habit.reports().contains(NewsKind.MOVED_AWAY)) again.add("when it moves to others");
        if (habit.remindEvery() != null) again.add("every " + habit.remindEvery() + " while it is open");
        return again.isEmpty()
                ? "Each finding is reported once."
                : "Each finding is reported once, and again " + joined(again) + ".";
    }

    private static String joined(List<String> occasions) {
        String last = occasions.removeLast();
        return occasions.isEmpty() ? last : String.join(", ", occasions) + " or " + last;
    }

    static String foot(Announcement said) {
        var parts = new ArrayList<String>();
        if (said.attachment() != null) parts.add("Attached: " + said.attachment() + ", everything open now.");
        if (said.next() != null)
            parts.add("Next check: " + SHORT_SLOT.format(said.next().atZone(said.zone())) + ".");
        parts.add("Owner: " + oneLine(said.owner()) + ".");
        return String.join(" ", parts);
    }
}
