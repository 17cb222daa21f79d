package dev.oddsentry.cli.output;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;

/** The explanation of a finding, and of what a person got on a day, in lines. Times are in the rule's zone. */
public final class ExplanationText {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("EEE d MMM yyyy HH:mm", Locale.ENGLISH);
    private static final int NAMED = 5;

    private ExplanationText() {}

    public static List<String> finding(JsonNode explanation) {
        ZoneId zone = ZoneId.of(explanation.path("zone").asString("UTC"));
        var lines = new ArrayList<String>();
        lines.add(explanation.path("identity").asString("") + " in "
                + explanation.path("rule").asString("") + " (times in " + zone + ")");
        lines.add("  " + explanation.path("reason").asString(""));
        for (JsonNode mark : explanation.path("now").path("handling")) lines.add("  " + mark(mark, zone));
        lines.addAll(present(explanation.path("present")));
        if (!explanation.path("events").isEmpty()) lines.add("  Timeline:");
        for (JsonNode event : explanation.path("events"))
            lines.add("    " + time(event.path("at"), zone) + "  "
                    + event.path("text").asString(""));
        return lines;
    }

    private static String mark(JsonNode mark, ZoneId zone) {
        String until = mark.path("until").isString() ? ", until " + time(mark.path("until"), zone) : "";
        String note = mark.path("note").asString("");
        String done = switch (mark.path("kind").asString("")) {
            case "TAKE" -> "Taken";
            case "SNOOZE" -> "Snoozed";
            default -> "Accepted";
        };
        return done + " by " + mark.path("by").asString("") + until + (note.isEmpty() ? "." : ": " + note);
    }

    private static List<String> present(JsonNode present) {
        if (present.path("failure").isString())
            return List.of("  The source cannot be read now: "
                    + present.path("failure").asString());
        if (!present.path("verdict").isString()) return List.of("  The row is not in the current result.");
        var lines = new ArrayList<String>();
        String row = present.path("cells")
                .valueStream()
                .map(cell -> cell.path("label").asString("") + " "
                        + cell.path("text").asString("missing"))
                .collect(Collectors.joining(", "));
        String severity =
                present.path("severity").isString() ? " (" + Words.severity(present.path("severity")) + ")" : "";
        lines.add("  In the current result it is "
                + switch (present.path("verdict").asString("")) {
                    case "TRUE" -> "an exception" + severity;
                    case "FALSE" -> "not an exception";
                    default -> "unknown, because a value is missing";
                }
                + ": " + row);
        for (JsonNode part : present.path("parts")) {
            String verdict = switch (part.path("verdict").asString("")) {
                case "TRUE" -> "true     ";
                case "FALSE" -> "false    ";
                default -> "unknown  ";
            };
            lines.add("    " + verdict + part.path("text").asString(""));
        }
        return lines;
    }

    public static List<String> day(JsonNode day) {
        ZoneId zone = ZoneId.of(day.path("zone").asString("UTC"));
        var lines = new ArrayList<String>();
        lines.add(day.path("to").asString("") + ", " + day.path("rule").asString("") + ", "
                + day.path("on").asString("") + " (times in " + zone + ")");
        if (!day.path("recipient").asBoolean(false)) lines.add("  The rule does not send to that address now.");
        if (day.path("checks").isEmpty()) lines.add("  No checks on that day.");
        for (JsonNode check : day.path("checks")) {
            String reason = check.path("reason").asString("");
            lines.add("  " + time(check.path("slot"), zone) + "  " + Words.state(check.path("state"))
                    + (reason.isEmpty() ? "" : ": " + reason));
        }
        for (JsonNode message : day.path("messages")) {
            lines.add("  Reported in \"" + message.path("subject").asString("") + "\" ("
                    + Words.state(message.path("state")) + "):");
            for (JsonNode finding : message.path("findings")) {
                String as = String.join(", ", Words.texts(finding.path("as")));
                lines.add("    " + finding.path("identity").asString("") + (as.isEmpty() ? "" : " as " + as));
            }
        }
        if (day.path("messages").isEmpty()) lines.add("  Nothing was mailed to that address.");
        for (JsonNode reason : day.path("notReported")) {
            var named = Words.texts(reason.path("identities"));
            long more = reason.path("count").asLong(0) - Math.min(NAMED, named.size());
            lines.add("  Open but not in a message that day: "
                    + reason.path("reason").asString("") + ": "
                    + String.join("; ", named.subList(0, Math.min(NAMED, named.size())))
                    + (more > 0 ? "; and " + more + " more" : ""));
        }
        return lines;
    }

    private static String time(JsonNode instant, ZoneId zone) {
        return TIME.format(Instant.parse(instant.asString()).atZone(zone));
    }
}
