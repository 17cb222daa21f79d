package dev.oddsentry.cli.output;

import java.math.MathContext;
import java.math.RoundingMode;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import tools.jackson.databind.JsonNode;

/** Values of the API in words for a table. */
public final class Words {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("EEE d MMM HH:mm z", Locale.ENGLISH);
    private static final DateTimeFormatter TIME_OF_YEAR =
            DateTimeFormatter.ofPattern("EEE d MMM yyyy HH:mm z", Locale.ENGLISH);
    private static final List<String> WORST_FIRST = List.of("CRITICAL", "WARNING", "NOTICE");

    private static final int READABLE_DIGITS = 3;

    private Words() {}

    /** An instant in the zone of this computer, which is said; with its year unless that is this one. A dash where there is none. */
    public static String time(JsonNode instant) {
        return time(instant, ZoneId.systemDefault());
    }

    /** The next check of a rule's summary, in the rule's zone. */
    public static String nextCheck(JsonNode rule) {
        return time(rule.path("nextSlot"), zone(rule));
    }

    /** The zone of a rule's summary. */
    public static ZoneId zone(JsonNode rule) {
        return ZoneId.of(rule.path("zone").asString("UTC"));
    }

    /** An instant in a zone, as {@link #time(JsonNode)}. */
    public static String time(JsonNode instant, ZoneId zone) {
        if (!instant.isString()) return "–";
        var at = Instant.parse(instant.asString()).atZone(zone);
        return (at.getYear() == ZonedDateTime.now(zone).getYear() ? TIME : TIME_OF_YEAR).format(at);
    }

