package dev.oddsentry.service.thresholds;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.THRESHOLD_VALUE;
import static org.jooq.impl.DSL.coalesce;
import static org.jooq.impl.DSL.max;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.ThresholdDefinition;
import dev.oddsentry.core.threshold.ThresholdTable;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.visibility.Visible;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The values of thresholds. Of several set for one key and date, the last counts. */
@Component
public class ThresholdStore {
    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Clock clock;

    ThresholdStore(DSLContext db, DefinitionStore definitions, Clock clock) {
        this.db = db;
        this.definitions = definitions;
        this.clock = clock;
    }

    /**
     * One value as it was given.
     *
     * @param number null where a value was taken back
     */
    public record ThresholdValue(
            List<String> key,
            @Nullable LocalDate from,
            @Nullable BigDecimal number,
            String setBy,
            Instant setAt,
            String reason) {}

    /** Every threshold with its present values. */
    public Thresholds all() {
        return Thresholds.of(definitions.thresholds().stream().map(this::table).toList());
    }

    /**
     * Those that a person may write in a condition.
     *
     * @param too the names of others that were written before
     */
    public Thresholds writable(Visible visible, Collection<String> too) {
        return Thresholds.of(definitions.thresholds().stream()
                .filter(each -> visible.includes(each.id())
                        || too.contains(each.definition().name()))
                .map(this::table)
                .toList());
    }

    /** Those of these names that there are. */
    public Thresholds named(Collection<String> names) {
        return Thresholds.of(names.stream()
                .flatMap(name -> definitions.threshold(name).stream())
                .map(this::table)
                .toList());
    }

    public ThresholdTable table(Current<ThresholdDefinition> threshold) {
        var definition = threshold.definition();
        return new ThresholdTable(
                definition.name(), definition.title(), definition.unit(), definition.key(), standing(threshold.id()));
    }

    private List<ThresholdTable.Value> standing(UUID threshold) {
        var last = new LinkedHashMap<List<@Nullable Object>, ThresholdValue>();
        history(threshold).reversed().forEach(given -> last.put(Arrays.asList(given.key(), given.from()), given));
        return last.values().stream()
                .filter(given -> given.number() != null)
                .map(given -> new ThresholdTable.Value(given.key(), given.from(), number(given)))
                .toList();
    }

    private static BigDecimal number(ThresholdValue given) {
        return given.number() == null ? BigDecimal.ZERO : given.number();
    }

    /** Everything that was ever given, newest first. */
    public List<ThresholdValue> history(UUID threshold) {
        return db.select(
                        THRESHOLD_VALUE.KEY,
                        THRESHOLD_VALUE.VALID_FROM,
                        THRESHOLD_VALUE.NUMBER,
                        PERSON.NAME,
                        THRESHOLD_VALUE.SET_AT,
                        THRESHOLD_VALUE.REASON)
                .from(THRESHOLD_VALUE)
                .join(PERSON)
                .on(PERSON.ID.eq(THRESHOLD_VALUE.SET_BY))
                .where(THRESHOLD_VALUE.THRESHOLD_ID.eq(threshold))
                .orderBy(THRESHOLD_VALUE.ID.desc())
                .fetch(row -> new ThresholdValue(
                        List.of(row.value1()), row.value2(), row.value3(), row.value4(), row.value5(), row.value6()));
    }

    /** A value as a person gives it; null takes it back. */
    public record NewValue(
            List<String> key,
            @Nullable LocalDate from,
            @Nullable BigDecimal number) {}

    /** Part of the caller's transaction. */
    public void give(UUID threshold, UUID by, List<NewValue> values, String reason) {
        Instant now = clock.instant();
        var rows = values.stream()
                .map(value -> {
                    var row = db.newRecord(THRESHOLD_VALUE);
                    row.setThresholdId(threshold);
                    row.setKey(value.key().toArray(String[]::new));
                    row.setValidFrom(value.from());
                    row.setNumber(value.number());
                    row.setSetBy(by);
                    row.setSetAt(now);
                    row.setReason(reason);
                    return row;
                })
                .toList();
        db.batchInsert(rows).execute();
    }

    /** The version of each of these thresholds; another text means that one of its values changed. */
    public Map<String, String> versions(Collection<String> names) {
        if (names.isEmpty()) return Map.of();
        var versions = new HashMap<String, String>();
        db.select(DEFINITION.NAME, DEFINITION.REVISION, coalesce(max(THRESHOLD_VALUE.ID), 0L))
                .from(DEFINITION)
                .leftJoin(THRESHOLD_VALUE)
                .on(THRESHOLD_VALUE.THRESHOLD_ID.eq(DEFINITION.ID))
                .where(DEFINITION.KIND.eq(Kind.THRESHOLD), DEFINITION.NAME.in(names))
                .groupBy(DEFINITION.NAME, DEFINITION.REVISION)
                .forEach(row -> versions.put(row.value1(), row.value2() + "." + row.value3()));
        return versions;
    }
}
