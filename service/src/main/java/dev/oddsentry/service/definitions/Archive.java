package dev.oddsentry.service.definitions;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.select;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record1;
import org.jooq.Select;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Which definitions were retired: when, by whom and why. */
@Component
public class Archive {
    private final DSLContext db;
    private final Clock clock;

    Archive(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** @param by the name of the user who retired it */
    public record Entry(UUID id, Kind kind, String name, Instant at, String by, String reason) {}

    /** The latest first. */
    public List<Entry> all() {
        return entries(DEFINITION.RETIRED_AT.isNotNull());
    }

    public Optional<Entry> of(Kind kind, String name) {
        return entries(DEFINITION.KIND.eq(kind).and(DEFINITION.NAME.eq(name)).and(DEFINITION.RETIRED_AT.isNotNull()))
                .stream()
                .findFirst();
    }

    /** @throws RefusedException if it was retired */
    public void refuse(Kind kind, String name) {
        of(kind, name).ifPresent(entry -> {
            throw retired(kind, name);
        });
    }

    /**
     * Part of the caller's transaction: a user who retires it at the same time waits.
     *
     * @throws RefusedException if the rule was retired
     */
    public void refuse(RuleId rule) {
        var row = db.select(DEFINITION.NAME, DEFINITION.RETIRED_AT)
                .from(DEFINITION)
                .where(DEFINITION.ID.eq(rule.value()))
                .forShare()
                .fetchSingle();
        if (row.value2() != null) throw retired(Kind.RULE, row.value1());
    }

    private static RefusedException retired(Kind kind, String name) {
        return RefusedException.conflict("The " + kind.words() + " \"" + name + "\" is retired. Restore it first.");
    }

    private List<Entry> entries(Condition which) {
        return db.select(
                        DEFINITION.ID,
                        DEFINITION.KIND,
                        DEFINITION.NAME,
                        DEFINITION.RETIRED_AT,
                        PERSON.NAME,
                        DEFINITION.RETIRED_REASON)
                .from(DEFINITION)
                .join(PERSON)
                .on(PERSON.ID.eq(DEFINITION.RETIRED_BY))
                .where(which)
                .orderBy(DEFINITION.RETIRED_AT.desc(), DEFINITION.NAME)
                .fetch(mapping(Entry::new));
    }

    /** The rules that were retired, for a condition. */
    public Select<Record1<RuleId>> rules() {
        return select(DEFINITION.ID.coerce(RULE.ID))
                .from(DEFINITION)
                .where(DEFINITION.KIND.eq(Kind.RULE), DEFINITION.RETIRED_AT.isNotNull());
    }

    /** Part of the caller's transaction, which has locked it. */
    public void retire(UUID id, UUID by, String reason) {
        db.update(DEFINITION)
                .set(DEFINITION.RETIRED_AT, clock.instant())
                .set(DEFINITION.RETIRED_BY, by)
                .set(DEFINITION.RETIRED_REASON, reason)
                .where(DEFINITION.ID.eq(id))
                .execute();
    }

    /** Part of the caller's transaction, which has locked it. */
    public void restore(UUID id) {
        db.update(DEFINITION)
                .setNull(DEFINITION.RETIRED_AT)
                .setNull(DEFINITION.RETIRED_BY)
                .setNull(DEFINITION.RETIRED_REASON)
                .where(DEFINITION.ID.eq(id))
                .execute();
    }

    /**
     * What a definition names and was retired, for instance a query of a rule. What is in use stays so until the transaction ends: who would
     * retire it waits, and then sees who uses it.
     */
    public Optional<Named> retiredOf(Definition definition) {
        for (var kind : Kind.values())
            for (String name : Uses.names(definition, kind))
                if (isRetired(kind, name)) return Optional.of(new Named(kind, name));
        return Optional.empty();
    }

    public record Named(Kind kind, String name) {}

    private boolean isRetired(Kind kind, String name) {
        @Nullable
        Instant at = db.select(DEFINITION.RETIRED_AT)
                .from(DEFINITION)
                .where(DEFINITION.KIND.eq(kind), DEFINITION.NAME.eq(name))
                .forShare()
                .fetchOne(DEFINITION.RETIRED_AT);
        return at != null;
    }
}
