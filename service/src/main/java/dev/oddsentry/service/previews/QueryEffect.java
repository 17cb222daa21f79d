package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.EditClass;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.authoring.CheckedDrafts;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.queries.RunWords;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What a query that is being edited would do to the rules that watch it: each is asked as it is saved and as it would be. */
@Component
public class QueryEffect {
    private final DefinitionStore definitions;
    private final CheckedDrafts drafts;
    private final PreviewRunner previewing;
    private final CopyLookup copies;
    private final Audit audit;
    private final DSLContext db;
    private final Clock clock;
    private final VisibleDefinitions visible;

    QueryEffect(
            DefinitionStore definitions,
            CheckedDrafts drafts,
            PreviewRunner previewing,
            CopyLookup copies,
            Audit audit,
            DSLContext db,
            Clock clock,
            VisibleDefinitions visible) {
        this.visible = visible;
        this.definitions = definitions;
        this.drafts = drafts;
        this.previewing = previewing;
        this.copies = copies;
        this.audit = audit;
        this.db = db;
        this.clock = clock;
    }

    /**
     * @param compared {@code onlyDraft} are the exceptions that the edit adds, {@code onlyActive} those that it loses; null where it
     *     could not be told, which {@code refused} says
     * @param copy whose personal copy was looked at; null where the rule has none
     */
    public record QueryEffectOnRule(
            String rule,
            String title,
            Preview.@Nullable PreviewComparison compared,
            @Nullable String copy,
            @Nullable String refused) {}

    /** @param effect the class of the edit; what is saved now is compared with the document */
    public record QueryEffectView(EditClass effect, List<QueryEffectOnRule> rules) {}

    /** @throws InvalidDefinitionException with every problem of the document, rules that it would break among them */
    public QueryEffectView of(Person by, String text) {
        var edited = drafts.query(text);
        var saved = definitions.query(edited.name()).map(Current::definition);
        if (saved.isEmpty()) return new QueryEffectView(EditClass.NO_EFFECT, List.of());
        var effect = EditClass.of(saved.get(), edited);
        audit.record(db, by.id(), AuditAct.PREVIEW_QUERY, edited.name(), RunWords.of(edited, Map.of()));
        if (effect == EditClass.NO_EFFECT) return new QueryEffectView(effect, List.of());
        Instant slot = clock.instant();
        var rules = visible.rules().stream()
                .filter(rule -> rule.definition().query().equals(edited.name()))
                .map(rule -> onRule(rule, edited, slot))
                .toList();
        return new QueryEffectView(effect, rules);
    }

    private QueryEffectOnRule onRule(Current<RuleDefinition> of, QueryDefinition edited, Instant slot) {
        var rule = of.definition();
        try {
            return previewing.inWords(() -> {
                var copy = copies.of(rule, slot, null);
                try (var before = previewing.run(rule, of.ruleId(), slot, copy);
                        var after = previewing.run(rule, edited, of.ruleId(), slot, copy)) {
                    var compared = Preview.compared(after.evaluation(), before.evaluation(), rule.zone());
                    return new QueryEffectOnRule(
                            rule.name(), rule.title(), compared, copy == null ? null : copy.key(), null);
                }
            });
        } catch (RefusedException refused) {
            return new QueryEffectOnRule(rule.name(), rule.title(), null, null, refused.getMessage());
        }
    }
}
