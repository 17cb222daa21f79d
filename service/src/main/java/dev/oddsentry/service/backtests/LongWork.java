package dev.oddsentry.service.backtests;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.FailureHandler;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.helper.CustomTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.schedule.Schedule;
import dev.oddsentry.service.backtests.BackTests.Ask;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.LongWorkRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.measurements.MeasurementStore;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.queries.Asker;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/**
 * Does long work, slot by slot and one work at a time, so that checks never wait for a thread. Between two slots it rests as long as the
 * source took, so that it takes at most half of one connection.
 * If this node dies, another starts it again; nothing of a back-test is kept but its result, and points are kept once a slot.
 */
@Component
public class LongWork {
    private static final Logger LOG = LoggerFactory.getLogger(LongWork.class);
    private static final TaskDescriptor<Void> TASK = TaskDescriptor.of("long-work");
    private static final Duration LONGEST_REST = Duration.ofSeconds(5);
    private static final Duration LOOK_AGAIN = Duration.ofSeconds(1);

    /** Its queries take turns with those of people, and never with checks. */
    private static final Asker BACK_TEST = new Asker() {
        @Override
        public String login() {
            return "back-test";
        }

        @Override
        public boolean isGone() {
            return false;
        }
    };

    private final WorkStore store;
    private final DefinitionStore definitions;
    private final CopyLookup oneCopy;
    private final Sources sources;
    private final ThresholdStore thresholds;
    private final MeasurementStore series;
    private final ReplayRunner replaying;
    private final Schedules schedules;
    private final SchedulerClient tasks;
    private final Clock clock;
    private final Semaphore turn = new Semaphore(1);

    LongWork(
            WorkStore store,
            DefinitionStore definitions,
            CopyLookup oneCopy,
            Sources sources,
            ThresholdStore thresholds,
            MeasurementStore series,
            ReplayRunner replaying,
            Schedules schedules,
            SchedulerClient tasks,
            Clock clock) {
        this.store = store;
        this.definitions = definitions;
        this.oneCopy = oneCopy;
        this.sources = sources;
        this.thresholds = thresholds;
        this.series = series;
        this.replaying = replaying;
        this.schedules = schedules;
        this.tasks = tasks;
        this.clock = clock;
    }

    public CustomTask<Void> task() {
        return Tasks.custom(TASK)
                .onFailure(new FailureHandler.OnFailureRetryLater<>(LOOK_AGAIN))
                .execute((instance, _) -> {
                    if (!turn.tryAcquire())
                        return (complete, operations) ->
                                operations.reschedule(complete, clock.instant().plus(LOOK_AGAIN));
                    try {
                        run(UUID.fromString(instance.getId()));
                    } finally {
                        turn.release();
                    }
                    return new CompletionHandler.OnCompleteRemove<>();
                });
    }

    /** Part of the caller's transaction. */
    void plan(UUID id) {
        tasks.schedule(TASK.instance(id.toString()).build(), clock.instant());
    }

    private void run(UUID id) {
        var work = store.find(id);
        if (work.isEmpty()) return;
        try {
            var run = new Run(work.get());
            ScopedValue.where(Asker.CURRENT, BACK_TEST).run(run::run);
        } catch (RefusedException refused) {
            store.end(id, WorkState.FAILED, null, refused.getMessage());
        } catch (RuntimeException unexpected) {
            if (Thread.currentThread().isInterrupted()) throw unexpected;
            String reference = UUID.randomUUID().toString();
            LOG.error("Long work {} failed, reference {}", id, reference, unexpected);
            store.end(
                    id, WorkState.FAILED, null, "Internal error. Give the operator this reference: " + reference + ".");
        }
    }

    /** Also before the rule's start, since a rule that was just made would have no past. */
    Schedule schedule(RuleDefinition rule, Instant from) {
        return schedules.lookingBack(rule, from);
    }

    /** The evaluates of a rule as its query was saved, to know how far it looks back. */
    CheckedRule conditions(RuleDefinition rule) {
        var query = definitions.query(rule.query()).orElseThrow();
        return CheckedRule.check(rule, definitions.columns(query), thresholds.all(), null)
                .conditions();
    }

    private final class Run {
        private final LongWorkRecord work;
        private final Ask ask;
        private final RuleDefinition rule;
        private final QueryDefinition query;
        private final Source source;
        private final PastSlots slots;

        Run(LongWorkRecord work) {
            this.work = work;
            this.ask = Json.read(work.getInput(), new TypeReference<>() {});
            var written = ask.document() == null
                    ? definitions.rule(work.getRuleId()).orElseThrow().definition()
                    : (RuleDefinition) Document.read(ask.document()).definition();
            this.rule = oneCopy.rule(written, ask.to(), ask.copy());
            this.query = definitions.query(rule.query()).orElseThrow().definition();
            this.source = sources.require(query.source());
            this.slots = PastSlots.of(
                    rule,
                    schedule(rule, ask.from()),
                    ask.from(),
                    ask.to(),
                    conditions(rule).needs().values());
        }

        void run() {
            int steps = slots.warmUp().size() + slots.counted().size();
            if (!store.begin(work.getId(), steps)) return;
            boolean fills = work.getKind().equals(WorkStore.Kind.FILL_HISTORY.name());
            var given = thresholds.named(rule.thresholdsUsed());
            var variants = fills ? List.of(Variant.AS_IT_IS) : ask.variants();
            var replays = variants.stream()
                    .map(variant -> new Replay(variant.of(rule), ask.copy(), variant.in(given)))
                    .toList();
            var tallies = variants.stream().map(Tally::new).toList();
            var all = new ArrayList<>(slots.warmUp());
            all.addAll(slots.counted());
            var counted = new HashSet<>(slots.counted());
            for (int i = 0; i < steps; i++) {
                long began = System.nanoTime();
                Instant slot = all.get(i);
                var taken = replaying.step(replays, query, source, slot);
                if (counted.contains(slot)) {
                    if (fills) keep(taken.getFirst());
                    for (int v = 0; v < taken.size(); v++) tallies.get(v).add(taken.get(v));
                }
                if (!store.progress(work.getId(), i + 1)) return;
                rest(Duration.ofNanos(System.nanoTime() - began));
            }
            var result = new BackTestResult(
                    ask.from(),
                    ask.to(),
                    slots.warmUp().size(),
                    beyondStart(),
                    tallies.stream()
                            .map(tally -> tally.result(tallies.getFirst()))
                            .toList());
            store.end(work.getId(), WorkState.DONE, fills ? null : result, null);
        }

        private @Nullable Instant beyondStart() {
            Instant start = Schedules.startOf(rule);
            return start != null && start.isAfter(ask.from()) ? start : null;
        }

        private void keep(ReplayRunner.Step step) {
            series.keep(new Scope(work.getRuleId(), ask.copy()), rule, query, step.slot(), step.points(), true);
        }

        private static void rest(Duration asLong) {
            try {
                Thread.sleep(asLong.compareTo(LONGEST_REST) > 0 ? LONGEST_REST : asLong);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException("interrupted at shut-down; another node starts it again", e);
            }
        }
    }
}
