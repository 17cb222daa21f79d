package dev.oddsentry.service.checks;

import dev.oddsentry.service.rules.CheckState;
import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import org.springframework.stereotype.Component;

/** Counts this node's checks: how late they began, and how they ended. */
@Component
class CheckMetrics {
    private final MeterRegistry registry;
    private final Timer lateness;
    private final Clock clock;

    CheckMetrics(MeterRegistry registry, Clock clock) {
        this.registry = registry;
        this.clock = clock;
        this.lateness = Timer.builder("oddsentry.check.lateness")
                .description("from the slot until the check began, scheduled ones alone")
                .publishPercentiles(0.5, 0.99)
                .register(registry);
    }

    void began(Instant slot) {
        var late = Duration.between(slot, clock.instant());
        lateness.record(late.isNegative() ? Duration.ZERO : late);
    }

    void ended(CheckState outcome) {
        Counter.builder("oddsentry.checks")
                .description("checks that ended on this node")
                .tag("outcome", outcome.name().toLowerCase(Locale.ROOT))
                .register(registry)
                .increment();
    }
}
