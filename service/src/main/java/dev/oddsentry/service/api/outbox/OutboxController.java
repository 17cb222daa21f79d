package dev.oddsentry.service.api.outbox;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.RECIPIENT_TRY;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.and;
import static org.jooq.impl.DSL.coalesce;
import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.multiset;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;

import dev.oddsentry.service.api.PageCodes;
import dev.oddsentry.service.db.PagePlace;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.MessageFiles;
import dev.oddsentry.service.mail.MessageParts;
import dev.oddsentry.service.outbox.Holds;
import dev.oddsentry.service.outbox.MessageActions;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.overview.ReportedFindings;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The outbox: messages with where each recipient stands, and the mail as it was rendered. */
@RestController
@RequestMapping("/api/outbox")
class OutboxController {
    private static final int MOST_LISTED = 200;

    private final DSLContext db;
    private final MessageActions acts;
    private final MessageFiles storedFiles;
    private final Visibility visibility;
    private final ReportedFindings reported;

    OutboxController(
            DSLContext db,
            MessageActions acts,
            MessageFiles storedFiles,
            ReportedFindings reported,
            Visibility visibility) {
        this.visibility = visibility;
        this.db = db;
        this.storedFiles = storedFiles;
        this.reported = reported;
        this.acts = acts;
    }

    /**
     * @param rule null where the mail is of several: of incident, or of a round-up
     * @param roundUp the name of the round-up; null where it is none
     * @param preview whether a person sent it to themselves, and it reported nothing
     * @param repeat whether it is another one once more
     * @param held whether a person holds it
     */
    record MessageSummary(
            MessageId id,
            @Nullable String rule,
            @Nullable String roundUp,
            boolean preview,
            boolean repeat,
            boolean held,
            boolean collection,
            boolean question,
            String subject,
            Instant slot,
            Instant createdAt,
            List<MessageRecipientView> recipients) {}

    /** @param settledAt when somebody settled what became of it, where nobody could tell; null otherwise */
    record MessageRecipientView(
            String address,
            RecipientState state,
            int tries,
            @Nullable Instant nextTry,
            @Nullable String detail,
            @Nullable Instant settledAt,
            @Nullable MessageId collectedIn) {}

    record DeliveryTryView(String address, Instant at, RecipientState outcome, String detail) {}

    record MessagePage(
            MessageSummary message,
            String messageId,
            String text,
            List<MessageFiles.StoredFile> files,
            ReportedFindings.MessageFindingList reported,
            List<DeliveryTryView> tries) {}

    /** @param next where the next page begins; null on the last one */
    record MessageList(
            List<MessageSummary> messages, @Nullable String next) {}

    /**
     * Newest first.
     *
     * @param rule only mail of this rule
     * @param q only mail with this in its subject or in an address
     * @param state only mail with a recipient in this state
     * @param after the value of {@code next} of the page before
     */
    @GetMapping(produces = "application/json")
    MessageList listMessages(
            @RequestParam(required = false) @Nullable String rule,
            @RequestParam(required = false) @Nullable String q,
            @RequestParam(required = false) @Nullable RecipientState state,
            @RequestParam(required = false) @Nullable String after) {
        String sought = q == null ? "" : q.strip();
        var messages = summaries(and(
                visibility.now().messages(),
                rule == null ? noCondition() : DEFINITION.NAME.eq(rule),
                sought.isEmpty()
                        ? noCondition()
                        : MESSAGE.SUBJECT
                                .containsIgnoreCase(sought)
                                .or(hasRecipient(MESSAGE_RECIPIENT.ADDRESS.containsIgnoreCase(sought))),
                state == null ? noCondition() : hasRecipient(MESSAGE_RECIPIENT.STATE.eq(state)),
                after == null ? noCondition() : PageCodes.read(after).behind(MESSAGE.CREATED_AT, MESSAGE.ID)));
        return new MessageList(
                messages,
                PagePlace.next(
                        messages,
                        MOST_LISTED,
                        last -> new PagePlace(last.createdAt(), last.id().value())));
    }

