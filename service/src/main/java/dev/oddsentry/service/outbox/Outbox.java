package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import dev.oddsentry.service.memory.MemoryWriter;
import java.time.Clock;
import java.time.Instant;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Queues messages in the transaction of the check that made them, each with the durable task that hands it over. */
@Component
public class Outbox {
    private final DSLContext db;
    private final Clock clock;
    private final SchedulerClient tasks;

    Outbox(DSLContext db, Clock clock, SchedulerClient tasks) {
        this.db = db;
        this.clock = clock;
        this.tasks = tasks;
    }

    public UUID queue(MemoryWriter.Writing by, long audience, NewMessage message) {
        UUID id = UUID.randomUUID();
        Instant now = clock.instant();
        db.insertInto(MESSAGE)
                .set(MESSAGE.ID, id)
                .set(MESSAGE.RULE_ID, by.ruleId())
                .set(MESSAGE.CHECK_ID, by.checkId())
                .set(MESSAGE.AUDIENCE_ID, audience)
                .set(MESSAGE.MESSAGE_ID, message.messageId())
                .set(MESSAGE.SUBJECT, message.subject())
                .set(MESSAGE.MIME, message.mime())
                .set(MESSAGE.SLOT, by.slot())
                .set(MESSAGE.CREATED_AT, now)
                .execute();
        for (String address : message.to()) {
            db.insertInto(MESSAGE_RECIPIENT)
                    .set(MESSAGE_RECIPIENT.MESSAGE_ID, id)
                    .set(MESSAGE_RECIPIENT.ADDRESS, address)
                    .set(MESSAGE_RECIPIENT.STATE, RecipientState.WAITING)
                    .set(MESSAGE_RECIPIENT.NEXT_TRY, now)
                    .execute();
        }
        tasks.schedule(HandOver.TASK.instance(id.toString()).build(), now);
        return id;
    }
}
