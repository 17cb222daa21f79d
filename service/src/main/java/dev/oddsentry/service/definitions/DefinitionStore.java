package dev.oddsentry.service.definitions;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.DEFINITION_REVISION;
import static dev.oddsentry.service.db.generated.Tables.QUERY_COLUMNS;
import static org.jooq.impl.DSL.noCondition;

import dev.oddsentry.core.definition.CalendarDefinition;
import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.ThresholdDefinition;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.db.Json;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** Queries and rules as they are kept: the current revision by name or id, and every revision before. */
@Component
public class DefinitionStore {
    private final DSLContext db;
    private final Clock clock;

    DefinitionStore(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** A definition with the number of its current revision. */
    public record Current<D extends Definition>(UUID id, int revision, D definition) {}

    public Optional<Current<RuleDefinition>> rule(String name) {
        return current(Kind.RULE, DEFINITION.NAME.eq(name), RuleDefinition.class).stream()
                .findFirst();
    }

    public Optional<Current<RuleDefinition>> rule(UUID id) {
        return current(Kind.RULE, DEFINITION.ID.eq(id), RuleDefinition.class).stream()
                .findFirst();
    }

    public List<Current<RuleDefinition>> rules() {
        return current(Kind.RULE, noCondition(), RuleDefinition.class);
    }

    public Optional<Current<QueryDefinition>> query(String name) {
        return current(Kind.QUERY, DEFINITION.NAME.eq(name), QueryDefinition.class).stream()
                .findFirst();
    }

    public Optional<Current<ThresholdDefinition>> threshold(String name) {
        return current(Kind.THRESHOLD, DEFINITION.NAME.eq(name), ThresholdDefinition.class).stream()
                .findFirst();
    }

    public List<Current<ThresholdDefinition>> thresholds() {
        return current(Kind.THRESHOLD, noCondition(), ThresholdDefinition.class);
    }

    public Optional<Current<CalendarDefinition>> calendar(String name) {
        return current(Kind.CALENDAR, DEFINITION.NAME.eq(name), CalendarDefinition.class).stream()
                .findFirst();
    }

    public List<Current<CalendarDefinition>> calendars() {
        return current(Kind.CALENDAR, noCondition(), CalendarDefinition.class);
    }

    public List<Current<QueryDefinition>> queries() {
        return current(Kind.QUERY, noCondition(), QueryDefinition.class);
    }

    private <D extends Definition> List<Current<D>> current(Kind kind, Condition which, Class<D> type) {
        return db.select(DEFINITION.ID, DEFINITION.REVISION, DEFINITION_REVISION.DOCUMENT)
                .from(DEFINITION)
                .join(DEFINITION_REVISION)
                .on(
                        DEFINITION_REVISION.DEFINITION_ID.eq(DEFINITION.ID),
                        DEFINITION_REVISION.REVISION.eq(DEFINITION.REVISION))
                .where(DEFINITION.KIND.eq(kind), which)
                .orderBy(DEFINITION.NAME)
                .fetch(row -> new Current<>(row.value1(), row.value2(), type.cast(read(row.value3()))));
    }

    private static Definition read(JSON document) {
        return Document.read(document.data()).definition();
    }

    /** Current revisions by name, of one kind. */
    List<String> names(Kind kind) {
        return db.select(DEFINITION.NAME)
                .from(DEFINITION)
                .where(DEFINITION.KIND.eq(kind))
                .fetch(DEFINITION.NAME);
    }

    /**
     * The definition of that id or name, locked until the transaction ends, so that two saves come one after the other. Its document is
     * read in a second statement: one that waited for the lock would still not see the revision it waited for.
     */
    Optional<Identified> lock(Kind kind, @Nullable UUID id, String name) {
        return db.selectFrom(DEFINITION)
                .where(DEFINITION.KIND.eq(kind), id == null ? DEFINITION.NAME.eq(name) : DEFINITION.ID.eq(id))
                .forUpdate()
                .fetchOptional(row ->
                        new Identified(row.getId(), row.getRevision(), document(row.getId(), row.getRevision())));
    }

    private Definition document(UUID id, int revision) {
        return read(db.select(DEFINITION_REVISION.DOCUMENT)
                .from(DEFINITION_REVISION)
                .where(DEFINITION_REVISION.DEFINITION_ID.eq(id), DEFINITION_REVISION.REVISION.eq(revision))
                .fetchSingle()
                .value1());
    }

    record Identified(UUID id, int revision, Definition definition) {}

    /** @return false: the name belongs to another definition of this kind */
    boolean insert(Kind kind, UUID id, String name) {
        return db.insertInto(DEFINITION)
                        .set(DEFINITION.ID, id)
                        .set(DEFINITION.KIND, kind)
                        .set(DEFINITION.NAME, name)
                        .set(DEFINITION.REVISION, 1)
                        .onConflictDoNothing()
                        .execute()
                == 1;
    }

    void moveTo(UUID id, String name, int revision) {
        db.update(DEFINITION)
                .set(DEFINITION.NAME, name)
                .set(DEFINITION.REVISION, revision)
                .where(DEFINITION.ID.eq(id))
                .execute();
    }

    void addRevision(UUID id, int revision, Definition definition, String remark, UUID author) {
        db.insertInto(DEFINITION_REVISION)
                .set(DEFINITION_REVISION.DEFINITION_ID, id)
                .set(DEFINITION_REVISION.REVISION, revision)
                .set(DEFINITION_REVISION.DOCUMENT, Json.writeInOrder(Document.tree(definition)))
                .set(DEFINITION_REVISION.REMARK, remark)
                .set(DEFINITION_REVISION.AUTHOR_ID, author)
                .set(DEFINITION_REVISION.AT, clock.instant())
                .execute();
    }

    void addColumns(UUID queryId, int revision, Columns columns) {
        var tree = columns.inOrder().stream()
                .map(column ->
                        Map.of("name", column.name(), "type", column.type().name()))
                .toList();
        db.insertInto(QUERY_COLUMNS)
                .set(QUERY_COLUMNS.DEFINITION_ID, queryId)
                .set(QUERY_COLUMNS.REVISION, revision)
                .set(QUERY_COLUMNS.COLUMNS, Json.write(tree))
                .execute();
    }

    /** The columns that this revision of a query returned when it was saved. */
    public Columns columns(Current<QueryDefinition> query) {
        var json = db.select(QUERY_COLUMNS.COLUMNS)
                .from(QUERY_COLUMNS)
                .where(QUERY_COLUMNS.DEFINITION_ID.eq(query.id()), QUERY_COLUMNS.REVISION.eq(query.revision()))
                .fetchSingle()
                .value1();
        return new Columns(Json.read(json, new TypeReference<List<Column>>() {}));
    }
}
