package dev.oddsentry.service.memory;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.value.CellText;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Findings by a name that a reader knows them by: a key such as 12542 says little to anyone. */
public final class FindingNames {
    private static final int MOST_WORDS = 2;

    private FindingNames() {}

    /**
     * @param copy whose personal copy found it; null where the rule has none
     * @param row its last row, cells by column name; empty where there is none
     * @return its key, and beside it the first texts of its layout: {@code 12542 (SK-184, Varsund – Holm)}
     */
    public static String of(
            RuleDefinition rule,
            @Nullable String copy,
            List<? extends @Nullable Object> key,
            Map<String, ? extends @Nullable Object> row) {
        String identity = (copy == null ? "" : copy + ": ") + CellText.joined(key, rule.zone());
        Collection<String> columns = rule.delivery().layout().columnNames().isEmpty()
                ? row.keySet()
                : rule.delivery().layout().columnNames();
        var words = columns.stream()
                .filter(column -> !rule.key().contains(column))
                .map(row::get)
                .filter(String.class::isInstance)
                .map(String.class::cast)
                .filter(text -> !text.isBlank())
                .limit(MOST_WORDS)
                .toList();
        return words.isEmpty() ? identity : identity + " (" + String.join(", ", words) + ")";
    }
}
