package dev.oddsentry.service.messages;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.FieldFormat;
import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.service.mail.MailFields;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** The fields of the texts of one message, with their values. */
final class MessageFields {
    private MessageFields() {}

    static Map<String, @Nullable Object> of(
            MessageContext context, MessageDraft draft, Extract news, @Nullable Instant next, String link) {
        var copy = context.copy();
        var rule = context.rule();
        var locale = rule.delivery().texts().language().locale();
        var thresholds = new HashMap<String, @Nullable Object>();
        for (String name : rule.thresholdsUsed())
            thresholds.put(name, context.labels().thresholdValue(name));
        return MailFields.of(
                new MailFields.Facts(
                        context.title(),
                        rule.name(),
                        rule.owner(),
                        context.moment().slot(),
                        rule.zone(),
                        next,
                        draft.split(),
                        copy == null ? null : copy.key(),
                        copy == null ? null : copy.greeting(),
                        copy == null ? Map.of() : copy.row(),
                        MessageComposer.because(context),
                        rule.thresholdsUsed().stream()
                                .map(name -> context.labels().inForce(name, locale))
                                .collect(Collectors.joining(", ")),
                        thresholds,
                        link,
                        draft.open()),
                news);
    }

    /** Each field in words, and in the formats that it may have: {@code next}, {@code next | weekday}. */
    static Map<String, String> texts(Map<String, @Nullable Object> fields, Extract news) {
        var types = new LinkedHashMap<>(MailFields.types());
        var columns = new LinkedHashMap<String, Type>();
        news.columns().forEach(column -> columns.put(column.name(), column.type()));
        types.putAll(MailFields.figuresOf(columns));
        fields.keySet().stream().sorted().forEach(name -> {
            if (!name.contains("|")) types.putIfAbsent(name, Type.TEXT);
        });
        types.remove(Template.ROWS);
        var texts = new LinkedHashMap<String, String>();
        types.forEach((name, type) -> {
            if (!fields.containsKey(name)) return;
            texts.put(name, rendered(name, fields));
            for (String format : formatsOf(name, type)) put(texts, name + " | " + format, fields);
        });
        return texts;
    }

    /** Those worth choosing: a count reads well as it is, and so does the time of the check. */
    private static List<String> formatsOf(String name, Type type) {
        if (name.equals("time") || type == Type.NUMBER && !name.contains("_")) return List.of();
        return FieldFormat.namesFor(name.equals("date") ? Type.DATE : type);
    }

    private static void put(Map<String, String> texts, String field, Map<String, @Nullable Object> fields) {
        texts.put(field, rendered(field, fields));
    }

    private static String rendered(String field, Map<String, @Nullable Object> fields) {
        return Template.of("{{" + field + "}}").render(fields);
    }
}
