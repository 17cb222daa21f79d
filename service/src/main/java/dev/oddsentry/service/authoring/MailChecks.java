package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.Attachment;
import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.Sender;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.mail.MailFields;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Whether what a rule says of its mail can be done: the fields of its texts, and those whom it names. */
@Component
class MailChecks {
    private final DefinitionStore store;
    private final RecipientChecks people;
    private final Settings.Mail mail;

    MailChecks(DefinitionStore store, RecipientChecks people, Settings settings) {
        this.store = store;
        this.people = people;
        this.mail = settings.mail();
    }

    /** @param conditions null if they cannot be read */
    List<Problem> problems(RuleDefinition rule, Columns columns, @Nullable CheckedRule conditions, FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        var delivery = rule.delivery();
        var known = new TreeMap<String, @Nullable Type>(MailFields.types());
        var rows = shown(rule, columns, conditions);
        known.putAll(rows);
        known.putAll(MailFields.figuresOf(rows));
        // What they measure is not known while the conditions cannot be read; that they are there is.
        if (rule.groups() != null)
            rule.groups().measures().keySet().forEach(measure -> known.putIfAbsent(measure, null));
        known.putAll(MailFields.ofThresholds(rule.thresholdsUsed()));
        if (rule.copies() != null)
            store.query(rule.copies().from())
                    .ifPresent(query -> known.putAll(
                            MailFields.ofRecipient(store.columns(query).names())));
        texts("delivery", delivery, known, places, problems);
        problems.addAll(fileNames(delivery.attachments(), "delivery", places));
        for (int i = 0; i < delivery.variants().size(); i++) {
            var variant = delivery.variants().get(i);
            String field = "delivery.variants[" + i + "]";
            problems.addAll(people.problems(field + ".for", variant.recipients(), places));
            texts(field, delivery.as(variant), known, places, problems);
            if (variant.attachments() != null) problems.addAll(fileNames(variant.attachments(), field, places));
            if (delivery.split() == null && rule.copies() == null)
                problems.addAll(people.outside(field + ".for", variant.recipients(), delivery.to(), places));
        }
        encrypted(rule, places).ifPresent(problems::add);
        chart(rule, places).ifPresent(problems::add);
        var recipients = delivery.recipients();
        problems.addAll(people.problems("delivery.to", recipients.to(), places));
        problems.addAll(people.problems("delivery.cc", recipients.cc(), places));
        problems.addAll(people.problems("delivery.bcc", recipients.bcc(), places));
        problems.addAll(people.problems("delivery.reply_to", recipients.replyTo(), places));
        var split = delivery.split();
        if (split != null) {
            split.to()
                    .forEach((value, to) -> problems.addAll(people.problems("delivery.split_to." + value, to, places)));
            if (split.address() != null
                    && columns.indexOf(split.address(), false).isEmpty())
                problems.add(places.locate(
                        "delivery.split_address",
                        Problem.error(
                                        "there is no column " + split.address() + "; there are: "
                                                + String.join(", ", columns.names()),
                                        "",
                                        null)
                                .suggesting(Nearest.to(split.address(), columns.names())
                                        .orElse(null))));
        }
        sender(delivery.options().sender(), places).ifPresent(problems::add);
        if (delivery.escalation() != null)
            problems.addAll(people.problems(
                    "delivery.escalate.to", delivery.escalation().to(), places));
        return problems;
    }

    private static void texts(
            String field,
            DeliveryDefinition delivery,
            Map<String, ? extends @Nullable Type> known,
            FieldPlaces places,
            List<Problem> problems) {
        var texts = delivery.texts();
        fields(field + ".subject", texts.subject(), known, places, problems);
        fields(field + ".opening", texts.opening(), known, places, problems);
        fields(field + ".closing", texts.closing(), known, places, problems);
        if (delivery.show() != DeliveryDefinition.Show.LINK) return;
        noRows(field + ".subject", texts.subject(), places, problems);
        noRows(field + ".opening", texts.opening(), places, problems);
        noRows(field + ".closing", texts.closing(), places, problems);
    }