    /** {@code PARTLY_FAILED} as {@code partly failed}. */
    public static String state(JsonNode state) {
        return state.asString("").toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    /** {@code ▲ 3 critical, ◆ 14 warning}; a dash for none. */
    public static String severities(JsonNode counts) {
        var words = new ArrayList<String>();
        for (String severity : WORST_FIRST) {
            if (counts.has(severity))
                words.add(sign(severity) + " " + counts.path(severity) + " " + severity.toLowerCase(Locale.ROOT));
        }
        return words.isEmpty() ? "–" : String.join(", ", words);
    }

    public static String severity(JsonNode severity) {
        return sign(severity.asString("")) + " " + severity.asString("").toLowerCase(Locale.ROOT);
    }

    private static String sign(String severity) {
        return switch (severity) {
            case "CRITICAL" -> "▲";
            case "WARNING" -> "◆";
            default -> "●";
        };
    }

    /** A measured number with three decimals, or three digits where that says more; all of them stand in the JSON. */
    public static String number(JsonNode number) {
        if (!number.isNumber()) return "–";
        var exact = number.decimalValue();
        if (exact.scale() <= READABLE_DIGITS) return exact.toPlainString();
        boolean small = exact.precision() - exact.scale() < 1;
        var rounded = small
                ? exact.round(new MathContext(READABLE_DIGITS, RoundingMode.HALF_UP))
                : exact.setScale(READABLE_DIGITS, RoundingMode.HALF_UP);
        return rounded.stripTrailingZeros().toPlainString();
    }

    /** {@code taken by Ines Holm}; a dash for none. */
    public static String marks(JsonNode marks) {
        var words = new ArrayList<String>();
        for (JsonNode mark : marks) {
            String done = switch (mark.path("kind").asString("")) {
                case "TAKE" -> "taken";
                case "SNOOZE" -> "snoozed";
                default -> "accepted";
            };
            String until = mark.path("until").isString() ? " until " + time(mark.path("until")) : "";
            words.add(done + " by " + mark.path("by").asString("") + until);
        }
        return words.isEmpty() ? "–" : String.join(", ", words);
    }

    /** {@code 1 row}, {@code 312 rows}. */
    public static String count(JsonNode number, String one) {
        return count(number.asLong(0), one);
    }

    /** With a plural of its own. */
    public static String count(int number, String one, String many) {
        return number + " " + (number == 1 ? one : many);
    }

    /** Those to whom a personal copy goes. */
    public static String addresses(JsonNode to) {
        return to.isEmpty() ? "the rule's recipients" : String.join(", ", texts(to));
    }

    private static String count(long number, String one) {
        return number + " " + one + (number == 1 ? "" : "s");
    }

    /** {@code 6 groups} where groups are judged, else {@code 6 rows}. */
    private static String judged(JsonNode number, JsonNode seen) {
        return count(number, seen.path("grouped").asBoolean(false) ? "group" : "row");
    }

    /** A line for each way to count unknown rows, and for each warning. */
    public static List<String> advice(JsonNode seen) {
        var lines = new ArrayList<String>();
        for (JsonNode offer : seen.path("suggestions")) {
            boolean empty = offer.path("empty").asBoolean(false);
            lines.add("  To count the " + judged(offer.path("rows"), seen) + " where "
                    + offer.path("column").asString("") + " is " + (empty ? "empty" : "missing") + ", write: "
                    + offer.path("condition").asString(""));
        }
        for (JsonNode warning : seen.path("warnings")) {
            String suggestion = warning.path("suggestion").asString("");
            lines.add("  Warning: " + warning.path("message").asString("")
                    + (suggestion.isEmpty() ? "" : "; did you mean \"" + suggestion + "\"?"));
        }
        return lines;
    }

    public static List<String> texts(JsonNode array) {
        var texts = new ArrayList<String>();
        array.forEach(each -> texts.add(each.asString("")));
        return texts;
    }

    /** How a check ended, in one sentence. */
    public static String outcome(JsonNode check) {
        String read = check.path("rowsRead").isNumber()
                ? count(check.path("rowsRead"), "row") + " read, " + count(check.path("exceptions"), "exception")
                : "";
        String rows = read + unknown(check);
        return switch (check.path("state").asString("")) {
            case "QUIET" -> "quiet: " + rows + ", nothing new.";
            case "FIRED" -> "fired: " + rows + ", " + check.path("updates") + " reported.";
            case "PARTLY_FAILED" ->
                "partly failed: " + rows + ", " + check.path("updates") + " reported. "
                        + check.path("reason").asString("no reason recorded");
            case "INCOMPLETE" -> "incomplete: " + read + ". Could not be evaluated: " + notJudged(check) + ".";
            case "RUNNING" ->
                check.path("waitingFor").isString()
                        ? "waiting: " + check.path("reason").asString("") + " Next try at "
                                + time(check.path("retryAt")) + "."
                        : "still running.";
            default -> state(check.path("state")) + ": " + check.path("reason").asString("no reason recorded");
        };
    }

    /** {@code Terna, Skua: still learning usual(fuel, 8), 3 of 8; Lomvi: miles is missing; and 4 more}. */
    public static String notJudged(JsonNode seen) {
        var byReason = new LinkedHashMap<String, List<String>>();
        for (JsonNode each : seen.path("unevaluatedGroups")) {
            byReason.computeIfAbsent(each.path("reason").asString(""), _ -> new ArrayList<>())
                    .add(each.path("group").asString(""));
        }
        var words = new ArrayList<String>();
        byReason.forEach((reason, groups) -> words.add(String.join(", ", groups) + ": " + reason));
        long more = seen.path("unevaluated").asLong(0)
                - seen.path("unevaluatedGroups").size();
        if (more > 0) words.add("and " + more + " more");
        return String.join("; ", words);
    }

    private static String unknown(JsonNode check) {
        long rows = check.path("unknownRows").asLong(0);
        return rows == 0 ? "" : ", " + rows + " unknown (value missing)";
    }

    /** A line for each part of a condition, with what it left, and one for each column that left it unknown. */
    public static List<String> parts(JsonNode seen) {
        var lines = new ArrayList<String>();
        for (JsonNode part : seen.path("parts")) {
            lines.add("  " + judged(part.path("rowsLeft"), seen) + " matching after: "
                    + part.path("text").asString(""));
            part.path("unknown")
                    .properties()
                    .forEach(unknown -> lines.add("      " + judged(unknown.getValue(), seen) + " unknown: "
                            + unknown.getKey() + " is missing"));
        }
        return lines;
    }
}
