package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.threshold.Thresholds;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** The values of a rule's thresholds as a check used them, for its record. */
public final class ThresholdsUsed {
    private ThresholdsUsed() {}

    /** By threshold, then by key; the key of the default is empty. */
    public static Map<String, Map<String, @Nullable BigDecimal>> of(Attempt attempt) {
        return of(attempt.thresholds(), attempt.moment().today());
    }

    private static Map<String, Map<String, @Nullable BigDecimal>> of(Thresholds thresholds, LocalDate today) {
        var used = new TreeMap<String, Map<String, @Nullable BigDecimal>>();
        thresholds.byName().forEach((name, table) -> {
            var values = new LinkedHashMap<String, @Nullable BigDecimal>();
            table.on(today).forEach((key, number) -> values.put(String.join(", ", key), number));
            used.put(name, values);
        });
        return used;
    }
}
