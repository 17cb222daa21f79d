package dev.oddsentry.service.schedules;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.exceptions.TaskInstanceCurrentlyExecutingException;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import dev.oddsentry.service.ids.RuleId;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Plans the durable task that wakes for each active rule's next slot, in the caller's transaction. The slot itself stands in the
 * rule's row; the task only wakes, so waking too early or twice is harmless.
 */
@Component
public class SlotTasks {
    public static final TaskDescriptor<Void> SLOT = TaskDescriptor.of("slot");

    private final SchedulerClient client;

    SlotTasks(SchedulerClient client) {
        this.client = client;
    }

    /** @param next null where the schedule has ended: a task that wakes removes itself */
    public void planAt(RuleId ruleId, @Nullable Instant next) {
        if (next == null) return;
        try {
            client.schedule(
                    SLOT.instance(ruleId.toString()).build(),
                    next,
                    SchedulerClient.ScheduleOptions.WHEN_EXISTS_RESCHEDULE);
        } catch (TaskInstanceCurrentlyExecutingException executing) {
            // It cannot be moved now; it reads the rule's row when it ends, and plans from that.
        }
    }
}
