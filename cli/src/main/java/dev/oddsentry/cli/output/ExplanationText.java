package dev.oddsentry.cli.output;

import dev.oddsentry.contract.ExplainedRow;
import dev.oddsentry.contract.Explanation;
import dev.oddsentry.contract.HandlingEntry;
import dev.oddsentry.contract.ReportedDay;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** The explanation of a finding, and of what a person got on a day, in lines. Times are in the rule's zone. */
public final class ExplanationText {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("EEE d MMM yyyy HH:mm", Locale.ENGLISH);
    private static final int NAMED = 5;

    private ExplanationText() {}

    public static List<String> finding(Explanation explanation) {
        ZoneId zone = ZoneId.of(explanation.zone());
        var lines = new ArrayList<String>();
        lines.add(explanation.identity() + " in " + explanation.rule() + " (times in " + zone + ")");
        lines.add("  " + explanation.reason());
        if (explanation.now() != null) for (var mark : explanation.now().handling()) lines.add("  " + mark(mark, zone));
        lines.addAll(present(explanation.present()));
        if (!explanation.events().isEmpty()) lines.add("  Timeline:");
        for (var event : explanation.events()) lines.add("    " + time(event.at(), zone) + "  " + event.text());
        return lines;
    }

    private static String mark(HandlingEntry mark, ZoneId zone) {
        String until = mark.until() != null ? ", until " + time(mark.until(), zone) : "";
        String note = mark.note();
        String done = switch (mark.kind()) {
            case "TAKE" -> "Taken";
            case "SNOOZE" -> "Snoozed";
            default -> "Accepted";
        };
        return done + " by " + mark.by() + until + (note.isEmpty() ? "." : ": " + note);
    }

    private static List<String> present(ExplainedRow present) {
        if (present.failure() != null) return List.of("  The source cannot be read now: " + present.failure());
        if (present.verdict() == null) return List.of("  The row is not in the current result.");
        var lines = new ArrayList<String>();
        String row = present.cells().stream()
                .map(cell -> cell.label() + " " + Words.or(cell.text(), "missing"))
                .collect(Collectors.joining(", "));
        String severity =
                present.severity() != null ? " (" + Words.severity(present.severity(), present.look()) + ")" : "";
        lines.add("  In the current result it is "
                + switch (Words.or(present.verdict(), "")) {
                    case "TRUE" -> "an exception" + severity;
                    case "FALSE" -> "not an exception";
                    default -> "unknown, because a value is missing";
                }
                + ": " + row);
        for (var part : present.parts()) {
            String verdict = switch (part.verdict()) {
                case "TRUE" -> "true     ";
                case "FALSE" -> "false    ";
                default -> "unknown  ";
            };
            lines.add("    " + verdict + part.text());
        }
        return lines;
    }

    public static List<String> day(ReportedDay day) {
        ZoneId zone = ZoneId.of(day.zone());
        var lines = new ArrayList<String>();
        lines.add(day.to() + ", " + day.rule() + ", " + String.valueOf(day.on()) + " (times in " + zone + ")");
        if (!day.recipient()) lines.add("  The rule does not send to that address now.");
        if (day.checks().isEmpty()) lines.add("  No checks on that day.");
        for (var check : day.checks()) {
            String reason = Words.or(check.reason(), "");
            lines.add("  " + time(check.slot(), zone) + "  " + Words.state(check.state())
                    + (reason.isEmpty() ? "" : ": " + reason));
        }
        for (var message : day.messages()) {
            lines.add("  Reported in \"" + message.subject() + "\" (" + Words.state(message.state()) + "):");
            for (var finding : message.findings()) {
                String as = String.join(", ", finding.as());
                lines.add("    " + finding.identity() + (as.isEmpty() ? "" : " as " + as));
            }
        }
        if (day.messages().isEmpty()) lines.add("  Nothing was mailed to that address.");
        for (var reason : day.notReported()) {
            var named = reason.identities();
            long more = reason.count() - Math.min(NAMED, named.size());
            lines.add("  Open but not in a message that day: "
                    + reason.reason() + ": "
                    + String.join("; ", named.subList(0, Math.min(NAMED, named.size())))
                    + (more > 0 ? "; and " + more + " more" : ""));
        }
        return lines;
    }

    private static String time(Instant instant, ZoneId zone) {
        return TIME.format(instant.atZone(zone));
    }
}
