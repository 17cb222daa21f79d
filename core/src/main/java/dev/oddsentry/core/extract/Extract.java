package dev.oddsentry.core.extract;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.value.Type;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The rows that go to people, chosen and ordered, before any format.
 *
 * @param zone where instants are shown
 * @param rows worst first
 */
public record Extract(ZoneId zone, List<Column> columns, List<Row> rows) {

    /** @param unit shown behind values, such as {@code min} */
    public record Column(
            String name, String label, @Nullable String unit, Type type) {}

    /** @param kinds why it is told; empty where it only stands in the list of what is open */
    public record Row(Severity severity, Set<NewsKind> kinds, List<Cell> cells) {}

    /**
     * @param marked whether it made the row an exception
     * @param was what was last reported where it differs now; null otherwise
     */
    public record Cell(
            @Nullable Object value,
            boolean marked,
            @Nullable Object was) {

        public static Cell plain(@Nullable Object value) {
            return new Cell(value, false, null);
        }
    }
}
