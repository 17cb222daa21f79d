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
import dev.oddsentry.service.layouts.ExtractRows;
import dev.oddsentry.service.mail.Envelope;
import dev.oddsentry.service.mail.LateNote;
import dev.oddsentry.service.mail.MailFields;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.mail.NewMessage;
import dev.oddsentry.service.mail.ReaderLinks;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.schedules.Schedules;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes a letter into the bytes of a message: the rows in the mail, and everything open as attached files. */
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
            MessageContext about, Evaluation evaluation, MessageDraft letter, List<AdditionalRows.Rows> also) {
        return letter.language() == null
                ? composed(about, evaluation, letter, also)
                : composed(about.in(letter.language()), evaluation, letter, also);
    }

    private NewMessage composed(
            MessageContext about, Evaluation evaluation, MessageDraft letter, List<AdditionalRows.Rows> also) {
        UUID id = UUID.randomUUID();
        var rule = about.rule();
        var delivery = rule.delivery();
        var rows = evaluation.rows(about.labels()).in(rule.delivery().texts().language());
        var news = rows.extract(newsRows(about, letter, evaluation, rows));
        var layout = delivery.layout();
        boolean linkOnly = delivery.show() == Show.LINK;
        boolean all = delivery.attaches() || layout.stillOpen() || linkOnly;
        var standing = all ? standing(about, letter, evaluation, rows) : List.<Extract.Row>of();
        var others = also.stream().map(each -> other(about, letter, each)).toList();
        var attached =
                attachmentWriter.files(about, title(about, letter), letter.split(), rows, news, standing, others);
        Instant next = schedules.of(rule).nextAfter(about.moment().slot()).orElse(null);
        String findings = settings.baseUrl() + "/rules/" + rule.name();
        int mostRows = layout.rowsInMail() == null ? Announcement.MOST_ROWS : layout.rowsInMail();
        boolean mayLeave = delivery.options().allowUnsubscribe() && about.scope() != null;
        var said = new Announcement(
                title(about, letter),
                about.copy() == null ? null : about.copy().greeting(),
                rule.owner(),
                rule.zone(),
                about.moment().slot(),
                news,
                layout.stillOpen() ? rows.extract(standing).rows() : List.of(),
                mostRows,
                linkOnly,
                own(about, letter, news, next, findings),
                letter.open(),
                letter.leftOut(),
                because(about),
                notCounted(about, evaluation),
                new Announcement.Habit(
                        rule.memory().mode() == RuleDefinition.Mode.FULL,
                        rule.memory().report(),
                        rule.memory().remindEvery() == null
                                ? null
                                : MinimumDuration.text(rule.memory().remindEvery())),
                letter.since(),
                next,
                linkOnly ? null : ChartBuilder.of(about, evaluation, letter).orElse(null),
                linkOnly
                        ? List.of()
                        : others.stream().flatMap(MessageComposer::shown).toList(),
                attached.said(delivery),
                new Announcement.Links(
                        findings, settings.baseUrl() + "/extracts/" + id, mayLeave ? readerLinks.stored(id) : null));
        var recipients = delivery.recipients();
        var language = delivery.texts().language();
        var envelope = new Envelope(
                id,
                letter.alone()
                        ? Recipients.to(letter.to())
                        : new Recipients(
                                letter.to(),
                                letter.withCopies() ? recipients.cc() : List.of(),
                                letter.withCopies() ? recipients.bcc() : List.of(),
                                recipients.replyTo()),
                rule.owner(),
                rule.name() + ".rules",
                about.scope() == null || letter.alone() ? null : about.scope().ruleId(),
                thread(about),
                new NewMessage.Ways(
                        LateNote.words(language, about.moment().slot(), rule.zone()), mayLeave, attached.kept()));
        return messages.build(envelope, fitting(said), attached.files());
    }

    private static AttachmentWriter.Other other(MessageContext about, MessageDraft letter, AdditionalRows.Rows rows) {
        var values = letter.parts().stream()
                .map(part -> Objects.requireNonNullElse(part.audience().split(), ""))
                .collect(Collectors.toSet());
        var extract = rows.laidOut()
                .extract(
                        rows.of(about, values),
                        about.rule().zone(),
                        about.rule().delivery().texts().language());
        return new AttachmentWriter.Other(rows.asked(), rows.query(), extract);
    }

    /** What of another query's rows stands in the mail. */
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
    private static @Nullable String thread(MessageContext about) {
        var rule = about.rule();
        var day = about.moment().slot().atZone(rule.zone()).toLocalDate();
        String name = "thread." + rule.name();
        return switch (rule.delivery().options().thread()) {
            case NONE -> null;
            case RULE -> name;
            case MONTH -> name + "." + YearMonth.from(day);
            case DAY -> name + "." + day;
        };
    }

    private static String because(MessageContext about) {
        var rule = about.rule();
        return about.labels().because(rule.exceptions(), rule.delivery().texts().language());
    }

    private static String notCounted(MessageContext about, Evaluation evaluation) {
        var language = about.rule().delivery().texts().language();
        return language == Language.EN
                ? UnknownSummary.of(evaluation, about.labels(), about.rule().zone())
                : Announcement.unknown(language, evaluation.judge().unknownRows());
    }

    private static Announcement.Own own(
            MessageContext about, MessageDraft letter, Extract news, @Nullable Instant next, String link) {
        var texts = about.rule().delivery().texts();
        if (texts.subject() == null && texts.opening() == null) return Announcement.Own.NONE;
        var copy = about.copy();
        var fields = MailFields.of(
                new MailFields.Facts(
                        about.title(),
                        about.rule().name(),
                        about.rule().owner(),
                        about.moment().slot(),
                        about.rule().zone(),
                        next,
                        letter.split(),
                        copy == null ? null : copy.key(),
                        copy == null ? null : copy.greeting(),
                        copy == null ? Map.of() : copy.row(),
                        because(about),
                        about.rule().thresholdsUsed().stream()
                                .map(name -> about.labels()
                                        .inForce(name, texts.language().locale()))
                                .collect(Collectors.joining(", ")),
                        link,
                        letter.open()),
                news);
        return new Announcement.Own(rendered(texts.subject(), fields), rendered(texts.opening(), fields));
    }

    private static @Nullable String rendered(@Nullable String text, Map<String, @Nullable Object> fields) {
        return text == null ? null : Template.of(text).render(fields);
    }

    /** Whose part it is stands in the title, and so in the subject. */
    private static String title(MessageContext about, MessageDraft letter) {
        var parts = new ArrayList<String>();
        if (about.copy() != null) parts.add(about.copy().key());
        if (letter.split() != null) parts.add(letter.split());
        return parts.isEmpty() ? about.title() : about.title() + ": " + String.join(", ", parts);
    }

    private List<Extract.Row> newsRows(
            MessageContext about, MessageDraft letter, Evaluation evaluation, ExtractRows rows) {
        var told = letter.told();
        if (told.isEmpty()) return List.of();
        var present = new HashMap<Digest, EvaluatedRow>();
        var toldKeys = new HashSet<Digest>();
        told.forEach(item -> toldKeys.add(item.subject().key()));
        var held = new HeldRows();
        evaluation.exceptions().forEach(toldKeys::contains, sighting -> {
            held.add(sighting.row());
            present.put(sighting.key(), sighting);
        });
        var ids = told.stream()
                .map(item -> item.subject().id())
                .filter(Objects::nonNull)
                .toList();
        var lastRows = memory.lastRows(ids);
        var reportedRows = new HashMap<Long, Map<String, @Nullable Object>>();
        letter.parts().forEach(part -> reportedRows.putAll(memory.reportedRows(part.audience(), ids)));
        var news = new ArrayList<Extract.Row>();
        for (var item : told) {
            EvaluatedRow sighting = present.get(item.subject().key());
            Map<String, @Nullable Object> was =
                    reportedRows.getOrDefault(item.subject().id(), Map.of());
            boolean gone = item.kinds().contains(UpdateKind.MOVED);
            var row = gone
                    ? rows.past(item.severity(), item.kinds(), was)
                    : sighting != null
                            ? rows.present(sighting.row(), item.severity(), item.kinds(), was)
                            : rows.past(
                                    item.severity(),
                                    item.kinds(),
                                    lastRows.getOrDefault(item.subject().id(), Map.of()));
            news.add(linked(about, row, item.subject().key()));
        }
        return news;
    }

    /** To its story, by its key: one that opens at this check has no number yet. A rule that was never saved has no stories. */
    private Extract.Row linked(MessageContext about, Extract.Row row, Digest key) {
        if (about.scope() == null) return row;
        String copy = about.copy() == null
                ? ""
                : "?copy=" + URLEncoder.encode(about.copy().key(), StandardCharsets.UTF_8);
        return row.linked(settings.baseUrl() + "/rules/" + about.rule().name() + "/findings/" + key.asUuid() + copy);
    }

    /** What was told before and is still there. */
    private List<Extract.Row> standing(
            MessageContext about, MessageDraft letter, Evaluation evaluation, ExtractRows rows) {
        Set<Digest> toldKeys = new HashSet<>();
        letter.told().forEach(item -> toldKeys.add(item.subject().key()));
        var standing = new ArrayList<Extract.Row>();
        var held = new HeldRows();
        evaluation.exceptions().forEach(sighting -> {
            boolean open = !evaluation.pending().contains(sighting.key()) && !toldKeys.contains(sighting.key());
            if (!open || (letter.split() != null && !letter.has(evaluation.audienceOf(sighting)))) return;
            held.add(sighting.row());
            standing.add(linked(about, rows.standing(sighting), sighting.key()));
        });
        return standing;
    }
}
