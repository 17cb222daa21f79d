package dev.oddsentry.cli.output;

import java.math.RoundingMode;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import tools.jackson.databind.JsonNode;

/** Values of the API in words for a table. */
public final class Words {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
    private static final List<String> WORST_FIRST = List.of("CRITICAL", "WARNING", "NOTICE");

    private Words() {}

    /** An instant in the zone of this computer; a dash where there is none. */
    public static String time(JsonNode instant) {
        return instant.isString()
                ? TIME.format(Instant.parse(instant.asString()).atZone(ZoneId.systemDefault()))
                : "–";
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

    /** A measured number with at most three decimals; all of them stand in the JSON. */
    public static String number(JsonNode number) {
        if (!number.isNumber()) return "–";
        var exact = number.decimalValue();
        return exact.scale() > 3
                ? exact.setScale(3, RoundingMode.HALF_UP).stripTrailingZeros().toPlainString()
                : exact.toPlainString();
    }

    /** A line for each way to count rows of which nobody can tell, and for each warning. */
    public static List<String> advice(JsonNode seen) {
        var lines = new ArrayList<String>();
        for (JsonNode offer : seen.path("offers")) {
            lines.add("  To count the " + offer.path("rows") + " rows without "
                    + offer.path("column").asString("") + " too, write: "
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
        String rows = check.path("rowsRead").isNumber()
                ? check.path("rowsRead") + " rows read, " + check.path("exceptions") + " exceptions" + unknown(check)
                : "";
        return switch (check.path("state").asString("")) {
            case "QUIET" -> "quiet: " + rows + ", nothing new to report.";
            case "FIRED" -> "fired: " + rows + ", " + check.path("news") + " reported.";
            case "NOT_JUDGED" -> "not judged: " + rows + "; nobody can tell about " + notJudged(check) + ".";
            case "RUNNING" -> "still running.";
            default -> state(check.path("state")) + ": " + check.path("reason").asString("no reason kept");
        };
    }

    /** {@code Terna (still learning usual(fuel, 8), 3 of 8), Skua (…) and 4 more}. */
    public static String notJudged(JsonNode check) {
        var words = new ArrayList<String>();
        for (JsonNode each : check.path("notJudgedGroups"))
            words.add(
                    each.path("group").asString("") + " (" + each.path("reason").asString("") + ")");
        long more = check.path("notJudged").asLong(0) - words.size();
        return String.join(", ", words) + (more > 0 ? " and " + more + " more" : "");
    }

    private static String unknown(JsonNode check) {
        long rows = check.path("unknownRows").asLong(0);
        return rows == 0 ? "" : ", " + rows + " unknown since a value is missing";
    }

    /** A line for each part of a condition, with the rows it left, and one for each column that left it unknown. */
    public static List<String> parts(JsonNode parts) {
        var lines = new ArrayList<String>();
        for (JsonNode part : parts) {
            lines.add("  " + part.path("rowsLeft") + " rows left after: "
                    + part.path("text").asString(""));
            part.path("unknown")
                    .properties()
                    .forEach(unknown ->
                            lines.add("      unknown for " + unknown.getValue() + " rows without " + unknown.getKey()));
        }
        return lines;
    }
}
