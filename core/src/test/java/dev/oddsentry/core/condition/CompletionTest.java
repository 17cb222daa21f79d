package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.threshold.ThresholdTable;
import dev.oddsentry.core.threshold.Thresholds;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class CompletionTest {
    private static final Thresholds THRESHOLDS =
            Thresholds.of(List.of(new ThresholdTable("late_minutes", "Late", "min", List.of(), List.of())));

    private static List<String> offered(String text) {
        return Completion.at(text, text.length(), Sailings.COLUMNS, THRESHOLDS).options().stream()
                .map(Completion.CompletionOption::text)
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "``                          | delay_min     | between",
                "de                          | delay_min     | reason",
                "delay_min > 15 and rea      | reason        | delay_min",
                "delay_min > th              | threshold('late_minutes') | reason",
                "delay_min > threshold('l    | late_minutes  | reason",
                "status = 'l                 | –             | late_minutes",
                "delay_min                   | >=            | like",
                "reason                      | like          | >=",
                "planned in                  | previous month| reason",
                "planned in last 7           | days          | and",
                "planned older               | than          | and",
                "planned in previous         | month         | minutes",
                "reason is                   | not null      | and",
                "kap                         | \"Kaptein Å\" | reason",
                "cei                         | ceil(         | floor(",
                "case when delay_min > 5     | then          | last 7 days",
                "delay_min @                 | –             | and",
            })
    void offersWhatMayComeNext(String text, String offered, String not) {
        String written =
                text.equals("``") ? "" : text.matches(".*(^|\\s)(de|rea|th|kap|cei)|.*'l|.*@") ? text : text + " ";
        if (offered.equals("–")) assertThat(offered(written)).isEmpty();
        else assertThat(offered(written)).contains(offered).doesNotContain(not);
    }

    @Test
    void aColumnComesWithItsTypeAndAFunctionWithItsSignature() {
        var options = Completion.at("r", 1, Sailings.COLUMNS, THRESHOLDS);
        assertThat(options.from()).isZero();
        assertThat(options.options())
                .contains(new Completion.CompletionOption("reason", "column", "a text"))
                .anySatisfy(option -> {
                    assertThat(option.text()).isEqualTo("round(");
                    assertThat(option.detail()).startsWith("round(number) or round(number, number): to the nearest");
                });
    }

    @Test
    void aGroupOffersAggregatesAndTheRowsColumnsInsideThem() {
        var grouping = new Grouping(Sailings.COLUMNS, new int[] {3}, THRESHOLDS);
        grouping.measure("late", "sum(delay_min)");
        var outside = grouping.complete("", 0).options();
        assertThat(outside)
                .extracting(Completion.CompletionOption::text)
                .contains("late", "status", "usual(", "share(");
        assertThat(outside).extracting(Completion.CompletionOption::text).doesNotContain("delay_min");
        assertThat(grouping.complete("sum(d", 5).options())
                .extracting(Completion.CompletionOption::text)
                .contains("delay_min");
    }

    /** A person who writes a condition word by word finds each next name and word among what is offered. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "delay_min > 15 and reason is null",
                "status in ('sailed', 'lost') or not training",
                "planned in last 7 days and logged not in previous month",
                "planned older than 2 hours and due in next 3 weeks",
                "reason is not null and reason like 'f!%' escape '!'",
                "sailing not matches '^SK' and status not like 'x%'",
                "delay_min between 5 and 10 and fare not between tickets and heads",
                "coalesce(reason, status) = 'fog' and round(fare, 1) >= abs(delay_min)",
                "case when delay_min > 5 then true else training end",
                "case status when 'sailed' then 1 end = heads",
                "due < date '2026-01-01' or logged > timestamp '2026-01-01 10:00' or cutoff < time '10:00'",
                "days_between(due, today()) > 3 and planned < now()",
                "\"Kaptein Å\" <> sailing || 'x'",
                "delay_min > threshold('late_minutes')",
            })
    void theNextWordIsAlwaysAmongWhatIsOffered(String condition) throws ConditionSyntaxException {
        for (Token token : Lexer.tokens(condition)) {
            if (token.kind() != Token.Kind.WORD && token.kind() != Token.Kind.QUOTED_NAME) continue;
            String before = condition.substring(0, token.offset());
            var offered = Completion.at(before, before.length(), Sailings.COLUMNS, THRESHOLDS)
                    .options();
            assertThat(offered)
                    .as(before + "| " + token.seen())
                    .anyMatch(option -> Stream.of(option.text().split("[ (]"))
                            .anyMatch(word ->
                                    word.equals(token.seen()) || option.text().equals(token.seen())));
        }
    }
}
