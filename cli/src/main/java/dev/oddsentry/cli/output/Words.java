package dev.oddsentry.cli.output;

import dev.oddsentry.contract.CheckView;
import dev.oddsentry.contract.HandlingEntry;
import dev.oddsentry.contract.PartCount;
import dev.oddsentry.contract.Problem;
import dev.oddsentry.contract.RuleSummary;
import dev.oddsentry.contract.SeverityLook;
import dev.oddsentry.contract.UnevaluatedGroup;
import dev.oddsentry.contract.UnknownRowsSuggestion;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Values of the API in words for a table. */
public final class Words {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("EEE d MMM HH:mm z", Locale.ENGLISH);
    private static final DateTimeFormatter TIME_OF_YEAR =
            DateTimeFormatter.ofPattern("EEE d MMM yyyy HH:mm z", Locale.ENGLISH);
    private static final List<String> WORST_FIRST = List.of("CRITICAL", "WARNING", "NOTICE");

    private static final int READABLE_DIGITS = 3;
    private static final int MINUTES = 60;
    private static final int HOURS = 24;

    private Words() {}

    /** An instant in the zone of this computer, which is said; with its year unless that is this one. A dash where there is none. */
    public static String time(@Nullable Instant instant) {
        return time(instant, ZoneId.systemDefault());
    }

    /** The next check of a rule's summary, in the rule's zone. */
    public static String nextCheck(RuleSummary rule) {
        return time(rule.nextSlot(), zone(rule));
    }

    /** The zone of a rule's summary. */
    public static ZoneId zone(RuleSummary rule) {
        return ZoneId.of(rule.zone());
    }

    /** An instant in a zone, as {@link #time(Instant)}. */
    public static String time(@Nullable Instant instant, ZoneId zone) {
        if (instant == null) return "–";
        var at = instant.atZone(zone);
        return (at.getYear() == ZonedDateTime.now(zone).getYear() ? TIME : TIME_OF_YEAR).format(at);
    }

    /** {@code 40 min}, {@code 3 hours}, {@code 3 days}: in the greatest unit of which there are at least two. */
    public static String duration(Number seconds) {
        var length = Duration.ofSeconds(seconds.longValue());
        if (length.toMinutes() < 2 * MINUTES) return length.toMinutes() + " min";
        return length.toHours() < 2 * HOURS ? length.toHours() + " hours" : length.toDays() + " days";
    }

