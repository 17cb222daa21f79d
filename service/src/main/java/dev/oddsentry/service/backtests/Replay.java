package dev.oddsentry.service.backtests;

import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.condition.Grouping.Need;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.PastSeries;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.history.Series;
import dev.oddsentry.core.memory.FindingChange;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.LastReport;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.Moves;
import dev.oddsentry.core.memory.StoredFinding;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.PriorMeasurements;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.reporting.Audiences;
import dev.oddsentry.service.reporting.ReportPlan;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A rule on its way over past slots, oldest first, with memory and series of its own, empty at the start. It moves as the rule's
 * memory would in the commits of its checks; nothing of it is kept.
 */
public final class Replay implements Audiences {
    private final RuleDefinition rule;
    private final Thresholds thresholds;
    private final @Nullable String copy;
    private final Map<Digest, StoredFinding> known = new LinkedHashMap<>();
    private final Map<Digest, Map<AudienceKey, LastReport>> reported = new HashMap<>();
    private final Map<Digest, AudienceKey> audiences = new HashMap<>();
    private final Map<Measured, Map<Digest, List<Series.Point>>> points = new HashMap<>();
    private final Map<Digest, Seen> groups = new LinkedHashMap<>();
    private long goodSlots;
    private @Nullable Instant lastSlot;
    private long nextId = 1;

    private record Seen(List<@Nullable Object> per, long lastSeen) {}

    /** @param copy the key of the personal copy that the rule is; null for none */
    public Replay(RuleDefinition rule, @Nullable String copy, Thresholds thresholds) {
        this.rule = rule.withDelivery(rule.delivery().withoutWholeReport());
        this.copy = copy;
        this.thresholds = thresholds;
    }

    RuleDefinition rule() {
        return rule;
    }

    @Nullable
    String copy() {
        return copy;
    }

    /** The slot before; null at the first. */
    @Nullable
    Instant lastSlot() {
        return lastSlot;
    }

    Thresholds thresholds() {
        return thresholds;
    }

    KnownTable known() {
        return KnownTable.of(known.values());
    }

    @Override
    public boolean areNew() {
        return goodSlots == 0;
    }

    /** All of them: what is remembered of past slots is small. */
    @Override
    public List<MemoryStore.Before> mayTell(Collection<Long> moved, MemoryStore.MayTell which) {
        return known.values().stream()
                .filter(each -> moved.contains(each.id())
                        || which.pendingToo()
                        || each.now().state() != FindingState.PENDING)
                .map(each -> new MemoryStore.Before(
                        each,
                        audiences.getOrDefault(each.key(), AudienceKey.WHOLE),
                        reported.getOrDefault(each.key(), Map.of()),
                        Marks.NONE))
                .toList();
    }

    @Override
    public boolean isAnyReportedBefore(Instant slot) {
        return true;
    }

    /** Past checks sent nothing. */
    @Override
    public Map<AudienceKey, Integer> messagesAfter(Instant slot) {
        return Map.of();
    }

    @Override
    public Map<Long, Marks> marks() {
        return Map.of();
    }

    MinimumDuration.Tick tick(Instant slot) {
        return new MinimumDuration.Tick(goodSlots, true, slot);
    }

    PriorMeasurements past() {
        return new PriorMeasurements() {
            @Override
            public PastSeries series(Map<Measured, Need> needs) {
                return (group, measured) -> {
                    var ofGroup = points.getOrDefault(measured, Map.of()).get(group);
                    return ofGroup == null ? Series.EMPTY : new Series(List.copyOf(ofGroup));
                };
            }

            @Override
            public List<List<@Nullable Object>> groupsOfLast(int checks) {
                return groups.values().stream()
                        .filter(seen -> seen.lastSeen() > goodSlots - checks)
                        .map(Seen::per)
                        .toList();
            }
        };
    }

    /** What the commit of a check would write. */
    void commit(Instant slot, Evaluation evaluation, ReportPlan choice) {
        goodSlots++;
        lastSlot = slot;
        evaluation.moves().forEach(this::apply);
        if (rule.delivery().split() != null)
            evaluation
                    .exceptions()
                    .forEach(evaluatedRow -> audiences.put(evaluatedRow.key(), evaluation.audienceOf(evaluatedRow)));
        for (var part : choice.parts()) {
            for (var item : part.updates())
                report(part.audience(), item.subject().key(), slot);
            for (var subject : part.treatedAsKnown()) report(part.audience(), subject.key(), null);
            if (part.treatsOpenedAsKnown()) takeOpened(evaluation.moves(), part.audience());
        }
        evaluation.evaluator().points().forEach(point -> keep(slot, point));
        evaluation
                .evaluator()
                .groupsWithRows()
                .forEach(group -> groups.put(group.key(), new Seen(group.per(), goodSlots)));
    }

    private void takeOpened(Moves moves, AudienceKey audience) {
        for (int i = 0; i < moves.opened(); i++) {
            var key = moves.key(i);
            boolean here = audience.equals(audiences.getOrDefault(key, AudienceKey.WHOLE));
            if (here && moves.get(i).now().state() == FindingState.OPEN) report(audience, key, null);
        }
    }

    private void apply(FindingChange move) {
        var earlier = move.earlier();
        if (earlier.isPresent()) {
            var before = earlier.get();
            known.put(before.key(), new StoredFinding(before.id(), before.key(), move.now()));
        } else if (move instanceof FindingChange.Opened(var evaluatedRow, var now)) {
            known.put(evaluatedRow.key(), new StoredFinding(nextId++, evaluatedRow.key(), now));
        }
    }

    /** @param toldAt null where it was let pass */
    private void report(AudienceKey audience, Digest key, @Nullable Instant toldAt) {
        var now = Objects.requireNonNull(known.get(key), "reported a finding that is not known")
                .now();
        boolean here = audience.equals(audiences.getOrDefault(key, AudienceKey.WHOLE));
        var heard = reported.computeIfAbsent(key, _ -> new HashMap<>());
        heard.put(
                audience,
                toldAt == null
                        ? LastReport.treatedAsKnown(now, here, heard.get(audience))
                        : LastReport.inMessage(now, here, toldAt));
    }

    private void keep(Instant slot, RuleEvaluator.Point point) {
        points.computeIfAbsent(point.measured(), _ -> new HashMap<>())
                .computeIfAbsent(point.group(), _ -> new ArrayList<>())
                .add(new Series.Point(slot, point.value()));
    }
}
