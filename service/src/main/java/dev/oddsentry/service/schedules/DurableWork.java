package dev.oddsentry.service.schedules;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.SchedulerName;
import dev.oddsentry.service.backtests.LongWork;
import dev.oddsentry.service.bounces.BounceMailbox;
import dev.oddsentry.service.checks.OnDemand;
import dev.oddsentry.service.checks.OnOccasion;
import dev.oddsentry.service.config.Node;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.escalations.Escalations;
import dev.oddsentry.service.outbox.HandOver;
import dev.oddsentry.service.retention.Retention;
import dev.oddsentry.service.roundups.RoundUpWork;
import dev.oddsentry.service.trouble.TroubleMail;
import java.time.Clock;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import javax.sql.DataSource;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;

/**
 * This node's share of the durable work: due slots, checks on demand, hand-overs. Whichever node is free takes what is due; a node
 * that dies stops its heartbeats, and after four missed ones another takes over. Starts after and stops before everything else.
 */
@Component
class DurableWork implements SmartLifecycle {
    private static final int MISSED_HEARTBEATS = 4;

    private final Scheduler scheduler;
    private volatile boolean running;

    DurableWork(
            DataSource database,
            Settings settings,
            Node node,
            Clock clock,
            SlotRun slots,
            OnDemand onDemand,
            OnOccasion onOccasion,
            HandOver handOver,
            LongWork longWork,
            RoundUpWork roundUps,
            TroubleMail troubleMail,
            BounceMailbox bounces,
            Escalations escalations,
            Retention retention) {
        var work = settings.work();
        var names = Thread.ofVirtual().name("work-", 0).factory();
        this.scheduler = Scheduler.create(
                        database,
                        Stream.concat(
                                        Stream.of(
                                                slots.task(),
                                                onDemand.task(),
                                                onOccasion.task(),
                                                handOver.task(),
                                                longWork.task()),
                                        roundUps.tasks().stream())
                                .toList())
                .startTasks(Stream.concat(
                                Stream.of(troubleMail.task(), escalations.task(), retention.task()),
                                bounces.task().stream())
                        .toList())
                .schedulerName(new SchedulerName.Fixed(node.name()))
                .clock(clock::instant)
                .threads(work.atOnce())
                .executorService(Executors.newThreadPerTaskExecutor(names))
                .pollUsingLockAndFetch(0.5, 1.0)
                .pollingInterval(work.polling())
                .heartbeatInterval(work.heartbeat())
                .missedHeartbeatsLimit(MISSED_HEARTBEATS)
                .shutdownMaxWait(work.stopWithin())
                .build();
        onDemand.wakeWith(scheduler::triggerCheckForDueExecutions);
    }

    @Override
    public void start() {
        scheduler.start();
        running = true;
    }

    @Override
    public void stop() {
        running = false;
        scheduler.stop();
    }

    @Override
    public boolean isRunning() {
        return running;
    }
}
