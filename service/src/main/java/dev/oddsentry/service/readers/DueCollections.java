package dev.oddsentry.service.readers;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.READER_CHOICE;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.not;
import static org.jooq.impl.DSL.or;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.extracts.mail.CollectionMail;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.db.generated.tables.records.ReaderChoiceRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.outbox.Holds;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.ReaderChoices;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.OrderField;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Sends recipients in one message what was kept back for them, each recipient in a transaction that also says when the next collection
 * is. A message that is held stays for the next one.
 */
@Component
public class DueCollections {
    private static final Logger LOG = LoggerFactory.getLogger(DueCollections.class);
    /** So that a node never holds all that came in a long pause; the others follow at once, in a mail of their own. */
    private static final int AT_ONCE = 100;

    private static final long MOST_BYTES = 16L * 1024 * 1024;

    private static final List<OrderField<?>> IN_ORDER = List.of(MESSAGE.SLOT, MESSAGE.CREATED_AT, MESSAGE.ID);

    private final DSLContext db;
    private final TransactionTemplate transactions;
    private final DefinitionStore definitions;
    private final CollectionBuilder builder;
    private final BlockedRecipients blocked;
    private final Outbox outbox;
    private final Settings settings;
    private final Clock clock;

    DueCollections(
            DSLContext db,
            TransactionTemplate transactions,
            DefinitionStore definitions,
            CollectionBuilder builder,
            BlockedRecipients blocked,
            Outbox outbox,
            Settings settings,
            Clock clock) {
        this.db = db;
        this.transactions = transactions;
        this.definitions = definitions;
        this.builder = builder;
        this.blocked = blocked;
        this.outbox = outbox;
        this.settings = settings;
        this.clock = clock;
    }

    public RecurringTask<Void> task() {
        return Tasks.recurring("collections", FixedDelay.of(settings.incidents().lookEvery()))
                .execute((_, _) -> sendDue());
    }

    /** Whose turn has come by now. */
    void sendDue() {
        var due = db.selectDistinct(READER_CHOICE.ADDRESS)
                .from(READER_CHOICE)
                .where(READER_CHOICE.NEXT_COLLECTION.le(clock.instant()))
                .fetch(READER_CHOICE.ADDRESS);
        for (String address : due) {
            try {
                boolean more = true;
                while (more) more = Boolean.TRUE.equals(transactions.execute(_ -> send(address)));
            } catch (RuntimeException failed) {
                // One recipient's collection does not stop those of others; it is tried again.
                LOG.warn("a collection of messages could not be queued", failed);
            }
        }
    }

    /** @return whether more waits for the recipient */
    private boolean send(String address) {
        Instant now = clock.instant();
        var due = db.selectFrom(READER_CHOICE)
                .where(READER_CHOICE.ADDRESS.eq(address), READER_CHOICE.NEXT_COLLECTION.le(now))
                .orderBy(READER_CHOICE.DEFINITION_ID)
                .forUpdate()
                .fetch();
        Map<CollectionMail.Reason, List<ReaderChoiceRecord>> byReason = new EnumMap<>(CollectionMail.Reason.class);
        due.forEach(each ->
                byReason.computeIfAbsent(reason(each), _ -> new ArrayList<>()).add(each));
        boolean more = false;
        for (var group : byReason.entrySet()) {
            cancelOfLeavers(address, group.getValue());
            var waiting = waiting(address, group.getValue());
            var some = fitting(waiting);
            if (!some.isEmpty()) queue(address, group.getKey(), messages(some), now);
            if (some.size() < waiting.size() || waiting.size() == AT_ONCE) more = true;
            else group.getValue().forEach(each -> moveOn(each, now));
        }
        return more;
    }

    private static CollectionMail.Reason reason(ReaderChoiceRecord of) {
        if (of.getPausedUntil() != null) return CollectionMail.Reason.PAUSE;
        var time = ReaderChoices.time(of);
        if (time == null) return CollectionMail.Reason.ENDED;
        return switch (time.every()) {
            case DAILY -> CollectionMail.Reason.DAILY;
            case WEEKLY -> CollectionMail.Reason.WEEKLY;
        };
    }

    private void cancelOfLeavers(String address, List<ReaderChoiceRecord> of) {
        for (var each : of) {
            if (!blocked.hasLeft(each.getDefinitionId(), address)) continue;
            var messages = db.select(MESSAGE.ID).from(MESSAGE).where(OwnMail.isOf(each.getDefinitionId()));
            db.update(MESSAGE_RECIPIENT)
                    .set(MESSAGE_RECIPIENT.STATE, RecipientState.CANCELLED)
                    .set(MESSAGE_RECIPIENT.RESPONSE, "The recipient unsubscribed.")
                    .where(OwnMail.waitFor(address), MESSAGE_RECIPIENT.MESSAGE_ID.in(messages))
                    .execute();
        }
    }