    /** {@code PARTLY_FAILED} as {@code partly failed}. */
    public static String state(@Nullable String state) {
        return state == null ? "" : state.toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    /** {@code ▲ 3 critical, ◆ 14 warning}; a dash for none. */
    public static String severities(Map<String, ? extends Number> counts, Map<String, SeverityLook> looks) {
        var words = new ArrayList<String>();
        for (String severity : WORST_FIRST) {
            if (counts.containsKey(severity))
                words.add(sign(severity, looks.get(severity)) + " " + counts.get(severity) + " "
                        + word(severity, looks.get(severity)));
        }
        return words.isEmpty() ? "–" : String.join(", ", words);
    }

    /** By the rule's own word, if it has one: {@code ▲ over the limit}. */
    public static String severity(String severity, @Nullable SeverityLook look) {
        return sign(severity, look) + " " + word(severity, look);
    }

    private static String word(String severity, @Nullable SeverityLook look) {
        return look == null || look.word() == null ? severity.toLowerCase(Locale.ROOT) : look.word();
    }

    private static String sign(String severity, @Nullable SeverityLook look) {
        return look != null && look.colour().equals("GREEN") ? "✓" : sign(severity);
    }

    private static String sign(String severity) {
        return switch (severity) {
            case "CRITICAL" -> "▲";
            case "WARNING" -> "◆";
            default -> "●";
        };
    }

    /** A measured number with three decimals, or three digits where that says more; all of them stand in the JSON. */
    public static String number(@Nullable BigDecimal exact) {
        if (exact == null) return "–";
        if (exact.scale() <= READABLE_DIGITS) return exact.toPlainString();
        boolean small = exact.precision() - exact.scale() < 1;
        var rounded = small
                ? exact.round(new MathContext(READABLE_DIGITS, RoundingMode.HALF_UP))
                : exact.setScale(READABLE_DIGITS, RoundingMode.HALF_UP);
        return rounded.stripTrailingZeros().toPlainString();
    }

    /** {@code taken by Ines Holm}; a dash for none. */
    public static String marks(List<HandlingEntry> marks) {
        var words = new ArrayList<String>();
        for (var mark : marks) {
            String done = switch (mark.kind()) {
                case "TAKE" -> "taken";
                case "SNOOZE" -> "snoozed";
                default -> "accepted";
            };
            String until = mark.until() != null ? " until " + time(mark.until()) : "";
            words.add(done + " by " + mark.by() + until);
        }
        return words.isEmpty() ? "–" : String.join(", ", words);
    }

    /** {@code 1 row}, {@code 312 rows}. */
    public static String count(@Nullable Number number, String one) {
        return orNone(number) + " " + one + (orNone(number) == 1 ? "" : "s");
    }

    /** Zero where there is none. */
    public static long orNone(@Nullable Number number) {
        return number == null ? 0 : number.longValue();
    }

    /** @param none what is said where there is no value */
    public static String or(@Nullable Object value, String none) {
        return value == null ? none : value.toString();
    }

    /** With a plural of its own. */
    public static String count(int number, String one, String many) {
        return number + " " + (number == 1 ? one : many);
    }

    /** Those to whom a personal copy goes. */
    public static String addresses(List<String> to) {
        return to.isEmpty() ? "the rule's recipients" : String.join(", ", to);
    }

    /** {@code 6 groups} where groups are evaluated, else {@code 6 rows}. */
    private static String rows(@Nullable Long number, boolean grouped) {
        return count(number, grouped ? "group" : "row");
    }

    /** A line for each way to count unknown rows, and for each warning. */
    public static List<String> advice(
            List<UnknownRowsSuggestion> suggestions, List<Problem> warnings, boolean grouped) {
        var lines = new ArrayList<String>();
        for (var offer : suggestions)
            lines.add("  To count the " + rows(offer.rows(), grouped) + " where " + offer.column() + " is "
                    + (offer.empty() ? "empty" : "missing") + ", write: " + offer.condition());
        for (var warning : warnings)
            lines.add("  Warning: " + warning.message()
                    + (warning.suggestion() == null ? "" : "; did you mean \"" + warning.suggestion() + "\"?"));
        return lines;
    }

    /** How a check ended, in one sentence. */
    public static String outcome(CheckView check) {
        String read = check.rowsRead() == null
                ? ""
                : count(check.rowsRead(), "row") + " read, " + count(check.exceptions(), "exception");
        String rows = read + unknown(check);
        return switch (check.state()) {
            case "QUIET" -> "quiet: " + rows + ", nothing new.";
            case "FIRED" -> "fired: " + rows + ", " + check.updates() + " reported.";
            case "PARTLY_FAILED" ->
                "partly failed: " + rows + ", " + check.updates() + " reported. "
                        + or(check.reason(), "no reason recorded");
            case "INCOMPLETE" ->
                "incomplete: " + read + ". Could not be evaluated: "
                        + unevaluated(check.unevaluatedGroups(), check.unevaluated()) + ".";
            case "RUNNING" ->
                check.waitingFor() == null
                        ? "still running."
                        : "waiting: " + or(check.reason(), "") + " Next try at " + time(check.retryAt()) + ".";
            default -> state(check.state()) + ": " + or(check.reason(), "no reason recorded");
        };
    }

    /** {@code Terna, Skua: still learning usual(fuel, 8), 3 of 8; Lomvi: miles is missing; and 4 more}. */
    public static String unevaluated(List<UnevaluatedGroup> groups, @Nullable Long all) {
        var byReason = new LinkedHashMap<String, List<String>>();
        for (var each : groups)
            byReason.computeIfAbsent(each.reason(), _ -> new ArrayList<>()).add(each.group());
        var words = new ArrayList<String>();
        byReason.forEach((reason, named) -> words.add(String.join(", ", named) + ": " + reason));
        long more = orNone(all) - groups.size();
        if (more > 0) words.add("and " + more + " more");
        return String.join("; ", words);
    }

    private static String unknown(CheckView check) {
        return orNone(check.unknownRows()) == 0 ? "" : ", " + check.unknownRows() + " unknown (value missing)";
    }

    /** A line for each part of a condition, with what it left, and one for each column that left it unknown. */
    public static List<String> parts(List<PartCount> parts, boolean grouped) {
        var lines = new ArrayList<String>();
        for (var part : parts) {
            lines.add("  " + rows(part.rowsLeft(), grouped) + " matching after: " + part.text());
            part.unknown()
                    .forEach((column, rows) ->
                            lines.add("      " + rows(rows, grouped) + " unknown: " + column + " is missing"));
        }
        return lines;
    }
}
