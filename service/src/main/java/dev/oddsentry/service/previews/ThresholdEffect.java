package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.threshold.ThresholdTable;
import dev.oddsentry.service.authoring.ThresholdChanges;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.thresholds.ThresholdStore.NewValue;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import dev.oddsentry.service.web.RefusedException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What a change would do: the exceptions of each rule that uses the threshold, before and after, on the same rows. */
@Component
public class ThresholdEffect {
    private final DefinitionStore definitions;
    private final ThresholdStore store;
    private final ExceptionCounts counts;

    private final UnknownNames unknown;
    private final VisibleDefinitions visible;

    ThresholdEffect(
            DefinitionStore definitions,
            ThresholdStore store,
            ExceptionCounts counts,
            UnknownNames unknown,
            VisibleDefinitions visible) {
        this.visible = visible;
        this.unknown = unknown;
        this.definitions = definitions;
        this.store = store;
        this.counts = counts;
    }

    /**
     * @param otherSeverity how many are exceptions before and after, with another severity
     * @param refused why it could not be counted; null where it was
     */
    public record ThresholdEffectOnRule(
            String rule,
            String title,
            @Nullable Long before,
            @Nullable Long after,
            @Nullable Long otherSeverity,
            @Nullable String refused) {}

    public List<ThresholdEffectOnRule> of(Person by, String name, List<NewValue> values) {
        var threshold = definitions.threshold(name).orElseThrow(() -> unknown.of(Kind.THRESHOLD, name));
        values.forEach(value -> ThresholdChanges.checkKey(threshold.definition(), value.key()));
        var changed = with(store.table(threshold), values);
        var effects = new ArrayList<ThresholdEffectOnRule>();
        for (var rule : visible.rules()) {
            var definition = rule.definition();
            if (!definition.thresholdsUsed().contains(name)) continue;
            var before = store.named(definition.thresholdsUsed());
            try {
                var both = counts.of(by, rule, before, before.with(changed));
                effects.add(new ThresholdEffectOnRule(
                        definition.name(),
                        definition.title(),
                        both.before(),
                        both.after(),
                        both.otherSeverity(),
                        null));
            } catch (RefusedException refused) {
                effects.add(new ThresholdEffectOnRule(
                        definition.name(), definition.title(), null, null, null, refused.getMessage()));
            }
        }
        return effects;
    }

    private static ThresholdTable with(ThresholdTable table, List<NewValue> given) {
        var values = new ArrayList<>(table.values());
        for (var each : given) {
            values.removeIf(value -> value.key().equals(each.key()) && Objects.equals(value.from(), each.from()));
            if (each.number() != null) values.add(new ThresholdTable.Value(each.key(), each.from(), each.number()));
        }
        return new ThresholdTable(table.name(), table.title(), table.unit(), table.key(), values);
    }
}
