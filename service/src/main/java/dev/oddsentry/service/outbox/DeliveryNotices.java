package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.DELIVERY_NOTICE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;

import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.MessageRecipientRecord;
import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.failures.IncidentKind;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Tells the owner of a rule or a round-up that its mail did not arrive, or may not have. Each method is part of the transaction that moved a recipient. */
@Component
class DeliveryNotices {
    private static final Set<RecipientState> NOT_GOT = Set.of(RecipientState.REJECTED, RecipientState.EXPIRED);
    private static final Duration REFUSED_ONCE_IN = Duration.ofDays(1);
    private static final int MOST_UNCONFIRMED_AN_HOUR = 5;

    private final DSLContext db;
    private final Clock clock;
    private final OwnerMail ownerMail;
    private final Settings settings;

    DeliveryNotices(DSLContext db, Clock clock, OwnerMail ownerMail, Settings settings) {
        this.db = db;
        this.clock = clock;
        this.ownerMail = ownerMail;
        this.settings = settings;
    }

    private enum Kind {
        REFUSED,
        UNCONFIRMED
    }

    /** After the recipients of the message have moved. */
    void afterwards(MessageId messageId) {
        var recipients = db.selectFrom(MESSAGE_RECIPIENT)
                .where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(messageId))
                .orderBy(MESSAGE_RECIPIENT.ADDRESS)
                .fetch();
        var unconfirmed = recipients.stream()
                .filter(each -> each.getState() == RecipientState.UNCONFIRMED)
                .toList();
        boolean nobody = recipients.stream().allMatch(each -> NOT_GOT.contains(each.getState()));
        if (!nobody && unconfirmed.isEmpty()) return;
        var message = db.selectFrom(MESSAGE).where(MESSAGE.ID.eq(messageId)).fetchSingle();
        if (message.getPreviewOf() != null) return;
        UUID definition = definitionOf(message);
        if (definition == null) return;
        if (nobody && !reportedSince(definition, Kind.REFUSED, REFUSED_ONCE_IN))
            tellRefused(definition, message, recipients);
        if (!unconfirmed.isEmpty() && mayTellUnconfirmed(definition, messageId))
            tellUnconfirmed(definition, message, unconfirmed);
    }

    /** The owning team has just got a notice of the rejection. */
    void toldOfRefusal(MessageRecord message) {
        UUID definition = definitionOf(message);
        if (definition != null) note(definition, message, Kind.REFUSED);
    }

    private static @Nullable UUID definitionOf(MessageRecord message) {
        RuleId rule = message.getRuleId() == null ? message.getEscalationOf() : message.getRuleId();
        return rule == null ? message.getRoundUpId() : rule.value();
    }

    private boolean reportedSince(UUID definition, Kind kind, Duration ago) {
        return db.fetchExists(
                DELIVERY_NOTICE,
                DELIVERY_NOTICE
                        .DEFINITION_ID
                        .eq(definition)
                        .and(DELIVERY_NOTICE.KIND.eq(kind.name()))
                        .and(DELIVERY_NOTICE.SENT_AT.gt(clock.instant().minus(ago))));
    }

    /** One notice for each message, limited in number: each message is on Today as well. */
    private boolean mayTellUnconfirmed(UUID definition, MessageId message) {
        var ofKind = DELIVERY_NOTICE.DEFINITION_ID.eq(definition).and(DELIVERY_NOTICE.KIND.eq(Kind.UNCONFIRMED.name()));
        boolean told = db.fetchExists(DELIVERY_NOTICE, ofKind.and(DELIVERY_NOTICE.MESSAGE_ID.eq(message)));
        int lately = db.fetchCount(
                DELIVERY_NOTICE,
                ofKind.and(DELIVERY_NOTICE.SENT_AT.gt(clock.instant().minus(Duration.ofHours(1)))));
        return !told && lately < MOST_UNCONFIRMED_AN_HOUR;
    }

    private void note(UUID definition, MessageRecord message, Kind kind) {
        db.insertInto(DELIVERY_NOTICE)
                .set(DELIVERY_NOTICE.DEFINITION_ID, definition)
                .set(DELIVERY_NOTICE.MESSAGE_ID, message.getId())
                .set(DELIVERY_NOTICE.KIND, kind.name())
                .set(DELIVERY_NOTICE.SENT_AT, clock.instant())
                .execute();
    }

    private void tellRefused(UUID definition, MessageRecord message, List<MessageRecipientRecord> recipients) {
        var owner = ownerMail.owner(message);
        if (owner == null) return;
        note(definition, message, Kind.REFUSED);
        ownerMail.send(
                owner,
                IncidentKind.MAIL_UNDELIVERED,
                "",
                addresses(recipients),
                phrases -> notice(phrases, "undelivered", message, recipients));
    }

    private void tellUnconfirmed(UUID definition, MessageRecord message, List<MessageRecipientRecord> recipients) {
        var owner = ownerMail.owner(message);
        if (owner == null) return;
        note(definition, message, Kind.UNCONFIRMED);
        ownerMail.send(
                owner,
                IncidentKind.MAIL_UNCONFIRMED,
                "",
                List.of(),
                phrases -> notice(phrases, "unconfirmed", message, recipients));
    }

    private TeamNotices.Notice notice(
            Phrases phrases, String kind, MessageRecord message, List<MessageRecipientRecord> recipients) {
        String words = "notice." + kind + ".";
        return new TeamNotices.Notice(
                phrases.of(words + "subject", message.getSubject()),
                String.join(
                        "\n",
                        phrases.of(words + "message"),
                        "  " + message.getSubject(),
                        "  " + link(message),
                        "",
                        phrases.of(words + "server"),
                        answers(phrases, recipients),
                        "",
                        phrases.of(words + "next"),
                        "",
                        phrases.of("notice.owner", phrases.of(words + "often")),
                        ""));
    }

    private String link(MessageRecord message) {
        return settings.baseUrl() + "/outbox/" + message.getId();
    }

    private static List<String> addresses(List<MessageRecipientRecord> recipients) {
        return recipients.stream().map(MessageRecipientRecord::getAddress).toList();
    }

    private static String answers(Phrases phrases, List<MessageRecipientRecord> recipients) {
        return recipients.stream()
                .map(each -> "  " + each.getAddress() + ": "
                        + (each.getResponse() == null ? phrases.of("notice.noAnswer") : each.getResponse()))
                .collect(Collectors.joining("\n"));
    }
}
