package dev.oddsentry.core.judging;

import dev.oddsentry.core.condition.GroupReckoner;
import dev.oddsentry.core.condition.GroupReckoner.GroupRow;
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
    private final GroupReckoner reckoner;
    private final int[] per;
    private final Digester digester;
    private final Map<Digest, Entry> groups = new LinkedHashMap<>();

    private final Set<Digest> withRows = new LinkedHashSet<>();

    private record Entry(List<@Nullable Object> per, GroupReckoner.Group group) {}

    GroupRows(GroupReckoner reckoner, int[] per, Digester digester) {
        this.reckoner = reckoner;
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
        return RuleJudge.pick(row, per);
    }

    /** Begins the group of these values, if no row of it was seen. */
    void expect(List<@Nullable Object> values) {
        expect(digester.digest(values), values);
    }

    private GroupReckoner.Group expect(Digest key, List<@Nullable Object> values) {
        return groups.computeIfAbsent(key, _ -> new Entry(values, reckoner.newGroup()))
                .group();
    }

    List<RuleJudge.Group> withRows() {
        var found = new ArrayList<RuleJudge.Group>();
        groups.forEach((key, entry) -> {
            if (withRows.contains(key)) found.add(new RuleJudge.Group(key, entry.per()));
        });
        return found;
    }

    interface Taker {
        void take(Digest key, List<@Nullable Object> per, GroupRow row);
    }

    void finish(PastSeries past, Taker taker) {
        groups.forEach((key, entry) -> {
            Function<Measured, Series> ofGroup = measured -> past.of(key, measured);
            taker.take(key, entry.per(), reckoner.finish(entry.per(), entry.group(), ofGroup));
        });
    }
}
