package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ConditionProblemsTest {

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                // text | line | column | length | part of the message | suggestion
                "delay_min > 15 and resaon is null   | 1 | 20 | 6 | unknown column \"resaon\"; the query returns: sailing | reason",
                "delay_min > 15 adn reason is null   | 1 | 16 | 3 | unexpected \"adn\", expected and, or, or the end | and",
                "delay_min >                         | 1 | 12 | 0 | unexpected end of the text, expected a column, a value or ( |",
                "delay_min > '15'                    | 1 | 13 | 4 | write it without quotes: 15 |",
                "status > 3                          | 1 | 10 | 1 | cannot compare status, a text, with a number |",
                "due > '2026-01-01'                  | 1 | 7 | 12 | write date '2026-01-01' |",
                "planned - due > 3                   | 1 | 17 | 1 | write a unit, such as 15 minutes |",
                "due in last 2 hours                 | 1 | 1 | 3 | a date has no time of day |",
                "delay_min in last 7 days            | 1 | 1 | 9 | a window needs a date or a timestamp |",
                "due in last 7 dayz                  | 1 | 15 | 4 | expected a unit of time |",
                "delay_min                           | 1 | 1 | 9 | a condition is true or not, this is a number |",
                "delay_min and reason is null        | 1 | 1 | 9 | and joins conditions |",
                "1 < delay_min < 3                   | 1 | 15 | 1 | join two comparisons with and |",
                "reason = 'fog                       | 1 | 10 | 4 | this text is not closed |",
                "status = “sailed”                   | 1 | 10 | 1 | straight quotes |",
                "delay_min & 1                       | 1 | 11 | 1 | write and |",
                "(delay_min > 1                      | 1 | 15 | 0 | expected ) |",
                "delay_min > 1)                      | 1 | 14 | 1 | this ) closes nothing |",
                "ruond(delay_min) > 1                | 1 | 1 | 16 | unknown function \"ruond\" | round",
                "round(reason) > 1                   | 1 | 7 | 6 | write round(number) or round(number, number), this is a text |",
                "due < Today                         | 1 | 7 | 5 | is written Today() |",
                "round() > 1                         | 1 | 1 | 7 | this has 0 arguments |",
                "coalesce(delay_min, 'none') = 1     | 1 | 21 | 6 | the others are a number, this is a text |",
                "reason matches '('                  | 1 | 1 | 18 | is not a regular expression |",
                "reason matches fog                  | 1 | 16 | 3 | expected a regular expression in quotes |",
                "reason like 'a' escape 'ab'         | 1 | 24 | 4 | expected one character in quotes |",
                "reason like 'a!' escape '!'         | 1 | 13 | 4 | the pattern ends with its escape |",
                "case when delay_min then 1 end = 1  | 1 | 11 | 9 | when asks for a condition |",
                "case delay_min when 'x' then 1 end = 1 | 1 | 21 | 3 | cannot compare |",
                "delay_min like '1%'                 | 1 | 1 | 9 | like compares texts |",
                "due = date '2026-02-30'             | 1 | 12 | 12 | is not a date; write it like |",
                "delay_min > 1e99999                 | 1 | 13 | 7 | more than 1000 digits |",
                "due + 3 = due                       | 1 | 1 | 7 | write a unit, such as 7 days |",
            })
    void refusalTellsPlaceWordsAndNearestName(
            String text, int line, int column, int length, String message, String suggestion) {
        var problem = Condition.read(text, Sailings.COLUMNS).problems().getFirst();
        assertThat(problem.message()).contains(message);
        assertThat(problem.place()).isNotNull().satisfies(place -> {
            assertThat(place.line()).isEqualTo(line);
            assertThat(place.column()).isEqualTo(column);
            assertThat(place.length()).isEqualTo(length);
        });
        assertThat(problem.suggestion()).isEqualTo(suggestion);
    }

    @Test
    void allProblemsOfATextAreReturnedTogether() {
        var problems = Condition.read("resaon is null\n  and statsu = 3\n  and due > 'x'", Sailings.COLUMNS)
                .problems();
        assertThat(problems).extracting(problem -> problem.place().line()).containsExactly(1, 2, 3);
    }

    @Test
    void comparisonWithNullIsAWarningThatLetsItPass() {
        var reading = Condition.read("reason = null", Sailings.COLUMNS);
        assertThat(reading.condition()).isPresent();
        assertThat(reading.problems()).extracting(Problem::weight).containsExactly(Problem.Weight.WARNING);
    }

    @Test
    void likeWithoutAWildcardIsAWarning() {
        var reading = Condition.read("reason like 'fog'", Sailings.COLUMNS);
        assertThat(reading.condition()).isPresent();
        assertThat(reading.problems())
                .singleElement()
                .extracting(Problem::message)
                .asString()
                .contains("write = instead");
    }

    @Test
    void nestingThatWouldExhaustTheStackIsRefused() {
        String deep = "(".repeat(5_000) + "training" + ")".repeat(5_000);
        assertThat(Condition.read(deep, Sailings.COLUMNS).problems().getFirst().message())
                .contains("nested more than");
        assertThat(Condition.read("not ".repeat(5_000) + "training", Sailings.COLUMNS)
                        .problems()
                        .getFirst()
                        .message())
                .contains("nested more than");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "delay_min > 15 and delay_min < 10         | this is never true together with the earlier condition on delay_min at 20",
                "delay_min between 10 and 5                | this is never true at 1",
                "delay_min > 15 and delay_min is null      | this is never true together with delay_min > 15, which is unknown where delay_min is missing at 20",
                "status <> 'sailed' or status <> 'lost'    | one of two conditions is always true: this or status <> 'sailed'; was and meant? at 23",
                "delay_min > 5 or delay_min < 20           | one of two conditions is always true: this or delay_min > 5; was and meant? at 18",
                "status = 'sailed' and status = 'lost'     | this is never true together with the earlier condition on status at 23",
                "1 = 2 or delay_min > 5                    | this is never true at 1",
                "length(status) >= 0                       | this is always true, unless length(status) is missing at 1",
                "abs(fare) < 0                             | this is never true at 1",
                "heads / tickets = 0.5                     | a quotient is hardly ever exactly equal to anything; round it, or compare with a distance at 1",
                "round(heads / tickets, 2) = 0.5           | ",
                "delay_min > 5 and delay_min < 20          | ",
                "delay_min > 5 or delay_min < 4            | ",
                "status <> 'sailed' and status <> 'lost'   | ",
                "due > date '2026-01-01' and due < date '2025-12-31' | this is never true together with the earlier condition on due at 29",
            })
    void whatCanNeverHoldOrAlwaysDoesIsWarnedOf(String condition, String warning) {
        var reading = Condition.read(condition, Sailings.COLUMNS);
        assertThat(reading.condition()).isPresent();
        var said = reading.problems().stream()
                .map(problem -> problem.message() + " at " + problem.place().column())
                .toList();
        if (warning == null) assertThat(said).isEmpty();
        else assertThat(said).containsExactly(warning);
    }

    @Test
    void rowsOfWhichNobodyCanTellCanBeCountedToo() {
        var condition = Condition.read("delay_min > 15 and (status = 'a' or heads > 3)", Sailings.COLUMNS)
                .orThrow();
        assertThat(condition.countingMissing(0, "delay_min"))
                .contains("(delay_min > 15 or delay_min is null) and (status = 'a' or heads > 3)");
        assertThat(condition.countingMissing(1, "Kaptein Å"))
                .contains("delay_min > 15 and (status = 'a' or heads > 3 or \"Kaptein Å\" is null)");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "status is null                         | coalesce(trim(status), '') = ''",
                "delay_min > 15 and status is not null  | delay_min > 15 and coalesce(trim(status), '') <> ''",
                "not (status is null or heads > 3)      | not (coalesce(trim(status), '') = '' or heads > 3)",
                "\"Kaptein Å\" is null                   | coalesce(trim(\"Kaptein Å\"), '') = ''",
            })
    void whereATextIsAskedForBeingMissingAnEmptyOneCanBeAskedForToo(String condition, String instead) {
        var asked = Condition.read(condition, Sailings.COLUMNS).orThrow().missingTexts(Sailings.COLUMNS);
        assertThat(asked).extracting(EmptyTexts.Asked::instead).containsExactly(instead);
    }

    @Test
    void onlyColumnsOfTextAreEmpty() {
        var condition = Condition.read("delay_min is null or lower(status) is null", Sailings.COLUMNS)
                .orThrow();
        assertThat(condition.missingTexts(Sailings.COLUMNS)).isEmpty();
    }

    @Test
    void veryLongListOfAlternativesIsReadAndEvaluated() {
        String alternatives =
                IntStream.range(0, 20_000).mapToObj(i -> "delay_min = " + i).collect(Collectors.joining(" or "));
        var reading = Condition.read(alternatives, Sailings.COLUMNS);
        assertThat(reading.problems()).isEmpty();
        String texts =
                IntStream.range(0, 20_000).mapToObj(i -> "'SK-" + i + "'").collect(Collectors.joining(", "));
        var evaluator = Condition.read("sailing in (" + texts + ")", Sailings.COLUMNS)
                .orThrow()
                .at(new Moment(Instant.EPOCH, ZoneOffset.UTC));
        assertThat(evaluator.evaluate(Sailings.row())).isEqualTo(Verdict.TRUE);
    }
}