    private record Waiting(MessageId id, long bytes) {}

    private List<Waiting> waiting(String address, List<ReaderChoiceRecord> of) {
        return db.select(MESSAGE.ID, field("octet_length({0})", Long.class, MESSAGE.MIME))
                .from(MESSAGE)
                .join(MESSAGE_RECIPIENT)
                .on(MESSAGE_RECIPIENT.MESSAGE_ID.eq(MESSAGE.ID))
                .where(
                        OwnMail.waitFor(address),
                        or(of.stream()
                                .map(each -> OwnMail.isOf(each.getDefinitionId()))
                                .toList()),
                        not(Holds.isHeld()))
                .orderBy(IN_ORDER)
                .limit(AT_ONCE)
                .fetch(mapping(Waiting::new));
    }

    /** As many of the first as go together; one at least, however large. */
    private static List<MessageId> fitting(List<Waiting> waiting) {
        var fitting = new ArrayList<MessageId>();
        long bytes = 0;
        for (var each : waiting) {
            bytes += each.bytes();
            if (!fitting.isEmpty() && bytes > MOST_BYTES) break;
            fitting.add(each.id());
        }
        return fitting;
    }

    private List<MessageRecord> messages(List<MessageId> ids) {
        return db.selectFrom(MESSAGE)
                .where(MESSAGE.ID.in(ids))
                .orderBy(IN_ORDER)
                .fetch();
    }

    private void queue(String address, CollectionMail.Reason reason, List<MessageRecord> messages, Instant now) {
        var first = messages.getFirst();
        var of = first.getRuleId() == null
                ? CollectionBuilder.Of.of(
                        definitions.roundUp(first.getRoundUpId()).orElseThrow().definition())
                : CollectionBuilder.Of.of(
                        definitions.rule(first.getRuleId()).orElseThrow().definition());
        var owners = messages.stream().map(this::owner).distinct().toList();
        for (var built : builder.build(address, reason, of, owners, messages, now)) {
            outbox.queue(new MessageCause.OfCollection(address), now, built.message());
            db.update(MESSAGE_RECIPIENT)
                    .set(MESSAGE_RECIPIENT.STATE, RecipientState.COLLECTED)
                    .set(MESSAGE_RECIPIENT.COLLECTED_IN, built.message().id())
                    .where(
                            OwnMail.waitFor(address),
                            MESSAGE_RECIPIENT.MESSAGE_ID.in(built.of().stream()
                                    .map(MessageRecord::getId)
                                    .toList()))
                    .execute();
        }
    }

    private String owner(MessageRecord message) {
        return message.getRuleId() == null
                ? definitions
                        .roundUp(message.getRoundUpId())
                        .orElseThrow()
                        .definition()
                        .owner()
                : definitions
                        .rule(message.getRuleId())
                        .orElseThrow()
                        .definition()
                        .owner();
    }

    /** A message that is held waits on, also for one who wants each message again. */
    private boolean keepsSome(ReaderChoiceRecord choice) {
        return db.fetchExists(
                MESSAGE_RECIPIENT.join(MESSAGE).on(MESSAGE.ID.eq(MESSAGE_RECIPIENT.MESSAGE_ID)),
                OwnMail.waitFor(choice.getAddress()).and(OwnMail.isOf(choice.getDefinitionId())));
    }

    /** A pause is over, and a collection has its next time; a choice of nothing is none. */
    private void moveOn(ReaderChoiceRecord choice, Instant now) {
        choice.setPausedUntil(null);
        var time = ReaderChoices.time(choice);
        if (time != null) choice.setNextCollection(time.after(now, zone(choice.getDefinitionId())));
        else if (keepsSome(choice))
            choice.setNextCollection(now.plus(settings.incidents().lookEvery()));
        else if (choice.getFilesByLink()) choice.setNextCollection(null);
        else {
            choice.delete();
            return;
        }
        choice.update();
    }

    private ZoneId zone(UUID definition) {
        return switch (definitions.byId(definition).orElseThrow()) {
            case RuleDefinition rule -> rule.zone();
            case RoundUpDefinition roundUp -> roundUp.zone();
            default -> throw new IllegalStateException("neither a rule nor a round-up: " + definition);
        };
    }
}
