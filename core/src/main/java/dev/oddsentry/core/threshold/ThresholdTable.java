package dev.oddsentry.core.threshold;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A threshold with all its values, past, present and planned.
 *
 * @param key what the values are kept by, such as {@code route}; empty for a single value
 */
public record ThresholdTable(
        String name, String title, @Nullable String unit, List<String> key, List<Value> values) {

    /**
     * @param key as many texts as the table's key has parts; empty for the default, which holds where a key has no value
     * @param from the first date, in the rule's zone, on which it applies; null for always
     */
    public record Value(List<String> key, @Nullable LocalDate from, BigDecimal number) {}

    /** What applies on one date: the number by key, the default under the empty key. */
    public Map<List<String>, BigDecimal> on(LocalDate date) {
        var valid = new HashMap<List<String>, BigDecimal>();
        values.stream()
                .filter(value -> value.from() == null || !value.from().isAfter(date))
                .sorted(Comparator.comparing(Value::from, Comparator.nullsFirst(Comparator.naturalOrder())))
                .forEach(value -> valid.put(value.key(), value.number()));
        return valid;
    }

    /** The same threshold with one number for all keys and dates, to try it. */
    public ThresholdTable always(BigDecimal number) {
        return new ThresholdTable(name, title, unit, key, List.of(new Value(List.of(), null, number)));
    }
}
