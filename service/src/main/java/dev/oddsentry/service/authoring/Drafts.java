package dev.oddsentry.service.authoring;

import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_DRAFT;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.EditClass;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** An edit of a rule that lies beside it until someone switches to it, so that the rule goes on as it is meanwhile. */
@Component
public class Drafts {
    private final DefinitionStore store;
    private final CheckedDrafts checked;
    private final Saving saving;
    private final Audit audit;
    private final DSLContext db;
    private final Clock clock;

    Drafts(DefinitionStore store, CheckedDrafts checked, Saving saving, Audit audit, DSLContext db, Clock clock) {
        this.store = store;
        this.checked = checked;
        this.saving = saving;
        this.audit = audit;
        this.db = db;
        this.clock = clock;
    }

    /**
     * @param version counts the saves of the draft
     * @param baseRevision of the rule, when the draft was saved
     * @param revision of the rule now
     * @param effect what a switch would do to the memory of the rule
     * @param document as the API has documents
     */
    public record Draft(
            int version,
            int baseRevision,
            int revision,
            String author,
            Instant at,
            EditClass effect,
            Map<String, Object> document) {}

    public Optional<Draft> of(Current<RuleDefinition> rule) {
        return db.select(RULE_DRAFT.VERSION, RULE_DRAFT.BASE_REVISION, PERSON.NAME, RULE_DRAFT.AT, RULE_DRAFT.DOCUMENT)
                .from(RULE_DRAFT)
                .join(PERSON)
                .on(PERSON.ID.eq(RULE_DRAFT.AUTHOR_ID))
                .where(RULE_DRAFT.RULE_ID.eq(rule.ruleId()))
                .fetchOptional(row -> {
                    var definition =
                            (RuleDefinition) Document.read(row.value5().data()).definition();
                    return new Draft(
                            row.value1(),
                            row.value2(),
                            rule.revision(),
                            row.value3(),
                            row.value4(),
                            EditClass.of(rule.definition(), definition),
                            Document.tree(definition));
                });
    }

    /**
     * @param seen the version that the author has seen; null for none, 0 to take no heed
     * @param base the revision of the rule that the author has seen; null for the one that stands
     * @throws InvalidDefinitionException with every problem of the document
     * @throws RefusedException if another has saved the draft meanwhile
     */
    @Transactional
    public Draft save(
            Person author, Current<RuleDefinition> rule, String text, @Nullable Integer seen, @Nullable Integer base) {
        var definition = checked.rule(text);
        boolean same = definition.name().equals(rule.definition().name())
                && (definition.id() == null || definition.id().equals(rule.id().toString()));
        if (!same)
            throw new InvalidDefinitionException(List.of(Problem.error(
                    "a draft cannot change the rule's name or id; rename the rule itself", "name", null)));
        var before = lock(rule.ruleId());
        refuseIfOvertaken(before.orElse(null), seen);
        int version = before.orElse(0) + 1;
        db.insertInto(RULE_DRAFT)
                .set(RULE_DRAFT.RULE_ID, rule.ruleId())
                .set(RULE_DRAFT.VERSION, version)
                .set(
                        RULE_DRAFT.DOCUMENT,
                        Json.writeInOrder(
                                Document.tree(definition.withId(rule.id().toString()))))
                .set(RULE_DRAFT.BASE_REVISION, base == null ? rule.revision() : base)
                .set(RULE_DRAFT.AUTHOR_ID, author.id())
                .set(RULE_DRAFT.AT, clock.instant())
                .onConflict(RULE_DRAFT.RULE_ID)
                .doUpdate()
                .setAllToExcluded()
                .execute();
        audit.record(db, author.id(), AuditAct.SAVE_DRAFT, rule.definition().name(), "version " + version);
        return of(rule).orElseThrow();
    }

    /**
     * The draft becomes the rule.
     *
     * @throws RefusedException if there is none, or if the rule or the draft was saved since
     */
    public Saved switchTo(
            Person by, Current<RuleDefinition> rule, String reason, boolean treatAsKnown, @Nullable Integer seen) {
        var draft = of(rule).orElseThrow(() -> none(rule));
        refuseIfOvertaken(draft.version(), seen == null ? Integer.valueOf(0) : seen);
        var text = Json.writeInOrder(draft.document()).data();
        var saved = saving.save(by, text, reason, treatAsKnown, draft.baseRevision());
        db.deleteFrom(RULE_DRAFT)
                .where(RULE_DRAFT.RULE_ID.eq(rule.ruleId()), RULE_DRAFT.VERSION.eq(draft.version()))
                .execute();
        return saved;
    }

    /** @throws RefusedException if there is none */
    public void discard(Person by, Current<RuleDefinition> rule) {
        int gone = db.deleteFrom(RULE_DRAFT)
                .where(RULE_DRAFT.RULE_ID.eq(rule.ruleId()))
                .execute();
        if (gone == 0) throw none(rule);
        audit.record(db, by.id(), AuditAct.DISCARD_DRAFT, rule.definition().name(), null);
    }

    private static RefusedException none(Current<RuleDefinition> rule) {
        return RefusedException.notFound(
                "There are no draft changes of " + rule.definition().name() + ".");
    }

    /** By way of the rule's row, since there may be no draft yet that two would wait for. */
    private Optional<Integer> lock(RuleId ruleId) {
        db.select(RULE.ID).from(RULE).where(RULE.ID.eq(ruleId)).forUpdate().fetch();
        return db.select(RULE_DRAFT.VERSION)
                .from(RULE_DRAFT)
                .where(RULE_DRAFT.RULE_ID.eq(ruleId))
                .fetchOptional(RULE_DRAFT.VERSION);
    }

    private static void refuseIfOvertaken(@Nullable Integer stands, @Nullable Integer seen) {
        boolean heedless = seen != null && seen == 0;
        if (heedless || Objects.equals(stands, seen)) return;
        throw RefusedException.conflict(
                stands == null
                        ? "The draft has been applied or discarded by someone else."
                        : (seen == null ? "The rule has draft changes already" : "Someone else has saved the draft")
                                + ", version " + stands + ": compare first.");
    }
}