    private static Condition hasRecipient(Condition which) {
        return exists(selectOne().from(MESSAGE_RECIPIENT).where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(MESSAGE.ID), which));
    }

    record ResendBody(@Nullable List<String> to) {}

    record MessageActionResult(int count, @Nullable MessageId message) {}

    /** Nobody who waits for it gets it any more; what it reported stays reported. */
    @PostMapping(path = "/{id}/cancel", produces = "application/json")
    MessageActionResult cancelMessage(@AuthenticationPrincipal Person by, @PathVariable UUID id) {
        return new MessageActionResult(acts.stop(by, new MessageId(id)), null);
    }

    /** The same mail once more, marked as a repeat, to all who were to get it or to some of them. */
    @PostMapping(path = "/{id}/resend", produces = "application/json")
    MessageActionResult resendMessage(
            @AuthenticationPrincipal Person by, @PathVariable UUID id, @RequestBody ResendBody body) {
        return new MessageActionResult(
                1, acts.sendAgain(by, new MessageId(id), body.to() == null ? List.of() : body.to()));
    }

    /** Takes back what it reported, so that the next check says it again. */
    @PostMapping(path = "/{id}/report-again", produces = "application/json")
    MessageActionResult reportMessageAgain(@AuthenticationPrincipal Person by, @PathVariable UUID id) {
        return new MessageActionResult(acts.reportAgain(by, new MessageId(id)), null);
    }

    /** Notes that it arrived at the addresses where that was not known. */
    @PostMapping(path = "/{id}/confirm", produces = "application/json")
    MessageActionResult confirmMessage(@AuthenticationPrincipal Person by, @PathVariable UUID id) {
        return new MessageActionResult(acts.arrived(by, new MessageId(id)), null);
    }

    private List<MessageSummary> summaries(Condition which) {
        var recipients = multiset(select(
                                MESSAGE_RECIPIENT.ADDRESS,
                                MESSAGE_RECIPIENT.STATE,
                                MESSAGE_RECIPIENT.TRIES,
                                MESSAGE_RECIPIENT.NEXT_TRY,
                                MESSAGE_RECIPIENT.RESPONSE,
                                MESSAGE_RECIPIENT.SETTLED_AT,
                                MESSAGE_RECIPIENT.COLLECTED_IN)
                        .from(MESSAGE_RECIPIENT)
                        .where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(MESSAGE.ID))
                        .orderBy(MESSAGE_RECIPIENT.ADDRESS))
                .convertFrom(rows -> rows.map(mapping(MessageRecipientView::new)));
        var roundUp = DEFINITION.as("round_up");
        return db.select(
                        MESSAGE.ID,
                        DEFINITION.NAME,
                        roundUp.NAME,
                        field(MESSAGE.PREVIEW_OF.isNotNull().or(MESSAGE.TRIAL_OF.isNotNull())),
                        field(MESSAGE.REPEAT_OF.isNotNull()),
                        field(Holds.isHeld()),
                        field(MESSAGE.COLLECTION_FOR.isNotNull()),
                        field(MESSAGE.QUESTION_ABOUT.isNotNull()),
                        MESSAGE.SUBJECT,
                        MESSAGE.SLOT,
                        MESSAGE.CREATED_AT,
                        recipients)
                .from(MESSAGE)
                .leftJoin(DEFINITION)
                .on(DEFINITION.ID.eq(coalesce(MESSAGE.RULE_ID, MESSAGE.PREVIEW_OF, MESSAGE.ESCALATION_OF)
                        .coerce(DEFINITION.ID)))
                .leftJoin(roundUp)
                .on(roundUp.ID.eq(MESSAGE.ROUND_UP_ID))
                .where(which)
                .orderBy(MESSAGE.CREATED_AT.desc(), MESSAGE.ID)
                .limit(MOST_LISTED)
                .fetch(mapping(MessageSummary::new));
    }

    @GetMapping(path = "/{id}", produces = "application/json")
    MessagePage getMessage(@PathVariable UUID id) {
        var summary =
                summaries(MESSAGE.ID.eq(new MessageId(id))).stream().findFirst().orElseThrow(OutboxController::unknown);
        var stored = db.select(MESSAGE.MESSAGE_ID, MESSAGE.MIME)
                .from(MESSAGE)
                .where(MESSAGE.ID.eq(new MessageId(id)))
                .fetchSingle();
        var parts = MessageParts.of(stored.value2());
        var tries = db.select(RECIPIENT_TRY.ADDRESS, RECIPIENT_TRY.AT, RECIPIENT_TRY.OUTCOME, RECIPIENT_TRY.RESPONSE)
                .from(RECIPIENT_TRY)
                .where(RECIPIENT_TRY.MESSAGE_ID.eq(new MessageId(id)))
                .orderBy(RECIPIENT_TRY.ID)
                .fetch(mapping(DeliveryTryView::new));
        var files = storedFiles.list(new MessageId(id), stored.value2());
        return new MessagePage(summary, stored.value1(), parts.text(), files, reported.of(new MessageId(id)), tries);
    }

    /** The HTML as the recipient sees it. */
    @GetMapping(path = "/{id}/html", produces = "text/html;charset=UTF-8")
    ResponseEntity<String> getMessageHtml(@PathVariable UUID id) {
        return ResponseEntity.ok()
                .header("Content-Security-Policy", MessageParts.CAN_DO_NOTHING)
                .body(MessageParts.of(mime(id)).html());
    }

    /** The message as it was handed over. */
    @GetMapping(path = "/{id}/source", produces = "message/rfc822")
    ResponseEntity<byte[]> getMessageSource(@PathVariable UUID id) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + id + ".eml\"")
                .body(mime(id));
    }

    private byte[] mime(UUID id) {
        return db.select(MESSAGE.MIME)
                .from(MESSAGE)
                .where(MESSAGE.ID.eq(new MessageId(id)))
                .fetchOptional(MESSAGE.MIME)
                .orElseThrow(OutboxController::unknown);
    }

    private static RefusedException unknown() {
        return RefusedException.notFound("No such message.");
    }
}
