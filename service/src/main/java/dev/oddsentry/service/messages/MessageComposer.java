package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.DeliveryDefinition.Recipients;
import dev.oddsentry.core.definition.DeliveryDefinition.Show;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.extracts.mail.HtmlMail;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.ExtractRows;
import dev.oddsentry.service.mail.Envelope;
import dev.oddsentry.service.mail.LateNote;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.mail.NewMessage;
import dev.oddsentry.service.mail.ReaderLinks;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.schedules.Schedules;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.YearMonth;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes a draft into the bytes of a message: the rows in the mail, and all open findings as attached files. */
@Component
class MessageComposer {
    private static final int MOST_HTML = 100_000;

    private final MemoryStore memory;
    private final MessageBuilder messages;
    private final Schedules schedules;
    private final Settings settings;
    private final AttachmentWriter attachmentWriter;
    private final ReaderLinks readerLinks;

    MessageComposer(
            MemoryStore memory,
            MessageBuilder messages,
            Schedules schedules,
            Settings settings,
            AttachmentWriter attachmentWriter,
            ReaderLinks readerLinks) {
        this.memory = memory;
        this.messages = messages;
        this.schedules = schedules;
        this.settings = settings;
        this.attachmentWriter = attachmentWriter;
        this.readerLinks = readerLinks;
    }

    /** @param also the rows of other queries that go with it */
    NewMessage message(
            MessageContext context, Evaluation evaluation, MessageDraft draft, List<AdditionalRows.Rows> also) {
        return composed(context.of(draft), evaluation, draft, also);
    }

    private NewMessage composed(
            MessageContext context, Evaluation evaluation, MessageDraft draft, List<AdditionalRows.Rows> also) {
        MessageId id = MessageId.random();
        var rule = context.rule();
        var delivery = rule.delivery();
        var rows = evaluation.rows(context.labels()).as(delivery);
        var news = rows.extract(updateRows(context, draft, evaluation, rows));
        var layout = delivery.layout();
        boolean linkOnly = delivery.show() == Show.LINK;
        boolean all = delivery.attaches() || layout.stillOpen() || linkOnly;
        var standing = all ? standing(context, draft, evaluation, rows) : List.<Extract.Row>of();
        var whole = delivery.showsWholeReport() ? whole(context, draft, evaluation, rows) : List.<Extract.Row>of();
        var others = also.stream().map(each -> other(context, draft, each)).toList();
        var attached = attachmentWriter.files(
                context,
                title(context, draft),
                draft.split(),
                rows,
                new AttachmentWriter.ReportRows(news, standing, whole, draft.filesByLink()),
                others);
        Instant next = schedules.of(rule).nextAfter(context.moment().slot()).orElse(null);
        String findings = settings.baseUrl() + "/rules/" + rule.name();
        int mostRows = layout.rowsInMail() == null ? Announcement.MOST_ROWS : layout.rowsInMail();
        // A preview is to the person who asked for it, and a test installation sends to nobody else.
        boolean toReaders = context.scope() != null && settings.mail().testAddress() == null;
        var choices = toReaders && !draft.alone() ? delivery.options().readerChoices() : null;
        boolean allowUnsubscribe = delivery.options().allowUnsubscribe() && toReaders;
        var said = new Announcement(
                title(context, draft),
                context.copy() == null ? null : context.copy().greeting(),
                rule.owner(),
                rule.zone(),
                context.moment().slot(),
                news,
                layout.stillOpen() ? rows.extract(standing).rows() : List.of(),
                layout.wholeReport() ? rows.wholeReport(whole).rows() : List.of(),
                mostRows,
                linkOnly,
                own(context, draft, news, next, findings),
                draft.open(),
                draft.leftOut(),
                because(context),
                notCounted(context, evaluation),
                new Announcement.Habit(
                        tells(rule),
                        delivery.texts().sendWhenQuiet(),
                        rule.memory().report(),
                        rule.memory().remindEvery() == null
                                ? null
                                : MinimumDuration.text(rule.memory().remindEvery())),
                draft.since(),
                next,
                linkOnly ? null : ChartBuilder.of(context, evaluation, draft).orElse(null),
                linkOnly
                        ? List.of()
                        : others.stream().flatMap(MessageComposer::shown).toList(),
                attached.said(delivery),
                draft.sentTo(),
                new Announcement.Links(
                        findings,
                        settings.baseUrl() + "/extracts/" + id,
                        allowUnsubscribe ? readerLinks.stored(ReaderLinks.Purpose.LEAVE, id) : null,
                        choices == null ? null : readerLinks.stored(ReaderLinks.Purpose.YOUR_MAIL, id)));
        var recipients = delivery.recipients();
        var language = delivery.texts().language();
        var envelope = new Envelope(
                id,
                draft.alone()
                        ? Recipients.to(draft.to())
                        : new Recipients(
                                draft.to(),
                                draft.withCopies() ? recipients.cc() : List.of(),
                                draft.withCopies() ? recipients.bcc() : List.of(),
                                recipients.replyTo()),
                rule.owner(),
                rule.name() + ".rules",
                context.scope() == null || draft.alone()
                        ? null
                        : context.scope().ruleId().value(),
                thread(context),
                new NewMessage.Ways(
                        LateNote.words(language, context.moment().slot(), rule.zone()),
                        allowUnsubscribe,
                        choices,
                        attached.kept()),
                delivery.options().sender());
        return messages.build(envelope, fitting(said), attached.files());
    }

