package dev.oddsentry.core.evaluation;

import dev.oddsentry.core.condition.Condition.ComparedText;
import dev.oddsentry.core.condition.EmptyTexts;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.value.Columns;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Watches the rows of a preview for the texts that its conditions compare columns with, to warn of those that no row has, and for empty texts
 * where a condition asks for missing ones.
 */
public final class SeenTexts {
    /** Of a column, to find what may have been meant. */
    private static final int MOST_KEPT = 200;

    private final Columns columns;
    private final List<Watched> watched;
    private final boolean[] seen;
    private final List<EmptyTexts.Asked> asked;
    private final long[] empty;
    private final Map<Integer, TreeSet<String>> others = new HashMap<>();
    private long rows;

    record Watched(String field, ComparedText compared) {}

    /**
     * Rows whose text is empty where the condition asks whether it is missing.
     *
     * @param instead the whole condition, asking for those as well
     */
    public record Empty(String column, long rows, String instead) {}

    /** @param asked of the exceptions' condition */
    SeenTexts(Columns columns, List<Watched> watched, List<EmptyTexts.Asked> asked) {
        this.columns = columns;
        this.watched = watched;
        this.asked = asked;
        this.empty = new long[asked.size()];
        this.seen = new boolean[watched.size()];
        watched.forEach(each -> others.put(each.compared().column(), new TreeSet<>()));
    }

    public void see(@Nullable Object[] row) {
        rows++;
        for (int i = 0; i < empty.length; i++) {
            if (row[asked.get(i).column()] instanceof String text && isBlank(text)) empty[i]++;
        }
        for (int i = 0; i < seen.length; i++) {
            var compared = watched.get(i).compared();
            if (!(row[compared.column()] instanceof String text)) continue;
            if (text.equals(compared.text())) seen[i] = true;
            var kept = others.get(compared.column());
            if (kept != null && kept.size() < MOST_KEPT) kept.add(text);
        }
    }

    /** As {@code trim} sees it, which knows only spaces. */
    private static boolean isBlank(String text) {
        return text.chars().allMatch(character -> character == ' ');
    }

    /** Where a row had an empty text, and the condition asks only for missing ones. */
    public List<Empty> emptyTexts() {
        return IntStream.range(0, empty.length)
                .filter(i -> empty[i] > 0)
                .mapToObj(i -> new Empty(
                        columns.at(asked.get(i).column()).name(),
                        empty[i],
                        asked.get(i).instead()))
                .toList();
    }

    /** A warning for each text that no row had; none where there was no row to have it. */
    public List<Problem> warnings() {
        var warnings = new ArrayList<Problem>();
        if (rows == 0) return warnings;
        for (int i = 0; i < seen.length; i++) {
            if (seen[i]) continue;
            var compared = watched.get(i).compared();
            String message = "no row read has the text '" + compared.text() + "' in "
                    + columns.at(compared.column()).name();
            var known = others.getOrDefault(compared.column(), new TreeSet<>());
            warnings.add(new Problem(
                    Problem.Weight.WARNING,
                    message,
                    watched.get(i).field(),
                    compared.place(),
                    Nearest.to(compared.text(), known).orElse(null)));
        }
        return warnings;
    }
}
