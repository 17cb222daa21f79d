package dev.oddsentry.service.definitions;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.FieldPlaces;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.judging.RuleJudges;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryChecks;
import dev.oddsentry.service.rules.RuleStates;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Saves a document: reads it, checks it against the source and what else is saved, and keeps it as a new revision. A document that
 * is refused changes nothing.
 */
@Component
public class Saving {
    private final DefinitionStore store;
    private final QueryChecks queryChecks;
    private final RuleStates ruleStates;
    private final Audit audit;
    private final DSLContext db;
    private final TransactionTemplate transactions;

    Saving(
            DefinitionStore store,
            QueryChecks queryChecks,
            RuleStates ruleStates,
            Audit audit,
            DSLContext db,
            TransactionTemplate transactions) {
        this.store = store;
        this.queryChecks = queryChecks;
        this.ruleStates = ruleStates;
        this.audit = audit;
        this.db = db;
        this.transactions = transactions;
    }

    /** @param columns of a query, null for a rule */
    private record Checked(@Nullable Columns columns, List<Problem> warnings) {}

    /** @throws InvalidDefinitionException with every problem and its place */
    public Saved save(Person author, String text, String remark) {
        var document = Document.read(text);
        // The source is asked before the transaction, which must not wait for it.
        var checked = switch (document.definition()) {
            case QueryDefinition query -> checkQuery(query, document.places());
            case RuleDefinition rule -> checkRule(rule, document.places());
        };
        return transactions.execute(_ -> store(author, document, remark, checked));
    }

    private Checked checkQuery(QueryDefinition query, FieldPlaces places) {
        Columns columns = queryChecks.check(query, places);
        var problems = new ArrayList<Problem>();
        for (var rule : store.rules()) {
            if (!rule.definition().query().equals(query.name())) continue;
            try {
                RuleJudges.check(rule.definition(), columns, null);
            } catch (InvalidDefinitionException broken) {
                broken.problems()
                        .forEach(problem -> problems.add(Problem.error(
                                "the rule " + rule.definition().name() + " uses this query: " + problem.message(),
                                "sql",
                                places.of("sql"))));
            }
        }
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
        return new Checked(columns, List.of());
    }

    private Checked checkRule(RuleDefinition rule, FieldPlaces places) {
        var query = store.query(rule.query());
        if (query.isEmpty()) {
            var names = store.names(Definition.Kind.QUERY);
            throw new InvalidDefinitionException(List.of(places.locate(
                    "query",
                    Problem.error("there is no query \"" + rule.query() + "\"", "", null)
                            .suggesting(Nearest.to(rule.query(), names).orElse(null)))));
        }
        var problems = new ArrayList<>(Parameters.problemsOf(rule, query.get().definition(), places));
        try {
            problems.addAll(
                    RuleJudges.check(rule, store.columns(query.get()), places).warnings());
        } catch (InvalidDefinitionException refused) {
            problems.addAll(refused.problems());
        }
        if (problems.stream().anyMatch(Problem::isError)) throw new InvalidDefinitionException(problems);
        return new Checked(null, problems);
    }

    private Saved store(Person author, Document document, String remark, Checked checked) {
        Definition written = document.definition();
        UUID id = written.id() == null ? null : UUID.fromString(written.id());
        var before = store.lock(written.kind(), id, written.name());
        if (before.isEmpty()) return create(author, document, remark, checked, id == null ? UUID.randomUUID() : id);
        Definition definition = written.withId(before.get().id().toString());
        int revision = before.get().revision();
        boolean changed = !definition.equals(before.get().definition());
        if (changed) {
            refuseTakenName(document, before.get().id());
            revision++;
            store.moveTo(before.get().id(), definition.name(), revision);
            keep(author, definition, revision, remark, checked);
            if (definition instanceof RuleDefinition rule)
                ruleStates.scheduleChanged(before.get().id(), rule);
        }
        return saved(definition, revision, changed, checked);
    }

    private void refuseTakenName(Document document, UUID id) {
        var holder = store.lock(
                document.definition().kind(), null, document.definition().name());
        if (holder.isPresent() && !holder.get().id().equals(id)) throw taken(document);
    }

    private Saved create(Person author, Document document, String remark, Checked checked, UUID id) {
        Definition definition = document.definition().withId(id.toString());
        if (!store.insert(definition.kind(), id, definition.name())) throw taken(document);
        keep(author, definition, 1, remark, checked);
        if (definition instanceof RuleDefinition) ruleStates.createDraft(id);
        return saved(definition, 1, true, checked);
    }

    private static InvalidDefinitionException taken(Document document) {
        String message = "the name \"" + document.definition().name() + "\" belongs to another "
                + document.definition().kind().code() + "; give this document that one's id, or another name";
        return new InvalidDefinitionException(
                List.of(document.places().locate("name", Problem.error(message, "", null))));
    }

    private void keep(Person author, Definition definition, int revision, String remark, Checked checked) {
        UUID id = UUID.fromString(String.valueOf(definition.id()));
        store.addRevision(id, revision, definition, remark, author.id());
        if (checked.columns() != null) store.addColumns(id, revision, checked.columns());
        audit.record(db, author.id(), "save " + definition.kind().code(), definition.name(), "revision " + revision);
    }

    private static Saved saved(Definition definition, int revision, boolean changed, Checked checked) {
        UUID id = UUID.fromString(String.valueOf(definition.id()));
        return new Saved(definition.kind().code(), id, definition.name(), revision, changed, checked.warnings());
    }
}
