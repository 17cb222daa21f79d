package dev.oddsentry.service.visibility;

import static dev.oddsentry.service.db.generated.Tables.INCIDENT_RULE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static org.jooq.impl.DSL.and;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.not;
import static org.jooq.impl.DSL.notExists;
import static org.jooq.impl.DSL.selectOne;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.Field;

/** What one person sees, at the moment when it was asked. Lists, counts and suggestions are made of this alone. */
public final class Visible {
    static final Visible EVERYTHING = new Visible(new UUID(0, 0), Map.of());

    private final UUID person;
    private final Map<UUID, Hidden> hidden;

    Visible(UUID person, Map<UUID, Hidden> hidden) {
        this.person = person;
        this.hidden = hidden;
    }

    record Hidden(Kind kind, String name) {}

    public boolean includes(UUID definition) {
        return !hidden.containsKey(definition);
    }

    public boolean includes(RuleId rule) {
        return includes(rule.value());
    }

    /** @return true also for what is not there */
    public boolean includes(Kind kind, String name) {
        return hidden.isEmpty() || !hidden.containsValue(new Hidden(kind, name));
    }

    /** Those that the person sees, in the same order. */
    public <D extends Definition> List<Current<D>> of(List<Current<D>> all) {
        return hidden.isEmpty()
                ? all
                : all.stream().filter(each -> includes(each.id())).toList();
    }

    /** The names that the person sees, of one kind. */
    public List<String> names(Kind kind, Collection<String> all) {
        return all.stream().filter(name -> includes(kind, name)).toList();
    }

    /** For a column with the ids of rules; a row without one is about no rule. */
    public Condition rules(Field<RuleId> column) {
        if (hidden.isEmpty()) return noCondition();
        return column.isNull().or(column.notIn(ids().stream().map(RuleId::new).toList()));
    }

    /** The same for a column with the ids of definitions. */
    public Condition definitions(Field<UUID> column) {
        return hidden.isEmpty() ? noCondition() : column.isNull().or(column.notIn(ids()));
    }

    /**
     * For messages: those of rules and round-ups that the person sees, and of failures of those alone. Trials of what nobody has saved may
     * show anything, so they are for their authors.
     */
    public Condition messages() {
        if (hidden.isEmpty()) return noCondition();
        var ofHidden = selectOne()
                .from(INCIDENT_RULE)
                .where(INCIDENT_RULE.INCIDENT_ID.eq(MESSAGE.INCIDENT_ID), not(rules(INCIDENT_RULE.RULE_ID)));
        var collected = MESSAGE.as("collected");
        var withHidden = selectOne()
                .from(MESSAGE_RECIPIENT)
                .join(collected)
                .on(collected.ID.eq(MESSAGE_RECIPIENT.MESSAGE_ID))
                .where(
                        MESSAGE_RECIPIENT.COLLECTED_IN.eq(MESSAGE.ID),
                        not(and(rules(collected.RULE_ID), definitions(collected.ROUND_UP_ID))));
        return and(
                rules(MESSAGE.RULE_ID),
                rules(MESSAGE.ESCALATION_OF),
                rules(MESSAGE.PREVIEW_OF),
                definitions(MESSAGE.ROUND_UP_ID),
                definitions(MESSAGE.QUESTION_ABOUT),
                notExists(withHidden),
                MESSAGE.TRIAL_OF.isNull().or(MESSAGE.TRIAL_OF.eq(person)),
                notExists(ofHidden));
    }

    /** In a sentence: {@code the rule late-sailings, the query sailings-lately and something that you do not see}. */
    public String listed(Collection<? extends Definition> definitions) {
        var seen = definitions.stream()
                .filter(each -> includes(each.kind(), each.name()))
                .map(each -> "the " + each.kind().words() + " " + each.name())
                .collect(Collectors.joining(", "));
        long unseen = definitions.stream()
                .filter(each -> !includes(each.kind(), each.name()))
                .count();
        if (unseen == 0) return seen;
        return seen.isEmpty() ? "something that you do not see" : seen + " and something that you do not see";
    }

    private Set<UUID> ids() {
        return hidden.keySet();
    }
}
