package dev.oddsentry.core.definition;

import dev.oddsentry.core.document.Fields;
import java.util.List;

/** What a plain report cannot have: whatever is about severities, findings and updates. */
final class PlainReport {
    private static final List<String> MEMORY = List.of(
            "key",
            "watch",
            "report",
            "absence",
            "open_after",
            "clear_after",
            "confirm_after",
            "remind_every",
            "max_cleared",
            "max_opened",
            "forget_after",
            "first_check");

    private PlainReport() {}

    static void refuseFindings(Fields rule) {
        refuse(rule, "severity", "severities");
        var memory = rule.fields("memory");
        for (String each : MEMORY) refuse(memory, each, "findings");
        if (rule.has("delivery")) {
            var delivery = rule.fields("delivery");
            refuse(delivery, "escalate", "findings");
            refuse(delivery, "send_from", "severities");
            if (delivery.isMapping("layout")) {
                refuse(delivery.fields("layout"), "still_open", "findings");
                refuse(delivery.fields("layout"), "whole_report", "exceptions");
                refuse(delivery.fields("layout"), "severities", "severities");
            }
        }
        if (rule.has("copies")) refuse(rule.fields("copies"), "newcomers", "findings");
    }

    private static void refuse(Fields of, String name, String what) {
        if (of.has(name))
            of.refuse(name, "a plain report has no " + what + "; remove " + name + ", or choose another memory: mode");
    }
}
