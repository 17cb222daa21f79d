package dev.oddsentry.service.layouts;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.condition.WorseOrder;
import dev.oddsentry.core.definition.LayoutDefinition.Shown;
import dev.oddsentry.core.definition.LayoutDefinition.Sort;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.finding.Severity;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class RowOrderTest {
    /** Name, delay, fuel; of the result they are the columns 0, 3 and 5. */
    private static final List<Integer> SHOWN = List.of(0, 3, 5);

    private static Extract.Row row(@Nullable Severity severity, @Nullable Object... cells) {
        return new Extract.Row(
                severity,
                Set.of(),
                Arrays.stream(cells).map(Extract.Cell::plain).toList());
    }

    private static final List<Extract.Row> ROWS = List.of(
            row(Severity.WARNING, "a", 20L, 5L),
            row(null, "b", 99L, 1L),
            row(Severity.CRITICAL, "c", null, 2L),
            row(Severity.WARNING, "d", new BigDecimal("31.5"), null),
            row(Severity.CRITICAL, "e", 90L, 7L),
            row(Severity.WARNING, "f", 20L, 3L),
            row(Severity.WARNING, "g", 20L, 5L));

    private static String ordered(Comparator<Extract.Row> by) {
        var names = new StringBuilder();
        ROWS.stream()
                .sorted(by)
                .forEach(row -> names.append(row.cells().getFirst().value()));
        return names.toString();
    }

    @Test
    void theWorstSeverityComesFirstThenTheValueFurthestBeyondItsBound() {
        assertThat(ordered(RowOrder.worstFirst(List.of(new WorseOrder(3, true), new WorseOrder(5, false)), SHOWN)))
                .isEqualTo("ecdfagb");
    }

    @Test
    void aColumnThatIsNotShownOrdersNothing() {
        assertThat(ordered(RowOrder.worstFirst(List.of(new WorseOrder(4, true)), SHOWN)))
                .isEqualTo("ceadfgb");
    }

    @Test
    void aLayoutsOrderIsTheOnlyOne() {
        var shown = List.of(Shown.bare("name"), Shown.bare("delay"), Shown.bare("fuel"));
        assertThat(ordered(RowOrder.of(List.of(new Sort("fuel", true), new Sort("name", true)), shown)))
                .isEqualTo("egafcbd");
    }
}
