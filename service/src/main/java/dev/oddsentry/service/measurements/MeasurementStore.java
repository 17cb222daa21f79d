package dev.oddsentry.service.measurements;

import static dev.oddsentry.service.db.generated.Tables.SEEN_GROUP;
import static dev.oddsentry.service.db.generated.Tables.SERIES;
import static dev.oddsentry.service.db.generated.Tables.SERIES_POINT;
import static org.jooq.impl.DSL.rowNumber;
import static org.jooq.impl.DSL.select;

import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.condition.Grouping.Need;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.PastSeries;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.history.Series;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.config.Installation;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.SeenGroupRecord;
import dev.oddsentry.service.db.generated.tables.records.SeriesPointRecord;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.queries.Parameters;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * The points of series. A series belongs to a rule, a group and a meaning: the query's text, the parameters as written, the zone and
 * what is measured; an edit that changes any of these starts another one.
 */
@Component
public class MeasurementStore {
    private final DSLContext db;
    private final Digester digester;

    MeasurementStore(DSLContext db, Installation installation) {
        this.db = db;
        this.digester = installation.digester();
    }

    /** The digest of what a series means. */
    public UUID meaning(RuleDefinition rule, QueryDefinition query, Measured measured) {
        var parts = new ArrayList<@Nullable Object>();
        parts.add(query.sql());
        new TreeMap<>(Parameters.written(rule, query)).forEach((name, value) -> parts.add(name + "=" + value));
        parts.add(rule.zone().getId());
        if (rule.groups() != null) parts.addAll(rule.groups().per());
        parts.add(measured.meaning());
        return digester.digest(parts).asUuid();
    }

    /** The series that these needs look back at, before a moment, read at once. */
    public PastSeries before(
            Moment moment, RuleId ruleId, RuleDefinition rule, QueryDefinition query, Map<Measured, Need> needs) {
        var found = new HashMap<Measured, Map<Digest, Series>>();
        needs.forEach(
                (measured, need) -> found.put(measured, before(moment, ruleId, meaning(rule, query, measured), need)));
        return (group, measured) -> found.getOrDefault(measured, Map.of()).getOrDefault(group, Series.EMPTY);
    }

    private Map<Digest, Series> before(Moment moment, RuleId ruleId, UUID meaning, Need need) {
        Instant stretch = need.stretch().negated().addTo(moment.local()).toInstant();
        var place = rowNumber()
                .over()
                .partitionBy(SERIES_POINT.SERIES_ID)
                .orderBy(SERIES_POINT.SLOT.desc())
                .as("place");
        var ranked = select(SERIES.GROUP_KEY, SERIES_POINT.SLOT, SERIES_POINT.VALUE, place)
                .from(SERIES)
                .join(SERIES_POINT)
                .on(SERIES_POINT.SERIES_ID.eq(SERIES.ID))
                .where(SERIES.RULE_ID.eq(ruleId), SERIES.MEANING.eq(meaning), SERIES_POINT.SLOT.lt(moment.slot()))
                .asTable("ranked");
        var points = new LinkedHashMap<Digest, List<Series.Point>>();
        var slot = Objects.requireNonNull(ranked.field(SERIES_POINT.SLOT));
        db.select(ranked.field(SERIES.GROUP_KEY), slot, ranked.field(SERIES_POINT.VALUE))
                .from(ranked)
                .where(Objects.requireNonNull(ranked.field(place))
                        .le(need.points())
                        .or(slot.ge(stretch)))
                .orderBy(slot)
                .forEach(row -> points.computeIfAbsent(Digest.of(row.value1()), _ -> new ArrayList<>())
                        .add(new Series.Point(row.value2(), row.value3())));
        var series = new HashMap<Digest, Series>();
        points.forEach((group, some) -> series.put(group, new Series(some)));
        return series;
    }

    /**
     * Keeps what was measured at a slot. A point that is there already stays as it is.
     *
     * @param filledIn whether it was measured afterwards
     */
    public void keep(
            Scope scope,
            RuleDefinition rule,
            QueryDefinition query,
            Instant slot,
            List<RuleEvaluator.Point> points,
            boolean filledIn) {
        var ids = seriesOf(scope, rule, query, points);
        var rows = new ArrayList<SeriesPointRecord>();
        for (var point : points) {
            var id = ids.get(new Place(point.group().asUuid(), meaning(rule, query, point.measured())));
            rows.add(new SeriesPointRecord(Objects.requireNonNull(id), slot, point.value(), filledIn));
        }
        db.batch(rows.stream()
                        .map(row -> db.insertInto(SERIES_POINT).set(row).onConflictDoNothing())
                        .toList())
                .execute();
    }

    private record Place(UUID group, UUID meaning) {}

    private Map<Place, Long> seriesOf(
            Scope scope, RuleDefinition rule, QueryDefinition query, List<RuleEvaluator.Point> points) {
        var ids = known(scope.ruleId());
        boolean added = false;
        for (var point : points) {
            var place = new Place(point.group().asUuid(), meaning(rule, query, point.measured()));
            if (ids.containsKey(place)) continue;
            db.insertInto(SERIES)
                    .set(SERIES.RULE_ID, scope.ruleId())
                    .set(SERIES.COPY_KEY, scope.copy())
                    .set(SERIES.GROUP_KEY, place.group())
                    .set(SERIES.GROUP_NAME, Json.cells(point.per()))
                    .set(SERIES.MEASURED, point.measured().text())
                    .set(SERIES.MEANING, place.meaning())
                    .onConflictDoNothing()
                    .execute();
            added = true;
        }
        return added ? known(scope.ruleId()) : ids;
    }

