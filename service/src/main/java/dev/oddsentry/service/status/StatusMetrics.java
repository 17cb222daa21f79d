package dev.oddsentry.service.status;

import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import java.time.Duration;
import java.time.Instant;
import java.util.function.ToDoubleFunction;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The same as numbers to be scraped. Looked at once for all of them, and not more often than every few seconds. */
@Component
class StatusMetrics {
    private static final Duration FRESH_FOR = Duration.ofSeconds(5);

    private final Status status;
    private Status.@Nullable Seen seen;
    private long seenAtNanos;

    StatusMetrics(Status status, MeterRegistry registry) {
        this.status = status;
        gauge(registry, "oddsentry.rules.active", "rules that are checked", Status.Seen::activeRules);
        gauge(registry, "oddsentry.checks.running", "checks that run now, on all nodes", Status.Seen::running);
        gauge(registry, "oddsentry.checks.due", "rules that wait for their turn", Status.Seen::due);
        gauge(registry, "oddsentry.checks.late.seconds", "lateness of the latest check", Status.Seen::latestSeconds);
        gauge(registry, "oddsentry.checks.finished.timestamp", "when a check last ended", StatusMetrics::finished);
        gauge(registry, "oddsentry.checks.awaiting.approval", "checks that await approval", Status.Seen::keptBack);
        gauge(
                registry,
                "oddsentry.messages.queued",
                "messages with a recipient who is still queued",
                Status.Seen::waitingMessages);
        gauge(
                registry,
                "oddsentry.messages.oldest.seconds",
                "age of the oldest queued message",
                Status.Seen::oldestWaitingSeconds);
        gauge(
                registry,
                "oddsentry.messages.unconfirmed",
                "recipients whose message may not have arrived",
                Status.Seen::unconfirmed);
        gauge(
                registry,
                "oddsentry.messages.undelivered",
                "rules and round-ups whose latest message reached nobody",
                each -> each.notDelivered().size());
        gauge(
                registry,
                "oddsentry.incidents",
                "causes of failing checks",
                each -> each.troubles().size());
        gauge(registry, "oddsentry.work.failing", "background tasks that keep failing", Status.Seen::tasksFailing);
    }

    private static double finished(Status.Seen seen) {
        Instant at = seen.latestFinished();
        return at == null ? 0 : at.getEpochSecond();
    }

    private void gauge(MeterRegistry registry, String name, String meaning, ToDoubleFunction<Status.Seen> value) {
        Gauge.builder(name, this, metrics -> value.applyAsDouble(metrics.look()))
                .description(meaning)
                .register(registry);
    }

    private synchronized Status.Seen look() {
        long now = System.nanoTime();
        if (seen == null || now - seenAtNanos > FRESH_FOR.toNanos()) {
            seen = status.look();
            seenAtNanos = now;
        }
        return seen;
    }
}
