package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.time.Moment;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ConditionTest {
    /** Tuesday 05:40 in Oslo. */
    private static final Moment SLOT = new Moment(Instant.parse("2026-11-24T04:40:00Z"), ZoneId.of("Europe/Oslo"));

    private static RowEvaluator evaluate(String condition) {
        return Condition.read(condition, Sailings.COLUMNS).orThrow().at(SLOT);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "delay_min > 15 and reason is null",
                "delay_min between 22 and 22",
                "DELAY_MIN = 22.0",
                "fare = 12.5",
                "1 / 3 * 3 <> 1 and 1 / 4 = 0.25",
                "7 / 2 = 3.5",
                "heads + 1 = 8 and heads - 10 < 0 and heads * 2 = 14 and -heads = 0 - 7",
                "9223372036854775807 + 1 = 9223372036854775808",
                "status in ('sailed', 'cancelled') and status not in ('cancelled')",
                "status <> 'Sailed'",
                "status in ('x', 'sailed', null) and (status in ('x', null)) is null and (status not in ('x', null)) is null",
                "(reason in ('a', 'b')) is null and (reason not in ('a', 'b')) is null",
                "sailing in ('SK-412', 'SK-412') and 'x' in ('x') and delay_min in (21, 22.00)",
                "not training",
                "sailing || '!' = 'SK-412!'",
                "\"Kaptein Å\" = 'Åse 😀'",
                "tickets <> 0 and heads / tickets < 0.5 or heads = 7",
                "tickets = 0 or heads / tickets > 1",
                "reason is null or reason = 'fog'",
                "(reason = 'fog') is null",
                "(planned = null) is null and (null < planned) is null",
                "planned in last 7 days",
                "planned not in last 6 hours",
                "planned in this week and planned not in previous week",
                "planned older than 11 hours 34 minutes",
                "planned not older than 11 hours 36 minutes",
                "due in last 7 days",
                "due not in last 6 days",
                "due in previous week",
                "due in this month and due in this quarter and due in this year",
                "logged in last 1 day",
                "logged = planned",
                "due < planned and due = date '2026-11-17'",
                "planned - due > 6 days",
                "due = today() - 7 days and planned < now() and days_between(due, today()) = 7 and days_between(due, now()) = 7",
                "due + 6 days = date '2026-11-23'",
                "due + 6 days 18 hours 5 minutes = logged",
                "cutoff > time '18:00' -- after the rush",
                "'😀' > 'ﬀ'",
                "logged = timestamp '2026-11-23 18:05'",
                "sailing like 'SK-%' and sailing not like '%-4_' and sailing like 'SK-4__'",
                "\"Kaptein Å\" like 'Åse _' and 'a%b' like 'a!%b' escape '!' and 'a\\' like 'a\\'",
                "sailing matches '^SK-[0-9]+$' and sailing not matches 'fog'",
                "coalesce(reason, status, 'none') = 'sailed' and nullif(tickets, 0) is null",
                "round(2.5) = 3 and round(-2.5) = -3 and round(2.345, 2) = 2.35 and round(1250, -2) = 1300",
                "floor(-1.5) = -2 and ceil(-1.5) = -1 and abs(-7) = 7 and div(-7, 2) = -3 and mod(-7, 2) = -1",
                "lower(sailing) = 'sk-412' and upper(status) = 'SAILED' and trim('  x ') = 'x' and length(\"Kaptein Å\") = 5",
                "number(' 12.50 ') = fare",
                "days_between(due, planned) = 6 and minutes_between(planned, logged) = 0 and hours_between(due, logged) > 162",
                "case when delay_min > 20 then 'late' else 'fine' end = 'late' and case status when 'sailed' then 1 end = 1",
                "case when tickets = 0 then true else heads / tickets > 1 end",
            })
    void holdsForTheRow(String condition) {
        assertThat(evaluate(condition).evaluate(Sailings.row())).isEqualTo(Verdict.TRUE);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "reason = 'fog'",
                "reason <> 'fog'",
                "not (reason = 'fog')",
                "reason in ('fog', 'wind')",
                "status not in ('cancelled', reason)",
                "delay_min > 15 and reason = 'fog'",
                "delay_min < 15 or reason = 'fog'",
                "drift > 1",
                "drift = drift",
                "delay_min + drift > 0",
                "delay_min = null",
                "1 month = 30 days",
                "reason like '%'",
                "sailing like reason",
                "reason matches 'x'",
                "case when reason = 'fog' then true end",
                "length(reason) > 0",
                "round(drift) = 1",
            })
    void isUnknownForTheRow(String condition) {
        assertThat(evaluate(condition).evaluate(Sailings.row())).isEqualTo(Verdict.UNKNOWN);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "delay_min > 22",
                "reason = 'fog' and delay_min < 15",
                "due in next 30 days",
                "planned in next 1 hour",
                "due in last 0 days"
            })
    void doesNotHoldForTheRow(String condition) {
        assertThat(evaluate(condition).evaluate(Sailings.row())).isEqualTo(Verdict.FALSE);
    }

    @Test
    void aFailureOnARowNamesThePlaceAndIsNeverQuiet() {
        assertThatThrownBy(
                        () -> evaluate("delay_min > 1 and heads / tickets > 2").evaluate(Sailings.row()))
                .isInstanceOf(RowFailureException.class)
                .hasMessage("division by zero in heads / tickets")
                .extracting(e -> ((RowFailureException) e).place().column())
                .isEqualTo(19);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "number(status) > 1; 'sailed' is not a number in number(status)",
                "mod(heads, tickets) > 1; division by zero in mod(heads, tickets)",
                "status like status || '!' escape '!'; the pattern ends with its escape",
            })
    void functionsFailWithWords(String condition, String message) {
        assertThatThrownBy(() -> evaluate(condition).evaluate(Sailings.row()))
                .isInstanceOf(RowFailureException.class)
                .hasMessageContaining(message);
    }

    @Test
    void infiniteMomentsSortAtTheEndsAndArithmeticOnThemIsUnknown() {
        Object[] row = Sailings.row();
        row[9] = LocalDate.MAX;
        row[8] = LocalDateTime.MIN;
        row[7] = Instant.MAX;
        assertThat(evaluate("due > date '9999-12-31' and due = planned and logged < due")
                        .evaluate(row))
                .isEqualTo(Verdict.TRUE);
        assertThat(evaluate("due - date '2026-01-01' > 1 day").evaluate(row)).isEqualTo(Verdict.UNKNOWN);
        assertThat(evaluate("planned - 7 days > date '2026-01-01'").evaluate(row))
                .isEqualTo(Verdict.UNKNOWN);
    }

    @Test
    void tellsRowsLeftAfterEachPartAndWhereItIsUnknown() {
        var evaluator = evaluate("delay_min > 15 and reason is null and status not in ('cancelled')");
        Object[] withoutStatus = Sailings.row();
        withoutStatus[3] = null;
        Object[] onTime = Sailings.row();
        onTime[1] = 3L;
        Object[] withoutDelayButWithReason = Sailings.row();
        withoutDelayButWithReason[1] = null;
        withoutDelayButWithReason[2] = "fog";
        for (Object[] row : List.of(Sailings.row(), withoutStatus, onTime, withoutDelayButWithReason))
            evaluator.evaluate(row);
        assertThat(evaluator.unknownRows()).isEqualTo(1);
        assertThat(evaluator.tally())
                .containsExactly(
                        new RowEvaluator.PartTally("delay_min > 15", 2, 0, Map.of()),
                        new RowEvaluator.PartTally("reason is null", 2, 0, Map.of()),
                        new RowEvaluator.PartTally("status not in ('cancelled')", 1, 1, Map.of(3, 1L)));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "delay_min > 15 and reason is null           | 1,2",
                "delay_min > 99 or heads <> tickets          | 4,5",
                "not (delay_min < 15 or status = 'sailing')  | 1",
                "delay_min > 15 and status not in ('x', 'y') | 1",
                "delay_min > 15 and not status in ('x', 'y') | 1",
                "delay_min > 15 and status <> 'x'            | 1",
                "delay_min > 15 and status is not null       | 1",
                "delay_min > 15 and not (reason is not null) | 1,2",
                "delay_min > 15 and status not like 'x%'     | 1",
                "status <> 'x' and status is not null        | 3",
                "not training                                | 11",
                "(delay_min > 99 and reason is null) or heads <> tickets      | 4,5",
                "not (delay_min < 15 and reason is null) and heads <> tickets | 1,4,5",
                "heads <> tickets or delay_min / (delay_min - delay_min) > 1  | 4,5",
            })
    void marksTheCellsThatMadeTheRowAnException(String condition, String columns) {
        var expected =
                List.of(columns.split(",")).stream().map(Integer::valueOf).toList();
        assertThat(evaluate(condition).marks(Sailings.row())).containsExactlyInAnyOrderElementsOf(expected);
    }

    @Test
    void windowsKeepTheLocalTimeAcrossAClockChange() {
        // Clocks in Oslo went back on 25 October 2026: one day before 26 October 02:30 is 25 hours before it.
        var moment = new Moment(Instant.parse("2026-10-26T01:30:00Z"), ZoneId.of("Europe/Oslo"));
        var evaluator = Condition.read("planned in last 1 day", Sailings.COLUMNS)
                .orThrow()
                .at(moment);
        Object[] row = Sailings.row();
        row[7] = Instant.parse("2026-10-25T00:30:00Z");
        assertThat(evaluator.evaluate(row)).isEqualTo(Verdict.TRUE);
        row[7] = Instant.parse("2026-10-25T00:29:59Z");
        assertThat(evaluator.evaluate(row)).isEqualTo(Verdict.FALSE);
        row[7] = moment.slot();
        assertThat(evaluator.evaluate(row)).as("the window is half-open").isEqualTo(Verdict.FALSE);
    }

    @Test
    void todayAndNowAreTheSlotsInTheRulesZone() {
        // In Oslo it is already the 24th.
        var moment = new Moment(Instant.parse("2026-11-23T23:30:00Z"), ZoneId.of("Europe/Oslo"));
        var condition = Condition.read(
                        "today() = date '2026-11-24' and now() = timestamp '2026-11-24 00:30' and planned < now() - 1 hour",
                        Sailings.COLUMNS)
                .orThrow();
        assertThat(condition.isRelative()).isTrue();
        assertThat(condition.at(moment).evaluate(Sailings.row())).isEqualTo(Verdict.TRUE);
    }
}
