package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.Collectors;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WorseOrderTest {
    private static String order(String condition) {
        return Condition.read(condition, Sailings.COLUMNS).orThrow().worseOrder().stream()
                .map(each -> Sailings.COLUMNS.at(each.column()).name() + (each.largestFirst() ? " desc" : ""))
                .collect(Collectors.joining(", "));
    }

    @ParameterizedTest(name = "{0}: by {1}")
    @CsvSource(delimiter = '|', emptyValue = "", textBlock = """
            delay_min > 15                                   | delay_min desc
            delay_min >= 15 and reason is null               | delay_min desc
            fare < 10                                        | fare
            15 < delay_min                                   | delay_min desc
            10 >= fare                                       | fare
            not (fare >= 10)                                 | fare
            not (fare < 10 or delay_min <= 15)               | fare desc, delay_min desc
            status = 'cancelled' or delay_min > 15           | delay_min desc
            delay_min > 15 or heads > tickets                | delay_min desc, heads desc
            delay_min > 15 and delay_min < 60                | delay_min desc
            due < date '2026-11-24'                          | due
            reason is null or due older than 0 days or due in next 30 days | due
            not (planned not older than 3 hours)             | planned
            """)
    void theFurtherBeyondTheBoundTheWorse(String condition, String expected) {
        assertThat(order(condition)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({
        "heads <> tickets",
        "status > 'm'",
        "reason is null",
        "delay_min between 3 and 4",
        "heads - tickets > 5",
        "planned in last 7 days",
        "due not in next 3 days"
    })
    void nothingIsWorseWhereNoColumnIsComparedWithABound(String condition) {
        assertThat(order(condition)).isEmpty();
    }
}
