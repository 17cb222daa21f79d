package dev.oddsentry.service.roundups;

import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.Task;
import com.github.kagkarlsson.scheduler.task.helper.CustomTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** The durable tasks of round-ups. One that is executed twice has nothing to say the second time. */
@Component
public class RoundUpWork {
    private static final Duration AFTER_OUR_FAILURE = Duration.ofSeconds(30);
    /** A node whose clock is ahead wakes too early, and looks again. */
    private static final Duration LOOK_AGAIN = Duration.ofSeconds(1);

    private final RoundUpRun run;
    private final Clock clock;

    RoundUpWork(RoundUpRun run, Clock clock) {
        this.run = run;
        this.clock = clock;
    }

    public List<Task<?>> tasks() {
        return List.of(atItsTime(), atOnce());
    }

    private CustomTask<Void> atItsTime() {
        return Tasks.custom(RoundUpTasks.AT_ITS_TIME)
                .onDeadExecutionRevive()
                .onFailure((complete, operations) ->
                        operations.reschedule(complete, clock.instant().plus(AFTER_OUR_FAILURE)))
                .execute((instance, _) -> run.ifDue(RoundUpTasks.roundUpOf(instance.getId()))
                        .map(this::wakeAt)
                        .orElse(new CompletionHandler.OnCompleteRemove<>()));
    }

    private CompletionHandler<Void> wakeAt(Instant next) {
        Instant soon = clock.instant().plus(LOOK_AGAIN);
        return (complete, operations) -> operations.reschedule(complete, next.isBefore(soon) ? soon : next);
    }

    private CustomTask<Void> atOnce() {
        return Tasks.custom(RoundUpTasks.AT_ONCE)
                .onDeadExecutionRevive()
                .onFailure((complete, operations) ->
                        operations.reschedule(complete, clock.instant().plus(AFTER_OUR_FAILURE)))
                .execute((instance, _) -> {
                    UUID roundUp = RoundUpTasks.roundUpOf(instance.getId());
                    run.atOnce(roundUp);
                    return new CompletionHandler.OnCompleteRemove<>();
                });
    }
}
