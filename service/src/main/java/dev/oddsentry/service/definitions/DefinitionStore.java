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
import dev.oddsentry.core.definition.RecipientListDefinition;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.SharedLayoutDefinition;
import dev.oddsentry.core.definition.ThresholdDefinition;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.ids.RuleId;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import tools.jackson.core.type.TypeReference;

/**
 * Definitions as they are kept: the current revision by name or id, and every revision before. Lists are of what is in use; by its name or
 * id what was retired is found too, since it has a history.
 */
@Component
public class DefinitionStore {
    private static final int AT_ONCE = 1_000;
    private static final Condition IN_USE = DEFINITION.RETIRED_AT.isNull();

    private final DSLContext db;
    private final Clock clock;
    /** The last revision of each that was read. */
    private final Map<UUID, Current<?>> read = new ConcurrentHashMap<>();

    DefinitionStore(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** A definition with the number of its current revision. */
    public record Current<D extends Definition>(UUID id, int revision, D definition) {
        /** The same of a rule, for which there are more tables. */
        public RuleId ruleId() {
            return new RuleId(id);
        }
    }

    public Optional<Current<RuleDefinition>> rule(String name) {
        return current(Kind.RULE, DEFINITION.NAME.eq(name), RuleDefinition.class).stream()
                .findFirst();
    }

    public Optional<Current<RuleDefinition>> rule(RuleId id) {
        return current(Kind.RULE, DEFINITION.ID.eq(id.value()), RuleDefinition.class).stream()
                .findFirst();
    }

    public List<Current<RuleDefinition>> rules() {
        return current(Kind.RULE, IN_USE, RuleDefinition.class);
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
        return current(Kind.THRESHOLD, IN_USE, ThresholdDefinition.class);
    }

    public Optional<Current<CalendarDefinition>> calendar(String name) {
        return current(Kind.CALENDAR, DEFINITION.NAME.eq(name), CalendarDefinition.class).stream()
                .findFirst();
    }

    public List<Current<CalendarDefinition>> calendars() {
        return current(Kind.CALENDAR, IN_USE, CalendarDefinition.class);
    }

    public Optional<Current<SharedLayoutDefinition>> layout(String name) {
        return current(Kind.LAYOUT, DEFINITION.NAME.eq(name), SharedLayoutDefinition.class).stream()
                .findFirst();
    }

    public List<Current<SharedLayoutDefinition>> layouts() {
        return current(Kind.LAYOUT, IN_USE, SharedLayoutDefinition.class);
    }

    public Optional<Current<RecipientListDefinition>> recipientList(String name) {
        return current(Kind.RECIPIENT_LIST, DEFINITION.NAME.eq(name), RecipientListDefinition.class).stream()
                .findFirst();
    }

    public Optional<Current<RoundUpDefinition>> roundUp(String name) {
        return current(Kind.ROUND_UP, DEFINITION.NAME.eq(name), RoundUpDefinition.class).stream()
                .findFirst();
    }

    public Optional<Current<RoundUpDefinition>> roundUp(UUID id) {
        return current(Kind.ROUND_UP, DEFINITION.ID.eq(id), RoundUpDefinition.class).stream()
                .findFirst();
    }

    public List<Current<RoundUpDefinition>> roundUps() {
        return current(Kind.ROUND_UP, IN_USE, RoundUpDefinition.class);
    }

    /** Of all kinds, in the order in which they can be saved where there is nothing: what others name comes before them. */
    public List<Current<Definition>> everything() {
        return Stream.of(
                        Kind.CALENDAR,
                        Kind.QUERY,
                        Kind.THRESHOLD,
                        Kind.LAYOUT,
                        Kind.RECIPIENT_LIST,
                        Kind.RULE,
                        Kind.ROUND_UP)
                .flatMap(kind -> current(kind, IN_USE, Definition.class).stream())
                .toList();
    }

    /** What has a history: the rules in use and those that were retired. */
    public List<Current<RuleDefinition>> rulesEver() {
        return current(Kind.RULE, noCondition(), RuleDefinition.class);
    }

    /** Of a kind, in use and retired. */
    public List<Current<Definition>> ever(Kind kind) {
        return current(kind, noCondition(), Definition.class);
    }

    public List<Current<QueryDefinition>> queries() {
        return current(Kind.QUERY, IN_USE, QueryDefinition.class);
    }

    /**
     * The documents are read once for each revision, which never changes: a check alone looks its rule and query up some eight times. What
     * a transaction reads is not kept, since the revision may be its own and be rolled back.
     */
    private <D extends Definition> List<Current<D>> current(Kind kind, Condition which, Class<D> type) {
        var revisions = db.select(DEFINITION.ID, DEFINITION.REVISION)
                .from(DEFINITION)
                .where(DEFINITION.KIND.eq(kind), which)
                .orderBy(DEFINITION.NAME)
                .fetch(row -> new Revision(row.value1(), row.value2()));
        var documents = new HashMap<UUID, Definition>();
        var unread = new ArrayList<Revision>();
        for (var each : revisions) {
            var kept = read.get(each.id());
            if (kept != null && kept.revision() == each.number()) documents.put(each.id(), kept.definition());
            else unread.add(each);
        }
        for (int i = 0; i < unread.size(); i += AT_ONCE)
            documents.putAll(documents(unread.subList(i, Math.min(i + AT_ONCE, unread.size()))));
        boolean keep = !TransactionSynchronizationManager.isActualTransactionActive();
        return revisions.stream()
                .map(each -> {
                    var document = Objects.requireNonNull(documents.get(each.id()), "a revision without its document");
                    var current = new Current<>(each.id(), each.number(), type.cast(document));
                    if (keep) read.put(each.id(), current);
                    return current;
                })
                .toList();
    }

    private record Revision(UUID id, int number) {}

    private Map<UUID, Definition> documents(List<Revision> of) {
        var wanted = of.stream().map(each -> DSL.row(each.id(), each.number())).toList();
        return db.select(DEFINITION_REVISION.DEFINITION_ID, DEFINITION_REVISION.DOCUMENT)
                .from(DEFINITION_REVISION)
                .where(DSL.row(DEFINITION_REVISION.DEFINITION_ID, DEFINITION_REVISION.REVISION)
                        .in(wanted))
                .fetchMap(row -> row.value1(), row -> read(row.value2()));
    }

    private static Definition read(JSON document) {
        return Document.read(document.data()).definition();
    }

    /** The names of what is in use, of one kind. */
    public List<String> names(Kind kind) {
        return db.select(DEFINITION.NAME)
                .from(DEFINITION)
                .where(DEFINITION.KIND.eq(kind), IN_USE)
                .fetch(DEFINITION.NAME);
    }

    /**
     * The definition of that id or name, locked until the transaction ends, so that two saves come one after the other. Its document is
     * read in a second statement: one that waited for the lock would still not see the revision it waited for.
     */
    public Optional<Identified> lock(Kind kind, @Nullable UUID id, String name) {
        return db.selectFrom(DEFINITION)
                .where(DEFINITION.KIND.eq(kind), id == null ? DEFINITION.NAME.eq(name) : DEFINITION.ID.eq(id))
                .forUpdate()
                .fetchOptional(row ->
                        new Identified(row.getId(), row.getRevision(), document(row.getId(), row.getRevision())));
    }

    private Definition document(UUID id, int revision) {
        return revision(id, revision).orElseThrow();
    }

    public Optional<Definition> revision(UUID id, int revision) {
        return db.select(DEFINITION_REVISION.DOCUMENT)
                .from(DEFINITION_REVISION)
                .where(DEFINITION_REVISION.DEFINITION_ID.eq(id), DEFINITION_REVISION.REVISION.eq(revision))
                .fetchOptional(row -> read(row.value1()));
    }

    public Optional<Definition> current(Kind kind, String name) {
        return current(kind, DEFINITION.NAME.eq(name), Definition.class).stream()
                .findFirst()
                .map(Current::definition);
    }

    public Optional<Definition> byId(UUID id) {
        return db.select(DEFINITION.REVISION)
                .from(DEFINITION)
                .where(DEFINITION.ID.eq(id))
                .fetchOptional(DEFINITION.REVISION)
                .flatMap(revision -> revision(id, revision));
    }

    public Optional<UUID> idOf(Kind kind, String name) {
        return db.select(DEFINITION.ID)
                .from(DEFINITION)
                .where(DEFINITION.KIND.eq(kind), DEFINITION.NAME.eq(name))
                .fetchOptional(DEFINITION.ID);
    }

    /** By its id, whatever its name is now. */
    public Optional<String> nameOf(UUID id) {
        return db.select(DEFINITION.NAME)
                .from(DEFINITION)
                .where(DEFINITION.ID.eq(id))
                .fetchOptional(DEFINITION.NAME);
    }

    /** The number of the revision that stands; 0 for none. */
    public int revisionOf(Kind kind, String name) {
        return db.select(DEFINITION.REVISION)
                .from(DEFINITION)
                .where(DEFINITION.KIND.eq(kind), DEFINITION.NAME.eq(name))
                .fetchOptional(DEFINITION.REVISION)
                .orElse(0);
    }

    public record Identified(UUID id, int revision, Definition definition) {}

    /** @return false: the name belongs to another definition of this kind */
    public boolean insert(UUID id, Definition definition) {
        return db.insertInto(DEFINITION)
                        .set(DEFINITION.ID, id)
                        .set(DEFINITION.KIND, definition.kind())
                        .set(DEFINITION.NAME, definition.name())
                        .set(DEFINITION.VISIBLE_TO, seenBy(definition))
                        .set(DEFINITION.PRIVATE_TO, privateTo(definition))
                        .set(DEFINITION.REVISION, 1)
                        .onConflictDoNothing()
                        .execute()
                == 1;
    }

    public void moveTo(UUID id, Definition definition, int revision) {
        db.update(DEFINITION)
                .set(DEFINITION.NAME, definition.name())
                .set(DEFINITION.VISIBLE_TO, seenBy(definition))
                .set(DEFINITION.PRIVATE_TO, privateTo(definition))
                .set(DEFINITION.REVISION, revision)
                .where(DEFINITION.ID.eq(id))
                .execute();
    }

    private static String @Nullable [] seenBy(Definition definition) {
        if (definition.visibleTo().isEmpty()) return null;
        return Stream.concat(Stream.ofNullable(definition.owner()), definition.visibleTo().stream())
                .distinct()
                .toArray(String[]::new);
    }

    private static @Nullable String privateTo(Definition definition) {
        return definition instanceof SharedLayoutDefinition layout ? layout.privateTo() : null;
    }

    public void addRevision(UUID id, int revision, Definition definition, String reason, UUID author) {
        db.insertInto(DEFINITION_REVISION)
                .set(DEFINITION_REVISION.DEFINITION_ID, id)
                .set(DEFINITION_REVISION.REVISION, revision)
                .set(DEFINITION_REVISION.DOCUMENT, Json.writeInOrder(Document.tree(definition)))
                .set(DEFINITION_REVISION.REASON, reason)
                .set(DEFINITION_REVISION.AUTHOR_ID, author)
                .set(DEFINITION_REVISION.AT, clock.instant())
                .execute();
    }

    public void addColumns(UUID queryId, int revision, Columns columns) {
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
