package dev.oddsentry.service.thresholds;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.service.thresholds.ThresholdStore.NewValue;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ThresholdCsvTest {
    private static final List<String> ROUTE = List.of("route");

    private static List<NewValue> read(String text) {
        return ThresholdCsv.read(text, ROUTE);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "route,from,number\nHolm – Vik,2026-06-01,95.5\n,,112\n",
                "\uFEFFroute,from,number\r\nHolm – Vik,2026-06-01,95.5\r\n,,112",
                "route\tfrom\tnumber\nHolm – Vik\t2026-06-01\t95,5\n\t\t112",
                "route;from;number\nHolm – Vik;2026-06-01;95,5\n;;112",
                "number;route;from\n95,5;\" Holm – Vik \";2026-06-01\n112;;",
            })
    void commasTabsAndSemicolonsAreReadAndColumnsInAnyOrder(String text) {
        assertThat(read(text))
                .containsExactly(
                        new NewValue(List.of("Holm – Vik"), LocalDate.of(2026, 6, 1), new BigDecimal("95.5")),
                        new NewValue(List.of(), null, new BigDecimal("112")));
    }

    @Test
    void withoutADateAValueIsFromAlways() {
        assertThat(read("route,number\nHolm – Vik,95"))
                .singleElement()
                .extracting(NewValue::from)
                .isNull();
        assertThat(ThresholdCsv.read("number\n15", List.of())).hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "route,number | the table has no values",
                "route,value*Holm,9 | the table has no column \"number\"",
                "route,number,why*Holm,9,so | unknown column \"why\"",
                "route,number*Holm,nine | line 2",
                "route,number*Holm,1e9 | line 2",
                "route,from,number*Holm,May,9 | \"May\" is not a date",
                "route,number*Holm,9*Holm,8 | an earlier line has a value",
            })
    void whatCannotBeReadIsSaidWithItsLine(String text, String words) {
        String table = text.replace("*", "\n");
        var refused = catchThrowableOfType(InvalidDefinitionException.class, () -> read(table));
        assertThat(refused.problems())
                .anySatisfy(problem ->
                        assertThat(problem.field() + " " + problem.message()).contains(words));
    }

    @Test
    void everyWrongLineIsNamedAtOnce() {
        var refused = catchThrowableOfType(
                InvalidDefinitionException.class, () -> read("route,from,number\nA,May,9\nB,,nine\nC,,8"));
        assertThat(refused.problems()).extracting("field").containsExactly("line 2", "line 3");
    }

    @Test
    void aPartOfAKeyIsNoKey() {
        assertThatThrownBy(() -> ThresholdCsv.read("route,vessel,number\nHolm – Vik,,9", List.of("route", "vessel")))
                .hasMessageContaining("only a part of the key");
    }
}
