package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.authoring.CheckedDrafts;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.mail.MailFields;
import dev.oddsentry.service.mail.MessageParts;
import dev.oddsentry.service.mail.NewMessage;
import dev.oddsentry.service.messages.MessagePlanner;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.reporting.ReportPlanner;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** The mails that a rule's document would send now, while it is being written. Nothing is saved, reported or remembered. */
@Component
public class MailPreview {
    /** Of a split with many values, a person looks at some. */
    private static final int MOST = 10;

    private static final int SAMPLE_ROWS = 5;

    private final CheckedDrafts drafts;
    private final DefinitionStore definitions;
    private final PreviewRunner previewing;
    private final CopyLookup copies;
    private final ReportPlanner reportPlanner;
    private final MessagePlanner messagePlanner;
    private final Audit audit;
    private final DSLContext db;
    private final Outbox outbox;
    private final TransactionTemplate transactions;
    private final Clock clock;

    MailPreview(
            CheckedDrafts drafts,
            DefinitionStore definitions,
            PreviewRunner previewing,
            CopyLookup copies,
            ReportPlanner reportPlanner,
            MessagePlanner messagePlanner,
            Audit audit,
            DSLContext db,
            Outbox outbox,
            TransactionTemplate transactions,
            Clock clock) {
        this.drafts = drafts;
        this.definitions = definitions;
        this.previewing = previewing;
        this.copies = copies;
        this.reportPlanner = reportPlanner;
        this.messagePlanner = messagePlanner;
        this.audit = audit;
        this.db = db;
        this.outbox = outbox;
        this.transactions = transactions;
        this.clock = clock;
    }

    public record PreviewedMessage(String subject, List<String> to, String text, String html, List<String> files) {}

    /** What the mails show where nothing is open. */
    public enum Sample {
        /** Exceptions that have not lasted long enough to be reported. */
        PENDING,
        /** Some rows or all groups of the result, none of which is an exception. */
        ROWS
    }

    /**
     * @param messages one for each audience; empty if the result has no rows
     * @param sample what they show instead, where nothing is open; null where they show what is
     * @param fields that subject and opening may name, as {@code {{updates}}} or {@code {{next | date}}}, each with what it says in
     *     the first message
     * @param fileFields the same for names of files
     * @param columns that they may name between {@code {{#rows}}} and {@code {{/rows}}}
     */
    public record MessagePreview(
            List<PreviewedMessage> messages,
            @Nullable Sample sample,
            List<TextField> fields,
            List<TextField> fileFields,
            List<String> columns) {}

    /** @param value what it says now; the empty text for nothing */
    record TextField(String name, String value) {}

    /** @throws dev.oddsentry.core.problem.InvalidDefinitionException with every problem of the document and its place */
    public MessagePreview of(Person by, String document) {
        var rule = drafts.rule(document);
        audit.record(db, by.id(), AuditAct.PREVIEW_MESSAGE_OF_DRAFT, rule.name(), null);
        return previewing.inWords(() -> seen(rule, clock.instant()));
    }

    /**
     * Sends the person the messages that {@link #of} shows, marked as previews.
     *
     * @return how many
     * @throws RefusedException if the result has no rows
     */
    public int sendTo(Person by, String document) {
        var rule = drafts.rule(document);
        var slot = clock.instant();
        audit.record(db, by.id(), AuditAct.PREVIEW_MESSAGE_OF_DRAFT, rule.name(), by.mailAddress());
        var messages = previewing.inWords(() -> toSend(by, rule, slot));
        if (messages.isEmpty())
            throw RefusedException.conflict("The result has no rows, so there is nothing that a message could show.");
        messages.forEach(message ->
                transactions.executeWithoutResult(_ -> outbox.queue(new MessageCause.OfTrial(by.id()), slot, message)));
        return messages.size();
    }

    private List<NewMessage> toSend(Person by, PreviewRun run) {
        var plan = plan(run);
        if (plan.updates().isEmpty()) return List.of();
        var context = run.context("Preview: " + run.rule().title());
        return messagePlanner.previewsFor(by.mailAddress(), context, run.evaluation(), plan).stream()
                .map(ReportPlan.Outgoing::message)
                .toList();
    }

    /** What a message may show: the present exceptions; without any, those that are pending; without those, some rows. */
    private record Shown(@Nullable Sample sample, Supplier<PreviewRun> run) {}

    private List<Shown> shown(RuleDefinition rule, Instant slot) {
        var saved = definitions.rule(rule.name()).map(Current::ruleId).orElse(null);
        var copy = copies.of(rule, slot, null);
        return List.of(
                new Shown(null, () -> previewing.run(rule, saved, slot, copy)),
                new Shown(Sample.PENDING, () -> previewing.sample(rule.asSample(false), slot, copy, Long.MAX_VALUE)),
                new Shown(Sample.ROWS, () -> previewing.sample(rule.asSample(true), slot, copy, SAMPLE_ROWS)));
    }

    private List<NewMessage> toSend(Person by, RuleDefinition rule, Instant slot) {
        for (var each : shown(rule, slot)) {
            try (var run = each.run().get()) {
                var messages = toSend(by, run);
                if (!messages.isEmpty()) return messages;
            }
        }
        return List.of();
    }

    private ReportPlan plan(PreviewRun run) {
        var plan = reportPlanner.choose(run.evaluation(), run.audiences());
        return plan.updates().isEmpty() ? reportPlanner.everythingOpen(run.evaluation(), run.audiences()) : plan;
    }

    private MessagePreview seen(RuleDefinition rule, Instant slot) {
        var all = shown(rule, slot);
        for (var each : all) {
            var seen = seen(rule, each.run().get(), each.sample());
            if (!seen.messages().isEmpty() || each == all.getLast()) return seen;
        }
        throw new IllegalStateException("nothing to show");
    }

    private MessagePreview seen(RuleDefinition rule, PreviewRun looked, @Nullable Sample sample) {
        try (var run = looked) {
            var plan = plan(run);
            var mails = plan.updates().isEmpty()
                    ? List.<PreviewedMessage>of()
                    : messagePlanner.messages(run.context(rule.title()), run.evaluation(), plan).stream()
                            .limit(MOST)
                            .map(outgoing -> seen(outgoing.message()))
                            .toList();
            var columns = new ArrayList<>(run.evaluation().columns().names());
            columns.add("severity");
            var texts = new LinkedHashMap<String, String>();
            if (mails.isEmpty()) MailFields.types().keySet().forEach(name -> texts.put(name, ""));
            else texts.putAll(messagePlanner.fieldTexts(run.context(rule.title()), run.evaluation(), plan));
            return new MessagePreview(
                    mails, sample, fields(texts, _ -> true), fields(texts, MailPreview::isOfFiles), columns);
        }
    }

    private static boolean isOfFiles(String field) {
        return ExtractFiles.FIELDS.containsKey(field.replaceFirst(" [|].*", ""));
    }

    private static List<TextField> fields(Map<String, String> texts, Predicate<String> which) {
        return texts.entrySet().stream()
                .filter(each -> which.test(each.getKey()))
                .map(each -> new TextField(each.getKey(), each.getValue()))
                .toList();
    }

    private static PreviewedMessage seen(NewMessage message) {
        var parts = MessageParts.of(message.mime());
        var files = new ArrayList<>(parts.attachments());
        message.ways().kept().forEach(file -> files.add(file.name() + ", behind the link"));
        return new PreviewedMessage(message.subject(), message.to(), parts.text(), parts.html(), files);
    }
}
