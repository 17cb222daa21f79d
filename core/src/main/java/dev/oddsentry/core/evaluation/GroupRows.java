package dev.oddsentry.core.evaluation;

import dev.oddsentry.core.condition.GroupEvaluator;
import dev.oddsentry.core.condition.GroupEvaluator.GroupRow;
import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.history.Series;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** Puts the rows of one check into groups, in the order in which groups are first seen. Belongs to one thread. */
final class GroupRows {
    private final GroupEvaluator evaluator;
    private final int[] per;
    private final Digester digester;
    private final Map<Digest, Entry> groups = new LinkedHashMap<>();

    private final Set<Digest> withRows = new LinkedHashSet<>();

    private record Entry(List<@Nullable Object> per, GroupEvaluator.Group group) {}

    GroupRows(GroupEvaluator evaluator, int[] per, Digester digester) {
        this.evaluator = evaluator;
        this.per = per;
        this.digester = digester;
        // The whole result is a group even if it has no rows.
        if (per.length == 0) expect(List.of());
    }

    void add(@Nullable Object[] row) {
        var values = perOf(row);
        Digest key = digester.digest(values);
        withRows.add(key);
        expect(key, values).add(row);
    }

    List<@Nullable Object> perOf(@Nullable Object[] row) {
        return RuleEvaluator.pick(row, per);
    }

    /** Begins the group of these values, if no row of it was seen. */
    void expect(List<@Nullable Object> values) {
        expect(digester.digest(values), values);
    }

    private GroupEvaluator.Group expect(Digest key, List<@Nullable Object> values) {
        return groups.computeIfAbsent(key, _ -> new Entry(values, evaluator.newGroup()))
                .group();
    }

    List<RuleEvaluator.Group> withRows() {
        var found = new ArrayList<RuleEvaluator.Group>();
        groups.forEach((key, entry) -> {
            if (withRows.contains(key)) found.add(new RuleEvaluator.Group(key, entry.per()));
        });
        return found;
    }

    interface Taker {
        void take(Digest key, List<@Nullable Object> per, GroupRow row);
    }

    void finish(PastSeries past, Taker taker) {
        groups.forEach((key, entry) -> {
            Function<Measured, Series> ofGroup = measured -> past.of(key, measured);
            taker.take(key, entry.per(), evaluator.finish(entry.per(), entry.group(), ofGroup));
        });
    }
}
