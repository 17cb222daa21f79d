package dev.oddsentry.core.threshold;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** The thresholds that conditions may name. */
public record Thresholds(Map<String, ThresholdTable> byName) {
    public static final Thresholds NONE = new Thresholds(Map.of());

    public static Thresholds of(List<ThresholdTable> tables) {
        var byName = new HashMap<String, ThresholdTable>();
        tables.forEach(table -> byName.put(table.name(), table));
        return new Thresholds(Map.copyOf(byName));
    }

    public Optional<ThresholdTable> find(String name) {
        return Optional.ofNullable(byName.get(name));
    }

    public Set<String> names() {
        return byName.keySet();
    }

    /** These, with one of them replaced. */
    public Thresholds with(ThresholdTable table) {
        var replaced = new HashMap<>(byName);
        replaced.put(table.name(), table);
        return new Thresholds(Map.copyOf(replaced));
    }
}
