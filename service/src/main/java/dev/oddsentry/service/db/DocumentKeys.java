package dev.oddsentry.service.db;

import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The names as they were, and as they became; a later change of names is a migration of its own. */
final class DocumentKeys {
    private static final Map<String, String> RULE = Map.of(
            "fire when", "fire_when",
            "groups from", "expected_groups",
            "copied from", "copied_from",
            "checking", "limits");
    private static final Map<String, String> LIMITS = Map.of("time limit", "time_limit", "retry after", "retry_after");
    private static final Map<String, String> MEMORY = Map.of(
            "hold", "open_after",
            "misses", "clear_after",
            "guard", "confirm_after",
            "remind every", "remind_every",
            "most cleared", "max_cleared",
            "most opened", "max_opened",
            "first check", "first_check",
            "forget after", "forget_after");
    private static final Map<String, String> SCHEDULE =
            Map.of("working days", "working_days", "on holiday", "on_holidays", "ready when", "ready_when");
    private static final Map<String, String> DELIVERY = Map.of(
            "reply to", "reply_to",
            "split by", "split_by",
            "split to", "split_to",
            "split from", "split_from",
            "split address", "split_address",
            "also send", "also_send",
            "may leave", "allow_unsubscribe",
            "all quiet", "send_when_quiet",
            "most an hour", "max_per_hour");
    private static final Map<String, String> LAYOUT = Map.of(
            "group by", "group_by",
            "rows in mail", "rows_in_mail",
            "still open", "still_open",
            "private to", "private_to",
            "besides", "extra_columns");
    private static final Map<String, String> VALUES = Map.ofEntries(
            Map.entry("put right", "clears"),
            Map.entry("passed by", "ages_out"),
            Map.entry("stays", "stays_open"),
            Map.entry("take as known", "treat_as_known"),
            Map.entry("next working day", "next_working_day"),
            Map.entry("previous working day", "previous_working_day"),
            Map.entry("drop", "skip"),
            Map.entry("eased", "improved"),
            Map.entry("moved away", "moved"),
            Map.entry("blank", "no_rows"),
            Map.entry("news", "update"));

    private DocumentKeys() {}

    static ObjectNode renamed(ObjectNode document) {
        return switch (document.path("kind").asString("")) {
            case "rule" -> rule(document);
            case "query" -> query(document);
            case "calendar" -> keys(document, Map.of("worked", "extra_working_days"));
            case "layout" -> layout(document);
            case "round-up" -> roundUp(document);
            default -> document;
        };
    }

    private static ObjectNode rule(ObjectNode before) {
        var rule = keys(before, RULE);
        if (rule.path("limits") instanceof ObjectNode limits) {
            var whenEmpty = limits.remove("when blank");
            rule.set("limits", keys(limits, LIMITS));
            if (rule.path("limits").isEmpty()) rule.remove("limits");
            if (whenEmpty != null)
                rule.withObjectProperty("schedule")
                        .put("when_empty", whenEmpty.asString("").replace("tell", "notify"));
        }
        if (rule.path("fire_when").isString())
            rule.put("fire_when", rule.path("fire_when").asString().replaceAll("\\bnews\\s*\\(", "updates("));
        if (rule.path("memory") instanceof ObjectNode old) {
            var memory = keys(old, MEMORY);
            values(memory, "absence", "first_check", "report");
            rule.set("memory", memory);
        }
        if (rule.path("schedule") instanceof ObjectNode schedule) rule.set("schedule", schedule(schedule));
        if (rule.path("copies") instanceof ObjectNode copies) values(copies, "newcomers");
        if (rule.path("delivery") instanceof ObjectNode delivery) rule.set("delivery", delivery(delivery));
        return rule;
    }

    private static ObjectNode schedule(ObjectNode before) {
        var schedule = keys(before, SCHEDULE);
        values(schedule, "on_holidays");
        for (JsonNode after : schedule.path("after")) if (after instanceof ObjectNode followed) values(followed, "on");
        if (schedule.path("ready_when") instanceof ObjectNode ready)
            schedule.set("ready_when", keys(ready, Map.of("ask every", "every")));
        return schedule;
    }

    private static ObjectNode delivery(ObjectNode before) {
        var delivery = layout(keys(before, DELIVERY));
        if (delivery.path("layout") instanceof ObjectNode layout) delivery.set("layout", layout(layout));
        for (JsonNode also : delivery.path("also_send"))
            if (also instanceof ObjectNode other) {
                attachments(other);
                var renamed = keys(other, LAYOUT);
                other.removeAll();
                other.setAll(renamed);
            }
        attachments(delivery);
        for (String text : List.of("subject", "opening"))
            if (delivery.path(text).isString())
                delivery.put(text, fields(delivery.path(text).asString()));
        return delivery;
    }

    private static void attachments(ObjectNode holder) {
        for (JsonNode each : holder.path("attach"))
            if (each instanceof ObjectNode file) {
                var renamed = keys(file, Map.of("mark", "byte_order_mark"));
                file.removeAll();
                file.setAll(renamed);
            }
    }

    private static String fields(String template) {
        return template.replaceAll("(\\{\\{[#^/]?\\s*)news(\\s*\\}\\})", "$1updates$2")
                .replaceAll("(\\{\\{[#^/]?\\s*)eased(\\s*\\}\\})", "$1improved$2")
                .replaceAll("(\\{\\{[#^/]?\\s*)moved_away(\\s*\\}\\})", "$1moved$2");
    }

    private static ObjectNode layout(ObjectNode before) {
        var layout = keys(before, LAYOUT);
        values(layout, "extra_columns");
        return layout;
    }

    private static ObjectNode query(ObjectNode query) {
        if (query.path("parameters") instanceof ObjectNode parameters)
            for (String name : List.copyOf(parameters.propertyNames()))
                if (parameters.path(name) instanceof ObjectNode parameter)
                    parameters.set(name, keys(parameter, Map.of("several", "multiple")));
        return query;
    }

    private static ObjectNode roundUp(ObjectNode before) {
        var roundUp = keys(before, Map.of("at once", "send_immediately"));
        if (roundUp.path("schedule") instanceof ObjectNode schedule) roundUp.set("schedule", schedule(schedule));
        return roundUp;
    }

    /** The same fields in the same order, under other names. */
    private static ObjectNode keys(ObjectNode before, Map<String, String> names) {
        var after = before.objectNode();
        before.properties()
                .forEach(each -> after.set(names.getOrDefault(each.getKey(), each.getKey()), each.getValue()));
        return after;
    }

    /** Other words for a text, or for each of a list of texts. */
    private static void values(ObjectNode of, String... fields) {
        for (String field : fields) {
            JsonNode value = of.path(field);
            if (value.isString()) of.put(field, VALUES.getOrDefault(value.asString(), value.asString()));
            if (!value.isArray()) continue;
            var renamed = of.arrayNode();
            value.forEach(each -> {
                if (each.isString()) renamed.add(VALUES.getOrDefault(each.asString(), each.asString()));
                else renamed.add(each);
            });
            of.set(field, renamed);
        }
    }
}
