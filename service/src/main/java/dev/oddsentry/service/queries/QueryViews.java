package dev.oddsentry.service.queries;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION_REVISION;
import static dev.oddsentry.service.db.generated.Tables.PERSON;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Queries as lists and pages show them. */
@Component
public class QueryViews {
    private final DSLContext db;
    private final VisibleDefinitions visible;
    private final DefinitionStore definitions;
    private final UnknownNames unknown;

    QueryViews(DSLContext db, DefinitionStore definitions, VisibleDefinitions visible, UnknownNames unknown) {
        this.unknown = unknown;
        this.visible = visible;
        this.db = db;
        this.definitions = definitions;
    }

    /**
     * @param columns that it returned when it was saved
     * @param rules how many rules watch it
     * @param savedBy null where the author is no longer known
     */
    public record QuerySummary(
            String name,
            String title,
            String source,
            List<String> categories,
            int revision,
            Instant savedAt,
            @Nullable String savedBy,
            List<String> columns,
            int rules) {}

    /** @param usedBy rules, and other queries whose parameters are chosen from it */
    public record QueryPage(
            QuerySummary query,
            String sql,
            List<QueryParameterView> parameters,
            List<QueryColumnView> columns,
            List<QueryUser> usedBy) {}

    /**
     * @param preset its default, as written
     * @param choices the values it may have where they are listed; null where they are not
     * @param choicesFrom the query that offers values; null where none does
     */
    record QueryParameterView(
            String name,
            String type,
            @Nullable String preset,
            boolean multiple,
            @Nullable List<String> choices,
            @Nullable String choicesFrom,
            @Nullable String help) {}

    record QueryColumnView(
            String name,
            String type,
            String label,
            @Nullable String unit,
            @Nullable String format,
            Map<String, String> words) {}

    /** @param how what it uses the query for: {@code watches}, or the place in its document */
    record QueryUser(String kind, String name, String title, String how) {}

    public List<QuerySummary> all() {
        var saved = saves();
        var users = new HashMap<String, Integer>();
        visible.rules().forEach(rule -> users.merge(rule.definition().query(), 1, Integer::sum));
        return visible.queries().stream()
                .map(query -> summary(
                        query, saved, users.getOrDefault(query.definition().name(), 0)))
                .toList();
    }

    private QuerySummary summary(Current<QueryDefinition> query, Map<UUID, Save> saved, int rules) {
        var definition = query.definition();
        var last = saved.getOrDefault(query.id(), new Save(Instant.EPOCH, null));
        return new QuerySummary(
                definition.name(),
                definition.title(),
                definition.source(),
                definition.categories(),
                query.revision(),
                last.at(),
                last.by(),
                definitions.columns(query).names(),
                rules);
    }

    private record Save(Instant at, @Nullable String by) {}

    /** The newest of each definition. */
    private Map<UUID, Save> saves() {
        var id = DEFINITION_REVISION.DEFINITION_ID;
        return db.select(id, DEFINITION_REVISION.AT, PERSON.NAME)
                .distinctOn(id)
                .from(DEFINITION_REVISION)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(DEFINITION_REVISION.AUTHOR_ID))
                .orderBy(id, DEFINITION_REVISION.REVISION.desc())
                .fetchMap(row -> row.value1(), row -> new Save(row.value2(), row.value3()));
    }

    public QueryPage page(String name) {
        var query = require(name);
        var users = users(name);
        var definition = query.definition();
        int rules = (int)
                users.stream().filter(user -> user.how().equals("watches")).count();
        return new QueryPage(
                summary(query, saves(), rules),
                definition.sql(),
                definition.parameters().entrySet().stream()
                        .map(entry -> parameter(entry.getKey(), entry.getValue()))
                        .toList(),
                columns(query),
                users);
    }

    Current<QueryDefinition> require(String name) {
        return definitions.query(name).orElseThrow(() -> unknown.of(Definition.Kind.QUERY, name));
    }

    private static QueryParameterView parameter(String name, QueryDefinition.Parameter declared) {
        return new QueryParameterView(
                name,
                declared.type().code(),
                declared.defaultValue(),
                declared.multiple(),
                declared.choices() instanceof QueryDefinition.Choices.Listed(var values) ? values : null,
                declared.choices() instanceof QueryDefinition.Choices.OfQuery offer ? offer.from() : null,
                declared.help());
    }

    private List<QueryColumnView> columns(Current<QueryDefinition> query) {
        return definitions.columns(query).inOrder().stream()
                .map(column -> {
                    var meaning = query.definition().meaningOf(column.name());
                    return new QueryColumnView(
                            column.name(),
                            column.type().code(),
                            meaning.label(),
                            meaning.unit(),
                            meaning.format() == null ? null : meaning.format().pattern(),
                            meaning.words());
                })
                .toList();
    }

    private List<QueryUser> users(String query) {
        var users = new LinkedHashMap<String, QueryUser>();
        for (var each : visible.rules()) {
            var rule = each.definition();
            if (!rule.names(Definition.Kind.QUERY).contains(query)) continue;
            users.put("rule " + rule.name(), new QueryUser("rule", rule.name(), rule.title(), how(rule, query)));
        }
        for (var each : visible.queries()) {
            var other = each.definition();
            if (other.chosenFrom().containsValue(query))
                users.put("query " + other.name(), new QueryUser("query", other.name(), other.title(), "choices"));
        }
        return List.copyOf(users.values());
    }

    private static String how(RuleDefinition rule, String query) {
        if (rule.query().equals(query)) return "watches";
        if (rule.copies() != null && rule.copies().from().equals(query)) return "copies";
        if (rule.triggers().ready() != null && rule.triggers().ready().query().equals(query)) return "ready_when";
        boolean groups = rule.groups() != null
                && rule.groups().from() instanceof RuleDefinition.ExpectedGroups.OfQuery(var from)
                && from.equals(query);
        return groups ? "expected_groups" : "delivery";
    }
}
