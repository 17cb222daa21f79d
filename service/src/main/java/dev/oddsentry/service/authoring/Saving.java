package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.CalendarDefinition;
import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.EditClass;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.TriggersDefinition;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.access.Access;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.Archive;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.Uses;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.roundups.RoundUps;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.triggers.Triggers;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import java.util.List;
import java.util.Optional;
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
    private static final String ADDRESS_OF_NEW = "new";

    private final DefinitionStore store;
    private final DefinitionChecks checks;
    private final RuleStates ruleStates;
    private final Triggers triggers;
    private final RoundUps roundUps;
    private final Audit audit;
    private final DSLContext db;
    private final TransactionTemplate transactions;
    private final Access access;
    private final Uses uses;
    private final Archive archive;
    private final Visibility visibility;

    Saving(
            DefinitionStore store,
            DefinitionChecks checks,
            RuleStates ruleStates,
            Triggers triggers,
            RoundUps roundUps,
            Audit audit,
            DSLContext db,
            TransactionTemplate transactions,
            Access access,
            Uses uses,
            Archive archive,
            Visibility visibility) {
        this.visibility = visibility;
        this.uses = uses;
        this.archive = archive;
        this.access = access;
        this.store = store;
        this.checks = checks;
        this.ruleStates = ruleStates;
        this.triggers = triggers;
        this.roundUps = roundUps;
        this.audit = audit;
        this.db = db;
        this.transactions = transactions;
    }

    /**
     * @param treatAsKnown whether what an edit makes the next check find is taken as known, rather than told
     * @param seen the revision that the author's document was made from; null to take no heed
     * @throws InvalidDefinitionException with every problem and its place
     * @throws RefusedException if another has saved it meanwhile
     */
    public Saved save(Person author, String text, String reason, boolean treatAsKnown, @Nullable Integer seen) {
        var document = Document.read(text);
        PrivateLayouts.refuseOthers(author, document.definition());
        var saved = saved(document.definition());
        saved.ifPresent(kept -> {
            if (!visibility.of(author).includes(kept.kind(), kept.name())) throw taken(document.definition());
        });
        access.requireWrite(author, saved.orElse(document.definition()));
        // The source is asked before the transaction, which must not wait for it.
        var checked = checks.check(document.definition(), document.places());
        return transactions.execute(_ -> store(author, document, reason, checked, treatAsKnown, seen));
    }

    private static RefusedException taken(Definition written) {
        return RefusedException.conflict("The name " + written.name() + " is taken.");
    }

    /** What the document would replace. */
    private Optional<Definition> saved(Definition written) {
        String name = written.id() == null
                ? written.name()
                : store.nameOf(UUID.fromString(written.id())).orElse(written.name());
        return store.current(written.kind(), name);
    }

    private Saved store(
            Person author,
            Document document,
            String reason,
            DefinitionChecks.Checked checked,
            boolean treatAsKnown,
            @Nullable Integer seen) {
        Definition written = document.definition();
        UUID id = written.id() == null ? null : UUID.fromString(written.id());
        var before = store.lock(written.kind(), id, written.name());
        refuseRetired(document, before.map(kept -> kept.definition().name()).orElse(written.name()));
        if (before.isEmpty()) return create(author, document, reason, checked, id == null ? UUID.randomUUID() : id);
        if (!visibility.of(author).includes(before.get().id())) throw taken(written);
        access.requireWrite(author, before.get().definition());
        Definition definition = written.withId(before.get().id().toString());
        int revision = before.get().revision();
        boolean changed = !definition.equals(before.get().definition());
        if (changed && seen != null && seen != revision)
            throw RefusedException.conflict("Someone saved revision " + revision + " while you edited revision " + seen
                    + ". Compare, then save again.");
        if (changed) {
            refuseTakenName(document, before.get().id());
            refuseRenameOfWhatIsNamed(document, before.get().definition().name());
            revision++;
            store.moveTo(before.get().id(), definition, revision);
            keep(author, definition, revision, reason, checked);
            if (definition instanceof RuleDefinition rule) {
                listen(new RuleId(before.get().id()), rule, document);
                ruleStates.scheduleChanged(new RuleId(before.get().id()), rule);
            }
            if (definition instanceof CalendarDefinition) replan(definition.name());
            if (definition instanceof RoundUpDefinition roundUp)
                roundUps.saved(before.get().id(), roundUp);
            var effect = effect(before.get().definition(), definition);
            owe(effect.pendingEffect(treatAsKnown), definition);
            return saved(definition, revision, true, checked, effect)
                    .adding(added(before.get().definition(), definition));
        }
        return saved(definition, revision, false, checked, EditClass.NO_EFFECT);
    }

    private static EditClass effect(Definition before, Definition after) {
        if (before instanceof RuleDefinition was && after instanceof RuleDefinition is) return EditClass.of(was, is);
        if (before instanceof QueryDefinition was && after instanceof QueryDefinition is) return EditClass.of(was, is);
        return EditClass.NO_EFFECT;
    }

    /** Who is named now and was not before: they are not told what the others were. */
    public static List<String> added(Definition before, Definition after) {
        if (!(before instanceof RuleDefinition was) || !(after instanceof RuleDefinition is)) return List.of();
        var heard = was.delivery().named();
        return is.delivery().named().stream()
                .filter(address -> !heard.contains(address))
                .toList();
    }

    /** The rule itself, or every rule of the query. */
    private void owe(PendingEffect owed, Definition definition) {
        if (owed.isNone()) return;
        store.rules().stream()
                .filter(rule -> rule.id().toString().equals(definition.id())
                        || (definition.kind() == Definition.Kind.QUERY
                                && rule.definition().query().equals(definition.name())))
                .filter(rule -> ruleStates.remembers(rule.ruleId()))
                .forEach(rule -> ruleStates.owe(rule.ruleId(), owed));
    }

    /** The slots of every rule and round-up that goes by the calendar. */
    private void replan(String calendar) {
        store.rules().stream()
                .filter(rule -> calendar.equals(rule.definition().schedule().calendar()))
                .forEach(rule -> ruleStates.scheduleChanged(rule.ruleId(), rule.definition()));
        store.roundUps().stream()
                .filter(roundUp ->
                        calendar.equals(roundUp.definition().schedule().calendar()))
                .forEach(roundUp -> roundUps.saved(roundUp.id(), roundUp.definition()));
    }

    private void refuseTakenName(Document document, UUID id) {
        var holder = store.lock(
                document.definition().kind(), null, document.definition().name());
        if (holder.isPresent() && !holder.get().id().equals(id)) throw taken(document);
    }

    /** Rules find their query, thresholds, calendar and the rules they follow by name; under another they would find nothing. */
    private void refuseRenameOfWhatIsNamed(Document document, String before) {
        var definition = document.definition();
        if (definition.name().equals(before)) return;
        var users = uses.everOf(definition.kind(), before);
        if (users.isEmpty()) return;
        String who = visibility.now().listed(users);
        String message = "used under the name \"" + before + "\" by " + who + ". Keep the name, or change them first";
        throw new InvalidDefinitionException(
                List.of(document.places().locate("name", Problem.error(message, "", null))));
    }

    /** What was retired is used by nothing new. */
    private void refuseRetired(Document document, String name) {
        var definition = document.definition();
        archive.refuse(definition.kind(), name);
        archive.retiredOf(definition).ifPresent(named -> {
            String message = "the " + named.kind().words() + " \"" + named.name()
                    + "\" is retired. Restore it first, or use another";
            throw new InvalidDefinitionException(
                    List.of(document.places().locate("name", Problem.error(message, "", null))));
        });
    }

    private Saved create(Person author, Document document, String reason, DefinitionChecks.Checked checked, UUID id) {
        Definition definition = document.definition().withId(id.toString());
        if (definition.name().equals(ADDRESS_OF_NEW)) throw reserved(document);
        if (!store.insert(id, definition)) throw taken(document);
        keep(author, definition, 1, reason, checked);
        if (definition instanceof RuleDefinition rule) {
            var ruleId = new RuleId(id);
            ruleStates.createDraft(ruleId);
            listen(ruleId, rule, document);
        }
        if (definition instanceof RoundUpDefinition roundUp) roundUps.saved(id, roundUp);
        return saved(definition, 1, true, checked, EditClass.NO_EFFECT);
    }

    private void listen(RuleId id, RuleDefinition rule, Document document) {
        var follows = rule.triggers().after().stream()
                .map(TriggersDefinition.After::rule)
                .toList();
        var circle = triggers.circle(id, rule.name(), follows);
        if (!circle.isEmpty()) {
            String message = "the rules would trigger each other in a circle: " + String.join(" follows ", circle);
            throw new InvalidDefinitionException(
                    List.of(document.places().locate("schedule.after[0].rule", Problem.error(message, "", null))));
        }
        triggers.listen(id, rule.triggers());
    }

    private static InvalidDefinitionException reserved(Document document) {
        String message = "\"" + ADDRESS_OF_NEW + "\" is reserved for the console; use another name";
        return new InvalidDefinitionException(
                List.of(document.places().locate("name", Problem.error(message, "", null))));
    }

    private static InvalidDefinitionException taken(Document document) {
        String message = "the name \"" + document.definition().name() + "\" belongs to another "
                + document.definition().kind().words() + ". Use its id or another name";
        return new InvalidDefinitionException(
                List.of(document.places().locate("name", Problem.error(message, "", null))));
    }

    private void keep(
            Person author, Definition definition, int revision, String reason, DefinitionChecks.Checked checked) {
        UUID id = UUID.fromString(String.valueOf(definition.id()));
        store.addRevision(id, revision, definition, reason, author.id());
        if (checked.columns() != null) store.addColumns(id, revision, checked.columns());
        audit.record(db, author.id(), AuditAct.saving(definition.kind()), definition.name(), "revision " + revision);
    }

    private static Saved saved(
            Definition definition, int revision, boolean changed, DefinitionChecks.Checked checked, EditClass effect) {
        UUID id = UUID.fromString(String.valueOf(definition.id()));
        return new Saved(
                definition.kind().code(),
                id,
                definition.name(),
                revision,
                changed,
                effect,
                List.of(),
                checked.warnings());
    }
}