    private static Announcement.Tells tells(RuleDefinition rule) {
        return switch (rule.memory().mode()) {
            case INCREMENTAL -> Announcement.Tells.UPDATES;
            case FULL -> Announcement.Tells.EVERYTHING_OPEN;
            case PLAIN -> Announcement.Tells.ROWS;
        };
    }

    private static AttachmentWriter.Other other(MessageContext context, MessageDraft draft, AdditionalRows.Rows rows) {
        var values = draft.parts().stream()
                .map(part -> Objects.requireNonNullElse(part.audience().split(), ""))
                .collect(Collectors.toSet());
        var extract = rows.laidOut()
                .extract(
                        rows.of(context, values),
                        context.rule().zone(),
                        context.rule().delivery().texts().language());
        return new AttachmentWriter.Other(rows.asked(), rows.query(), extract);
    }

    /** The rows of another query that the mail shows. */
    private static Stream<Announcement.Also> shown(AttachmentWriter.Other other) {
        int most = other.asked().rowsInMail();
        return most == 0
                ? Stream.empty()
                : Stream.of(new Announcement.Also(other.query().title(), other.rows(), most));
    }

    /** Readers of mail cut off what is longer, and some do so without a word. */
    private static Announcement fitting(Announcement said) {
        var fitting = said;
        for (int rows = said.mostRows(); rows > 1; rows /= 2) {
            if (HtmlMail.render(fitting).getBytes(StandardCharsets.UTF_8).length <= MOST_HTML) break;
            fitting = said.withMostRows(rows / 2);
        }
        return fitting;
    }

    /** What mail programs show as one conversation. */
    private static @Nullable String thread(MessageContext context) {
        var rule = context.rule();
        var day = context.moment().slot().atZone(rule.zone()).toLocalDate();
        String name = "thread." + rule.name();
        return switch (rule.delivery().options().thread()) {
            case NONE -> null;
            case RULE -> name;
            case MONTH -> name + "." + YearMonth.from(day);
            case DAY -> name + "." + day;
        };
    }

    static String because(MessageContext context) {
        var rule = context.rule();
        return context.labels()
                .because(rule.exceptions(), rule.delivery().texts().language());
    }

    private static String notCounted(MessageContext context, Evaluation evaluation) {
        var language = context.rule().delivery().texts().language();
        return language == Language.EN
                ? UnknownSummary.of(evaluation, context.labels(), context.rule().zone())
                : Announcement.unknown(language, evaluation.evaluator().unknownRows());
    }

    private static Announcement.Own own(
            MessageContext context, MessageDraft draft, Extract news, @Nullable Instant next, String link) {
        var texts = context.rule().delivery().texts();
        if (texts.subject() == null && texts.opening() == null && texts.closing() == null) return Announcement.Own.NONE;
        var fields = MessageFields.of(context, draft, news, next, link);
        return new Announcement.Own(
                rendered(texts.subject(), fields),
                rendered(texts.opening(), fields),
                rendered(texts.closing(), fields));
    }

    /** What each field of the texts says in a message now, by name; the rows are left out. */
    Map<String, String> fieldTexts(MessageContext context, Evaluation evaluation, MessageDraft draft) {
        var rows = evaluation.rows(context.labels()).as(context.rule().delivery());
        var news = rows.extract(updateRows(context, draft, evaluation, rows));
        Instant next =
                schedules.of(context.rule()).nextAfter(context.moment().slot()).orElse(null);
        String link = settings.baseUrl() + "/rules/" + context.rule().name();
        return MessageFields.texts(MessageFields.of(context, draft, news, next, link), news);
    }

    private static @Nullable String rendered(@Nullable String text, Map<String, @Nullable Object> fields) {
        return text == null ? null : Template.of(text).render(fields);
    }

    /** The audience's value is part of the title, and so of the subject. */
    private static String title(MessageContext context, MessageDraft draft) {
        var parts = new ArrayList<String>();
        if (context.copy() != null) parts.add(context.copy().key());
        if (draft.split() != null) parts.add(draft.split());
        return parts.isEmpty() ? context.title() : context.title() + ": " + String.join(", ", parts);
    }

