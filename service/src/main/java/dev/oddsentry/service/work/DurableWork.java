package dev.oddsentry.service.work;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.SchedulerBuilder;
import com.github.kagkarlsson.scheduler.SchedulerName;
import com.github.kagkarlsson.scheduler.task.Task;
import dev.oddsentry.service.backtests.LongWork;
import dev.oddsentry.service.bounces.BounceMailbox;
import dev.oddsentry.service.checks.OnDemandChecks;
import dev.oddsentry.service.checks.TriggeredChecks;
import dev.oddsentry.service.clock.ClockWatch;
import dev.oddsentry.service.config.Node;
import dev.oddsentry.service.config.RepeatedWatch;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.escalations.Escalations;
import dev.oddsentry.service.incidents.IncidentMail;
import dev.oddsentry.service.outbox.MessageSender;
import dev.oddsentry.service.outbox.SendTasks;
import dev.oddsentry.service.readers.DueCollections;
import dev.oddsentry.service.retention.Retention;
import dev.oddsentry.service.roundups.RoundUpWork;
import dev.oddsentry.service.signon.Confirmations;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import javax.sql.DataSource;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;

/**
 * This node's share of the durable work: due slots, checks on demand, and, with workers of their own, hand-overs. Whichever node is free takes what is due; a
 * node that dies stops its heartbeats, and after four missed ones another takes over. A node whose clock is off takes nothing. Starts after and stops before
 * everything else.
 */
@Component
class DurableWork implements SmartLifecycle {
    private static final int MISSED_HEARTBEATS = 4;
    private static final long LOOK_AT_CLOCK_MILLIS = 500;

    private final List<Scheduler> schedulers;
    private final ClockWatch clockWatch;
    private final RepeatedWatch pausing = new RepeatedWatch("work-by-the-clock", LOOK_AT_CLOCK_MILLIS) {
        @Override
        protected void watchOnce() {
            followClock();
        }
    };
    private volatile boolean takesWork = true;

    DurableWork(
            DataSource database,
            Settings settings,
            Node node,
            Clock clock,
            ClockWatch clockWatch,
            SlotRun slots,
            OnDemandChecks onDemand,
            TriggeredChecks onOccasion,
            MessageSender handOver,
            LongWork longWork,
            RoundUpWork roundUps,
            IncidentMail incidentMail,
            BounceMailbox bounces,
            Escalations escalations,
            DueCollections collections,
            Confirmations confirmations,
            Retention retention) {
        var work = settings.work();
        this.clockWatch = clockWatch;
        var checks = builder(
                        database,
                        Stream.concat(
                                        Stream.of(slots.task(), onDemand.task(), onOccasion.task(), longWork.task()),
                                        roundUps.tasks().stream())
                                .toList(),
                        settings,
                        node,
                        clock)
                .startTasks(Stream.concat(
                                Stream.of(
                                        incidentMail.task(),
                                        escalations.task(),
                                        collections.task(),
                                        confirmations.task(),
                                        retention.task()),
                                bounces.task().stream())
                        .toList())
                .threads(work.atOnce())
                .build();
        var mail = builder(database, List.of(handOver.task()), settings, node, clock)
                .tableName(SendTasks.TABLE)
                .threads(work.mailAtOnce())
                .build();
        this.schedulers = List.of(checks, mail);
        onDemand.wakeWith(checks::triggerCheckForDueExecutions);
    }

    private static SchedulerBuilder builder(
            DataSource database, List<? extends Task<?>> tasks, Settings settings, Node node, Clock clock) {
        var work = settings.work();
        var names = Thread.ofVirtual().name("work-", 0).factory();
        return Scheduler.create(database, List.copyOf(tasks))
                .schedulerName(new SchedulerName.Fixed(node.name()))
                .clock(clock::instant)
                .executorService(Executors.newThreadPerTaskExecutor(names))
                .pollUsingLockAndFetch(0.5, 1.0)
                .pollingInterval(work.polling())
                .heartbeatInterval(work.heartbeat())
                .missedHeartbeatsLimit(MISSED_HEARTBEATS)
                .shutdownMaxWait(work.stopWithin());
    }

    private void followClock() {
        boolean may = clockWatch.isRight();
        if (may == takesWork) return;
        takesWork = may;
        schedulers.forEach(may ? Scheduler::resume : Scheduler::pause);
    }

    @Override
    public void start() {
        schedulers.forEach(Scheduler::start);
        followClock();
        pausing.start();
    }

    /** All at once: each waits for what it runs. */
    @Override
    public void stop() {
        pausing.stop();
        try (var stopping = Executors.newVirtualThreadPerTaskExecutor()) {
            schedulers.forEach(each -> stopping.submit(each::stop));
        }
    }

    @Override
    public boolean isRunning() {
        return pausing.isRunning();
    }
}
