package dev.oddsentry.core.evaluation;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.threshold.ThresholdTable;
import dev.oddsentry.core.threshold.ThresholdTable.Value;
import dev.oddsentry.core.threshold.Thresholds;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RuleLabelsTest {
    private static final LocalDate DATE = LocalDate.parse("2026-06-01");
    private static final Thresholds THRESHOLDS = Thresholds.of(List.of(
            new ThresholdTable(
                    "late_minutes",
                    "Late minutes",
                    "min",
                    List.of(),
                    List.of(
                            new Value(List.of(), null, BigDecimal.valueOf(15)),
                            new Value(List.of(), DATE, BigDecimal.valueOf(20)),
                            new Value(List.of(), DATE.plusDays(1), BigDecimal.valueOf(30)))),
            new ThresholdTable("by_route", "Poor load", "%", List.of("route"), List.of()),
            new ThresholdTable("unset", "Nothing yet", null, List.of(), List.of())));
    private static final QueryDefinition QUERY =
            (QueryDefinition) Document.read("""
            kind: query
            name: sailings
            source: ferry
            sql: select 1
            columns:
              delay_min: { label: Late by, unit: min }
              vessel: { label: Vessel }
              route: { label: "" }
              engine: { label: Engine }
            """).definition();

    private static RuleLabels labels(String groups) {
        var rule = (RuleDefinition) Document.read("kind: rule\nname: late\nowner: Traffic reporting\nquery: sailings\n"
                        + (groups.isEmpty() ? "memory: { key: [vessel] }" : groups))
                .definition();
        return new RuleLabels(rule.groups(), QUERY, THRESHOLDS, DATE);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "                              | delay_min > 15 | each row that matches: late by more than 15 min",
                "                              |                | each row",
                "per: [vessel]                 |                | each vessel",
                "per: [vessel, engine]         |                | each vessel and engine",
                "per: [home_port]              |                | each home_port",
                "per: []                       |                | the whole result",
                "per: []                       | count() = 0    | the whole result, if it matches: the number of rows is 0",
            })
    void whatIsAnExceptionIsSaidInASentence(String groups, String condition, String sentence) {
        assertThat(labels(groups == null ? "" : groups).exceptions(condition)).isEqualTo(sentence);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "              |                | the query returned rows",
                "per: [vessel] |                | the query returned groups",
                "              | delay_min > 15 | rows match the condition: late by more than 15 min",
                "per: [vessel] | count() = 0    | a vessel matches the condition: the number of rows is 0",
                "per: [engine] | count() = 0    | an engine matches the condition: the number of rows is 0",
                "per: []       | count() = 0    | the result as a whole matches the condition: the number of rows is 0",
            })
    void whyAMessageWasSentIsAClause(String groups, String condition, String clause) {
        assertThat(labels(groups == null ? "" : groups).because(condition, Language.EN))
                .isEqualTo(clause);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "DE | delay_min > threshold('late_minutes') | Late by ist größer als 20 min (Schwellenwert Late minutes)",
                "NB | delay_min > threshold('unset')        | late by er over terskelen Nothing yet (uten verdi)",
                "DE |                                       | –",
            })
    void whyAMessageWasSentIsTheConditionAloneInOtherLanguages(Language language, String condition, String words) {
        assertThat(labels("").because(condition, language)).isEqualTo(words);
    }

    @ParameterizedTest
    @CsvSource({
        "late_minutes, 20 min (threshold Late minutes)",
        "by_route,     the threshold Poor load",
        "unset,        the threshold Nothing yet (no value)",
        "gone,         the threshold gone",
    })
    void thresholdIsShownWithTheValueOfTheDate(String name, String words) {
        assertThat(labels("").threshold(name, Locale.ENGLISH)).isEqualTo(words);
    }

    @Test
    void measuresHaveTheirOwnLabelsAndColumnsThoseOfTheQuery() {
        var labels = labels(
                "per: [vessel]\nmeasures: { fuel_used: sum(delay_min), top: { value: max(delay_min), label: Worst, unit: h } }");
        assertThat(labels.column("fuel_used").text()).isEqualTo("fuel used");
        assertThat(labels.column("top").text()).isEqualTo("Worst");
        assertThat(labels.column("top").unit()).isEqualTo("h");
        assertThat(labels.column("delay_min").unit()).isEqualTo("min");
        assertThat(labels.column("sum(delay_min)").text())
                .doesNotStartWith("the ")
                .matches("\\p{Lu}.*");
        assertThat(labels.meaning("fuel_used").label()).isEqualTo("fuel_used");
        assertThat(labels.meaning("delay_min").label()).isEqualTo("Late by");
    }

    @Test
    void anEmptyLabelIsNoLabel() {
        assertThat(labels("per: [route]").because("count() = 0", Language.EN))
                .startsWith("a route matches the condition");
        var measured =
                labels("per: [route]\nmeasures: { delay_sum: { value: sum(delay_min), label: ' ', unit: min } }");
        assertThat(measured.column("delay_sum").text()).isEqualTo("delay sum");
    }
}