    private Map<Place, Long> known(RuleId ruleId) {
        return db.select(SERIES.GROUP_KEY, SERIES.MEANING, SERIES.ID)
                .from(SERIES)
                .where(SERIES.RULE_ID.eq(ruleId))
                .fetchMap(row -> new Place(row.value1(), row.value2()), row -> row.value3());
    }

    /** The groups that one of the last so many good scheduled checks saw. */
    public List<List<@Nullable Object>> groupsOfLast(Scope scope, long goodSlots, int checks) {
        return db.select(SEEN_GROUP.GROUP_NAME)
                .from(SEEN_GROUP)
                .where(
                        SEEN_GROUP.RULE_ID.eq(scope.ruleId()),
                        SEEN_GROUP.COPY_KEY.isNotDistinctFrom(scope.copy()),
                        SEEN_GROUP.LAST_SEEN.gt(goodSlots - checks))
                .fetch(row -> Json.cells(row.value1()));
    }

    /** Notes which groups the good check of this number saw. */
    public void saw(Scope scope, long ordinal, List<RuleEvaluator.Group> groups) {
        var rows = groups.stream()
                .map(group -> new SeenGroupRecord(
                        scope.ruleId(), group.key().asUuid(), Json.cells(group.per()), ordinal, scope.copy()))
                .toList();
        db.batch(rows.stream()
                        .map(row -> db.insertInto(SEEN_GROUP)
                                .set(row)
                                .onConflict(SEEN_GROUP.RULE_ID, SEEN_GROUP.GROUP_KEY)
                                .doUpdate()
                                .set(SEEN_GROUP.LAST_SEEN, ordinal))
                        .toList())
                .execute();
    }

    /**
     * A series as pages show it.
     *
     * @param total how many points it has, those not shown included
     * @param earlier whether it was measured before an edit, so that the rule does not look back at it
     */
    public record MeasurementSeries(
            String group, String measure, long total, boolean earlier, List<MeasurementPoint> points) {}

    public record MeasurementPoint(Instant slot, BigDecimal value, boolean backfilled) {}

    /**
     * Every series of a rule, the newest points of each, oldest first.
     *
     * @param present what the rule's series mean now
     */
    public List<MeasurementSeries> all(RuleId ruleId, int mostPoints, Set<UUID> present) {
        var ofSeries = DSL.partitionBy(SERIES_POINT.SERIES_ID);
        var nth =
                DSL.rowNumber().over(ofSeries.orderBy(SERIES_POINT.SLOT.desc())).as("nth");
        var total = DSL.count().over(ofSeries).as("total");
        var points = db.select(
                        SERIES_POINT.SERIES_ID,
                        SERIES_POINT.SLOT,
                        SERIES_POINT.VALUE,
                        SERIES_POINT.BACKFILLED,
                        nth,
                        total)
                .from(SERIES_POINT)
                .where(SERIES_POINT.SERIES_ID.in(
                        DSL.select(SERIES.ID).from(SERIES).where(SERIES.RULE_ID.eq(ruleId))))
                .asTable("newest");
        var newest = db.selectFrom(points)
                .where(DSL.field(nth.getUnqualifiedName(), Integer.class).le(mostPoints))
                .orderBy(DSL.field(SERIES_POINT.SLOT.getUnqualifiedName()))
                .fetchGroups(row -> row.get(SERIES_POINT.SERIES_ID));
        var told = new ArrayList<MeasurementSeries>();
        db.selectFrom(SERIES)
                .where(SERIES.RULE_ID.eq(ruleId))
                .orderBy(SERIES.MEASURED, SERIES.ID)
                .forEach(series -> {
                    var of = newest.get(series.getId());
                    if (of == null) return;
                    String group = CellText.joined(Json.cells(series.getGroupName()), ZoneOffset.UTC);
                    told.add(new MeasurementSeries(
                            series.getCopyKey() == null ? group : (series.getCopyKey() + ", " + group),
                            series.getMeasured(),
                            of.getFirst().get(total),
                            // Each copy has values, and so a meaning, of its own.
                            series.getCopyKey() == null && !present.contains(series.getMeaning()),
                            of.map(row -> new MeasurementPoint(
                                    row.get(SERIES_POINT.SLOT),
                                    row.get(SERIES_POINT.VALUE),
                                    row.get(SERIES_POINT.BACKFILLED)))));
                });
        return told;
    }

    /**
     * Makes the points of another meaning points of this one, where an analyst says that they are comparable.
     *
     * @return how many points moved
     */
    public int join(RuleId ruleId, Measured measured, UUID meaning) {
        db.execute("""
                insert into series (rule_id, copy_key, group_key, group_name, measured, meaning)
                select distinct on (group_key) rule_id, copy_key, group_key, group_name, measured, ?::uuid
                  from series where rule_id = ? and measured = ? and meaning <> ?::uuid
                on conflict do nothing
                """, meaning, ruleId, measured.text(), meaning);
        return db.execute("""
                insert into series_point (series_id, slot, value, backfilled)
                select distinct on (present.id, p.slot) present.id, p.slot, p.value, p.backfilled
                  from series former
                  join series_point p on p.series_id = former.id
                  join series present on present.rule_id = former.rule_id and present.group_key = former.group_key
                                     and present.meaning = ?::uuid
                 where former.rule_id = ? and former.measured = ? and former.meaning <> ?::uuid
                 order by present.id, p.slot, former.id desc
                on conflict do nothing
                """, meaning, ruleId, measured.text(), meaning);
    }
}