    private List<Extract.Row> updateRows(
            MessageContext context, MessageDraft draft, Evaluation evaluation, ExtractRows rows) {
        var plan = draft.plan();
        if (plan.isEmpty()) return List.of();
        var present = new HashMap<Digest, EvaluatedRow>();
        var reportedKeys = new HashSet<Digest>();
        plan.forEach(item -> reportedKeys.add(item.subject().key()));
        var held = new HeldRows();
        evaluation.exceptions().forEach(reportedKeys::contains, evaluatedRow -> {
            held.add(evaluatedRow.row());
            present.put(evaluatedRow.key(), evaluatedRow);
        });
        var ids = plan.stream()
                .map(item -> item.subject().id())
                .filter(Objects::nonNull)
                .toList();
        var beginnings = memory.beginnings(ids);
        var lastRows = memory.lastRows(ids);
        var reportedRows = new HashMap<Long, Map<String, @Nullable Object>>();
        draft.parts().forEach(part -> reportedRows.putAll(memory.reportedRows(part.audience(), ids)));
        var news = new ArrayList<Extract.Row>();
        for (var item : plan) {
            EvaluatedRow evaluatedRow = present.get(item.subject().key());
            Map<String, @Nullable Object> was =
                    reportedRows.getOrDefault(item.subject().id(), Map.of());
            boolean gone = item.kinds().contains(UpdateKind.MOVED);
            var row = gone
                    ? rows.past(item.severity(), item.kinds(), was)
                    : evaluatedRow != null
                            ? rows.present(evaluatedRow.row(), item.severity(), item.kinds(), was)
                            : rows.past(
                                    item.severity(),
                                    item.kinds(),
                                    lastRows.getOrDefault(item.subject().id(), Map.of()));
            news.add(linked(context, row, item.subject().key())
                    .lasting(began(item, beginnings, context.moment().slot())));
        }
        return news;
    }

    /** Null for a finding that begins, or begins again, with this report. */
    private static @Nullable Instant began(ReportPlan.Item item, Map<Long, Instant> beginnings, Instant slot) {
        if (item.subject().id() == null || item.kinds().contains(UpdateKind.RETURNED)) return null;
        var began = beginnings.get(item.subject().id());
        return began != null && began.isBefore(slot.truncatedTo(ChronoUnit.MINUTES)) ? began : null;
    }

    /** To its story, by its key: one that opens at this check has no number yet. A rule that was never saved has no stories. */
    private Extract.Row linked(MessageContext context, Extract.Row row, Digest key) {
        if (context.scope() == null || context.rule().isPlainReport()) return row;
        String copy = context.copy() == null
                ? ""
                : "?copy=" + URLEncoder.encode(context.copy().key(), StandardCharsets.UTF_8);
        return row.linked(settings.baseUrl() + "/rules/" + context.rule().name() + "/findings/" + key.asUuid() + copy);
    }

    /** Findings reported earlier that are still open. */
    private List<Extract.Row> standing(
            MessageContext context, MessageDraft draft, Evaluation evaluation, ExtractRows rows) {
        Set<Digest> reportedKeys = new HashSet<>();
        draft.plan().forEach(item -> reportedKeys.add(item.subject().key()));
        var standing = new ArrayList<Extract.Row>();
        var held = new HeldRows();
        evaluation.exceptions().forEach(evaluatedRow -> {
            boolean open =
                    !evaluation.pending().contains(evaluatedRow.key()) && !reportedKeys.contains(evaluatedRow.key());
            if (!open || (draft.split() != null && !draft.has(evaluation.audienceOf(evaluatedRow)))) return;
            held.add(evaluatedRow.row());
            standing.add(linked(context, rows.standing(evaluatedRow), evaluatedRow.key()));
        });
        return standing;
    }

    /** All rows of the query that these audiences may see, each with what the message says of it. */
    private List<Extract.Row> whole(
            MessageContext context, MessageDraft draft, Evaluation evaluation, ExtractRows rows) {
        var kinds = new HashMap<Digest, Set<UpdateKind>>();
        draft.plan().forEach(item -> kinds.put(item.subject().key(), item.kinds()));
        var whole = new ArrayList<Extract.Row>();
        var held = new HeldRows();
        evaluation.whole().forEach(each -> {
            if (draft.split() != null && !draft.has(evaluation.audienceOf(each))) return;
            held.add(each.row());
            var row = rows.ofReport(each, kinds.getOrDefault(each.key(), Set.of()));
            whole.add(each.isException() ? linked(context, row, each.key()) : row);
        });
        return whole;
    }
}
