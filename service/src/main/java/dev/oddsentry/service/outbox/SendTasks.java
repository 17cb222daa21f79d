package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MAIL_TASKS;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.exceptions.TaskInstanceCurrentlyExecutingException;
import dev.oddsentry.service.db.generated.Tables;
import dev.oddsentry.service.ids.MessageId;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import javax.sql.DataSource;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.jdbc.datasource.TransactionAwareDataSourceProxy;
import org.springframework.stereotype.Component;

/** Plans the sending of messages, each as a durable task, in the caller's transaction. They have a table and workers of their own. */
@Component
public class SendTasks {
    public static final String TABLE = Tables.MAIL_TASKS.getName();

    /** A message that waits for an earlier one, or while mail is held, looks again after less than that. */
    private static final Duration LATE = Duration.ofMinutes(2);

    private final SchedulerClient client;
    private final DSLContext db;
    private final Clock clock;

    SendTasks(DataSource database, DSLContext db, Clock clock) {
        this.client = SchedulerClient.Builder.create(new TransactionAwareDataSourceProxy(database))
                .tableName(TABLE)
                .build();
        this.db = db;
        this.clock = clock;
    }

    /** Also where it is planned already. */
    void planAt(MessageId message, Instant when) {
        try {
            client.schedule(
                    MessageSender.TASK.instance(message.toString()).build(),
                    when,
                    SchedulerClient.ScheduleOptions.WHEN_EXISTS_RESCHEDULE);
        } catch (TaskInstanceCurrentlyExecutingException executing) {
            // It reads the next try from the records when it ends.
        }
    }

    /** Plans those that would not wake although somebody waits. @return how many */
    public int mend() {
        var nextTry = DSL.min(DSL.coalesce(MESSAGE_RECIPIENT.NEXT_TRY, DSL.val(clock.instant())));
        List<MessageId> asleep = db.select(MESSAGE_RECIPIENT.MESSAGE_ID)
                .from(MESSAGE_RECIPIENT)
                .leftJoin(MAIL_TASKS)
                .on(MAIL_TASKS.TASK_INSTANCE.eq(MESSAGE_RECIPIENT.MESSAGE_ID.cast(String.class)))
                .where(MESSAGE_RECIPIENT.STATE.in(
                        Set.of(RecipientState.QUEUED, RecipientState.SENDING, RecipientState.UNSURE)))
                .groupBy(MESSAGE_RECIPIENT.MESSAGE_ID, MAIL_TASKS.PICKED, MAIL_TASKS.EXECUTION_TIME)
                .having(MAIL_TASKS
                        .EXECUTION_TIME
                        .isNull()
                        .or(MAIL_TASKS
                                .PICKED
                                .isFalse()
                                .and(MAIL_TASKS.EXECUTION_TIME.gt(DSL.greatest(
                                        nextTry, DSL.val(clock.instant().plus(LATE)))))))
                .fetch(MESSAGE_RECIPIENT.MESSAGE_ID);
        asleep.forEach(message -> planAt(message, clock.instant()));
        return asleep.size();
    }
}