    /** The columns that a message shows, with their types as far as they are known. */
    private static Map<String, Type> shown(RuleDefinition rule, Columns columns, @Nullable CheckedRule conditions) {
        var layout = rule.delivery().layout().columnNames();
        var evaluated = conditions == null ? columns : conditions.columns();
        var usual = conditions == null ? columns.names() : conditions.shown();
        var shown = new LinkedHashMap<String, Type>();
        for (String name : layout.isEmpty() ? usual : layout) {
            var place = evaluated.indexOf(name, true);
            shown.put(name, place.isPresent() ? evaluated.at(place.getAsInt()).type() : Type.TEXT);
        }
        return shown;
    }

    /** @param field below which the attachments stand */
    List<Problem> fileNames(List<Attachment> attachments, String field, FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        for (int i = 0; i < attachments.size(); i++) {
            var file = attachments.get(i);
            String at = field + ".attach[" + i + "].";
            fields(at + "file", file.file(), ExtractFiles.FIELDS, places, problems);
            fields(at + "header", file.page().header(), ExtractFiles.FIELDS, places, problems);
            fields(at + "footer", file.page().footer(), ExtractFiles.FIELDS, places, problems);
        }
        return problems;
    }

    private Optional<Problem> sender(@Nullable Sender sender, FieldPlaces places) {
        if (sender == null || sender.address() == null || mail.allowsSender(sender.address())) return Optional.empty();
        var allowed = new ArrayList<>(mail.senders());
        allowed.addFirst(mail.from());
        return Optional.of(places.locate(
                "delivery.sender",
                Problem.error(
                        sender.address() + " is not an allowed sender; allowed: " + String.join(", ", allowed)
                                + ". A name alone is always allowed",
                        "",
                        null)));
    }

    /** Who packs files with a password hardly wants their rows beside them in the clear. */
    private static Optional<Problem> encrypted(RuleDefinition rule, FieldPlaces places) {
        var delivery = rule.delivery();
        if (delivery.packing() != DeliveryDefinition.Packing.ENCRYPTED
                || delivery.show() == DeliveryDefinition.Show.LINK) return Optional.empty();
        return Optional.of(places.locate(
                "delivery.pack",
                new Problem(
                        Problem.Weight.WARNING,
                        "the files are encrypted, but the message also contains the rows; use show: link for a message without rows. Set the password with"
                                + " odd set-file-password " + rule.name(),
                        "",
                        null,
                        null)));
    }

    private static Optional<Problem> chart(RuleDefinition rule, FieldPlaces places) {
        String chart = rule.delivery().chart();
        var measures = rule.groups() == null
                ? Set.<String>of()
                : rule.groups().measures().keySet();
        if (chart == null || measures.contains(chart)) return Optional.empty();
        String there = measures.isEmpty() ? "it measures nothing" : "there are: " + String.join(", ", measures);
        return Optional.of(places.locate(
                "delivery.chart",
                Problem.error("the rule has no measure \"" + chart + "\"; " + there, "", null)
                        .suggesting(Nearest.to(chart, measures).orElse(null))));
    }

    /** A mail that only leads to its rows has none of them, in whatever words. */
    private static void noRows(String field, @Nullable String text, FieldPlaces places, List<Problem> problems) {
        if (text != null && Template.of(text).fields().contains(Template.ROWS))
            problems.add(places.locate(
                    field, Problem.error("the mail shows a link alone, so its texts cannot quote rows", "", null)));
    }

    private static void fields(
            String field,
            @Nullable String text,
            Map<String, ? extends @Nullable Type> known,
            FieldPlaces places,
            List<Problem> problems) {
        if (text == null) return;
        var template = Template.of(text);
        for (String name : template.fields()) {
            if (known.containsKey(name)) continue;
            problems.add(places.locate(
                    field,
                    Problem.error(
                                    "there is no field \"" + name + "\"; there are: "
                                            + String.join(", ", new TreeSet<>(known.keySet())),
                                    "",
                                    null)
                            .suggesting(Nearest.to(name, known.keySet()).orElse(null))));
        }
        for (var format : template.formats()) {
            var type = known.get(format.field());
            if (type != null && !format.format().fits(type))
                problems.add(places.locate(
                        field,
                        Problem.error(
                                "the field " + format.field() + " is " + type.word() + ", which is not written as "
                                        + format.format().pattern(),
                                "",
                                null)));
        }
    }
}
