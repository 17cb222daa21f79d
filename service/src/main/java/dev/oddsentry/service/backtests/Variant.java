package dev.oddsentry.service.backtests;

import dev.oddsentry.core.definition.MemoryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.service.web.RefusedException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What is on trial: thresholds, each of which replaces all values of its name, another condition, or a setting of the memory less.
 *
 * @param thresholds none if the rule's own count
 * @param exceptions null for the rule's own condition
 * @param without null for all that the rule says
 */
record Variant(
        Map<String, BigDecimal> thresholds, @Nullable String exceptions, MemoryDefinition.@Nullable Setting without) {
    static final Variant AS_IT_IS = new Variant(Map.of(), null, null);
    private static final int MOST = 13;

    /** The rule as it is, then every combination of the values given. */
    static List<Variant> of(Map<String, List<BigDecimal>> onTrial) {
        if (onTrial.isEmpty()) return List.of(AS_IT_IS);
        var combined = List.of(AS_IT_IS);
        for (var threshold : onTrial.entrySet()) {
            var longer = new ArrayList<Variant>();
            for (var variant : combined) {
                for (var value : threshold.getValue()) longer.add(variant.with(threshold.getKey(), value));
            }
            combined = longer;
        }
        var all = new ArrayList<Variant>();
        all.add(AS_IT_IS);
        all.addAll(combined);
        if (all.size() > MOST)
            throw RefusedException.invalid(
                    "These are " + (all.size() - 1) + " combinations, and " + (MOST - 1) + " is the most.");
        return all;
    }

    private Variant with(String name, BigDecimal value) {
        var more = new LinkedHashMap<>(thresholds);
        more.put(name, value);
        return new Variant(more, exceptions, without);
    }

    /** The rule as it is, then with each of these conditions. */
    static List<Variant> ofConditions(List<String> conditions) {
        var all = new ArrayList<Variant>();
        all.add(AS_IT_IS);
        conditions.forEach(each -> all.add(new Variant(Map.of(), each, null)));
        return all;
    }

    /** The rule as it is, then without each of these settings. */
    static List<Variant> ofSettings(List<MemoryDefinition.Setting> settings) {
        var all = new ArrayList<Variant>();
        all.add(AS_IT_IS);
        settings.stream().distinct().forEach(each -> all.add(new Variant(Map.of(), null, each)));
        return all;
    }

    /** The rule with the condition or the memory on trial. */
    RuleDefinition of(RuleDefinition rule) {
        var tried = exceptions == null ? rule : rule.withExceptions(exceptions);
        return without == null ? tried : tried.withMemory(tried.memory().without(without));
    }

    Thresholds in(Thresholds given) {
        var trial = given;
        for (var each : thresholds.entrySet()) {
            var table = given.find(each.getKey())
                    .orElseThrow(() ->
                            RefusedException.invalid("The rule does not use a threshold \"" + each.getKey() + "\"."));
            trial = trial.with(table.always(each.getValue()));
        }
        return trial;
    }
}
