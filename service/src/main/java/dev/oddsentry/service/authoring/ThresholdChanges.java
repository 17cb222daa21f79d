package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.EditClass;
import dev.oddsentry.core.definition.ThresholdDefinition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.threshold.ThresholdTable;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.thresholds.ThresholdCsv;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.thresholds.ThresholdStore.NewValue;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.List;
import java.util.Objects;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Gives thresholds values. A person who changes one leaves their name, the time and the reason. */
@Component
public class ThresholdChanges {
    private final DSLContext db;
    private final DefinitionStore definitions;
    private final ThresholdStore store;
    private final Audit audit;
    private final RuleStates rules;
    private final Clock clock;

    private final UnknownNames unknown;

    ThresholdChanges(
            DSLContext db,
            DefinitionStore definitions,
            ThresholdStore store,
            Audit audit,
            RuleStates rules,
            Clock clock,
            UnknownNames unknown) {
        this.unknown = unknown;
        this.db = db;
        this.definitions = definitions;
        this.store = store;
        this.audit = audit;
        this.rules = rules;
        this.clock = clock;
    }

    /** @param changed how many differ from what stood before; the others are not written again */
    public record ImportedThresholdValues(int read, int changed) {}

    /**
     * @param treatAsKnown whether what other values find now is taken as known, rather than told
     * @throws RefusedException if a key has not as many parts as the threshold's
     */
    @Transactional
    public void give(Person by, String name, List<NewValue> values, String reason, boolean treatAsKnown) {
        var threshold = require(name);
        values.forEach(value -> checkKey(threshold.definition(), value.key()));
        keep(by, threshold, values, reason, treatAsKnown);
    }

    /** @throws InvalidDefinitionException with every line that cannot be read; nothing is written then */
    @Transactional
    public ImportedThresholdValues importCsv(Person by, String name, String text, String reason, boolean treatAsKnown) {
        var threshold = require(name);
        var values = ThresholdCsv.read(text, threshold.definition().key());
        var standing = store.table(threshold).values();
        var changed = values.stream().filter(value -> !stands(value, standing)).toList();
        if (!changed.isEmpty()) keep(by, threshold, changed, reason, treatAsKnown);
        return new ImportedThresholdValues(values.size(), changed.size());
    }

    private static boolean stands(NewValue value, List<ThresholdTable.Value> standing) {
        return standing.stream()
                .anyMatch(each -> each.key().equals(value.key())
                        && Objects.equals(each.from(), value.from())
                        && value.number() != null
                        && each.number().compareTo(value.number()) == 0);
    }

    private void keep(
            Person by,
            Current<ThresholdDefinition> threshold,
            List<NewValue> values,
            String reason,
            boolean treatAsKnown) {
        store.give(threshold.id(), by.id(), values, reason);
        audit.record(db, by.id(), AuditAct.SET_THRESHOLD, threshold.definition().name(), words(values) + ": " + reason);
        reevaluate(threshold.definition().name(), values, treatAsKnown);
    }

    /**
     * A value that is changed under a rule evaluates the current rows again; one that takes effect on its date is ordinary news when that
     * date comes.
     */
    private void reevaluate(String threshold, List<NewValue> values, boolean treatAsKnown) {
        for (var rule : definitions.rules()) {
            if (!rule.definition().thresholdsUsed().contains(threshold) || !rules.remembers(rule.ruleId())) continue;
            var today = clock.instant().atZone(rule.definition().zone()).toLocalDate();
            boolean now = values.stream()
                    .anyMatch(value -> value.from() == null || !value.from().isAfter(today));
            if (now) rules.owe(rule.ruleId(), EditClass.OTHER_CONDITIONS.pendingEffect(treatAsKnown));
        }
    }

    private static String words(List<NewValue> values) {
        if (values.size() > 1) return values.size() + " values";
        var only = values.getFirst();
        return (only.number() == null ? "removed" : only.number().toPlainString())
                + (only.key().isEmpty() ? "" : " for " + String.join(", ", only.key()))
                + (only.from() == null ? "" : " from " + only.from());
    }

    private Current<ThresholdDefinition> require(String name) {
        return definitions.threshold(name).orElseThrow(() -> unknown.of(Kind.THRESHOLD, name));
    }

    public static void checkKey(ThresholdDefinition threshold, @Nullable List<String> key) {
        int parts = key == null ? 0 : key.size();
        if (parts == 0 || parts == threshold.key().size()) return;
        throw RefusedException.invalid(
                threshold.key().isEmpty()
                        ? "The threshold " + threshold.name() + " has one value for all; leave the key out."
                        : "The threshold " + threshold.name() + " is kept by " + String.join(", ", threshold.key())
                                + "; the key given has " + parts + " parts.");
    }
}
