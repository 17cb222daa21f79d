package dev.oddsentry.service.roundups;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.exceptions.TaskInstanceCurrentlyExecutingException;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import dev.oddsentry.service.memory.MemoryWriter;
import java.time.Clock;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Plans the durable tasks of round-ups, in the caller's transaction. They only wake; what is due is in the round-up's row and in memory. */
@Component
public class RoundUpTasks {
    static final TaskDescriptor<Void> AT_ITS_TIME = TaskDescriptor.of("round-up");
    static final TaskDescriptor<Void> AT_ONCE = TaskDescriptor.of("round-up-at-once");

    private final SchedulerClient client;
    private final Clock clock;

    RoundUpTasks(SchedulerClient client, Clock clock) {
        this.client = client;
        this.clock = clock;
    }

    /** @param next null where nothing comes any more: a task that wakes removes itself */
    void planAt(UUID roundUp, @Nullable Instant next) {
        if (next == null) return;
        try {
            client.schedule(
                    AT_ITS_TIME.instance(roundUp.toString()).build(),
                    next,
                    SchedulerClient.ScheduleOptions.WHEN_EXISTS_RESCHEDULE);
        } catch (TaskInstanceCurrentlyExecutingException executing) {
            // It cannot be moved now; it reads the round-up's row when it ends, and plans from that.
        }
    }

    /** A check has changed findings that the round-up may send immediately. */
    public void lookAtOnce(UUID roundUp, MemoryWriter.Writing by) {
        client.scheduleIfNotExists(
                AT_ONCE.instance(roundUp + " " + by.checkId()).build(), clock.instant());
    }

    static UUID roundUpOf(String instance) {
        return UUID.fromString(instance.split(" ", 2)[0]);
    }
}
