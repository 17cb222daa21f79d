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
    private Status.@Nullable StatusView seen;
    private long seenAtNanos;

    StatusMetrics(Status status, MeterRegistry registry) {
        this.status = status;
        gauge(registry, "oddsentry.rules.active", "rules that are checked", Status.StatusView::activeRules);
        gauge(registry, "oddsentry.checks.running", "checks that run now, on all nodes", Status.StatusView::running);
        gauge(registry, "oddsentry.checks.due", "rules that wait for their turn", Status.StatusView::due);
        gauge(
                registry,
                "oddsentry.checks.late.seconds",
                "lateness of the latest check",
                Status.StatusView::highestLatenessSeconds);
        gauge(registry, "oddsentry.checks.finished.timestamp", "when a check last ended", StatusMetrics::finished);
        gauge(
                registry,
                "oddsentry.checks.awaiting.approval",
                "checks that await approval",
                Status.StatusView::awaitingApproval);
        gauge(
                registry,
                "oddsentry.messages.queued",
                "messages with a recipient who is still queued",
                Status.StatusView::queuedMessages);
        gauge(
                registry,
                "oddsentry.messages.oldest.seconds",
                "age of the oldest queued message",
                Status.StatusView::oldestQueuedSeconds);
        gauge(
                registry,
                "oddsentry.messages.unconfirmed",
                "recipients whose message may not have arrived",
                Status.StatusView::unconfirmed);
        gauge(
                registry,
                "oddsentry.messages.undelivered",
                "rules and round-ups whose latest message reached nobody",
                each -> each.notDelivered().size());
        gauge(
                registry,
                "oddsentry.incidents",
                "causes of failing checks",
                each -> each.incidents().size());
        gauge(
                registry,
                "oddsentry.work.failing",
                "background tasks that keep failing",
                Status.StatusView::tasksFailing);
    }

    private static double finished(Status.StatusView seen) {
        Instant at = seen.lastFinished();
        return at == null ? 0 : at.getEpochSecond();
    }

    private void gauge(MeterRegistry registry, String name, String meaning, ToDoubleFunction<Status.StatusView> value) {
        Gauge.builder(name, this, metrics -> value.applyAsDouble(metrics.look()))
                .description(meaning)
                .register(registry);
    }

    private synchronized Status.StatusView look() {
        long now = System.nanoTime();
        if (seen == null || now - seenAtNanos > FRESH_FOR.toNanos()) {
            seen = status.look();
            seenAtNanos = now;
        }
        return seen;
    }
}
