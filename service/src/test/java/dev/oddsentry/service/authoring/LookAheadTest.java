package dev.oddsentry.service.authoring;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.time.WorkingDays;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.service.schedules.Schedules;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LookAheadTest {
    private static final Columns COLUMNS = Columns.of(
            new Column("sailing", Type.TEXT),
            new Column("delay_min", Type.NUMBER),
            new Column("planned", Type.INSTANT),
            new Column("due", Type.DATE));

    private final Schedules schedules = mock();
    private final LookAhead lookAhead =
            new LookAhead(schedules, Clock.fixed(Instant.parse("2026-11-24T12:00:00Z"), ZoneOffset.UTC));

    @BeforeEach
    void schedulesWithoutCalendars() {
        when(schedules.of(any(RuleDefinition.class))).thenAnswer(asked -> {
            RuleDefinition rule = asked.getArgument(0);
            return rule.schedule().in(rule.zone(), null);
        });
        when(schedules.moment(any(), any())).thenAnswer(asked -> {
            RuleDefinition rule = asked.getArgument(0);
            return new Moment(asked.getArgument(1), rule.zone());
        });
    }

    private List<String> warnings(String parameters, String more) {
        var query = (QueryDefinition) Document.read("""
                kind: query
                name: sailings
                source: ferry
                sql: select 1
                parameters: { from: { type: timestamp, default: 2026-01-01T00:00 }, to: { type: timestamp, default: 2026-01-01T00:00 } }
                """).definition();
        var rule =
                (RuleDefinition) Document.read("""
                kind: rule
                name: late
                owner: Traffic reporting
                zone: Europe/Oslo
                query: sailings
                parameters: %s
                %s
                """.formatted(parameters, more)).definition();
        var conditions = CheckedRule.check(rule, COLUMNS, Thresholds.NONE, null).conditions();
        var places =
                Document.read("kind: query\nname: a\nsource: b\nsql: select 1").places();
        return lookAhead.warnings(rule, query, conditions, places).stream()
                .map(Problem::message)
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR | { from: today - 1 day, to: today } | Friday 27 November 2026, 00:00 to Sunday 29 November 2026, 00:00",
                "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR | { from: today - 1 day, to: now }   | Friday 27 November 2026, 05:40 to Sunday 29 November 2026, 00:00",
                "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR | { from: today - 3 days, to: now }  | -",
                "FREQ=DAILY                       | { from: today - 1 day, to: today } | -",
                "FREQ=DAILY                       | { from: now - 8 hours, to: now }   | Wednesday 25 November 2026, 05:40 to Wednesday 25 November 2026, 21:40",
                "FREQ=DAILY                       | { from: now - 30 hours, to: now - 10 hours } | Tuesday 24 November 2026, 19:40 to Tuesday 24 November 2026, 23:40",
                "FREQ=DAILY                       | { to: now }                       | -",
                "FREQ=DAILY                       | { to: today }                     | -",
                "FREQ=DAILY                       | { from: today, to: today + 7 days } | -",
                "FREQ=WEEKLY;BYDAY=MO             | { from: today, to: today + 2 days } | Wednesday 2 December 2026, 00:00 to Monday 7 December 2026, 00:00",
                "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR | { from: last check, to: now }      | -",
            })
    void timeThatNoCheckLooksAtIsSeenBeforeItPasses(String recurrence, String parameters, String unseen) {
        var warnings = warnings(
                parameters,
                "memory: { key: [sailing] }\nschedule: { start: 2026-06-01T05:40, recur: \"" + recurrence + "\" }");
        if (unseen == null) assertThat(warnings).isEmpty();
        else
            assertThat(warnings)
                    .containsExactly(
                            "with this schedule and the dates of the parameters, no check looks at the time from "
                                    + unseen + "; look further back, or check more often");
    }

    /** What lies beyond the calendar's periods is not known, and keeps nobody from saving. */
    @Test
    void periodsThatEndAreLookedAtAsFarAsTheyGo() {
        var known = new WorkingDays(
                WorkingDays.MONDAY_TO_FRIDAY.week(),
                new TreeMap<>(),
                Set.of(),
                new TreeSet<>(List.of(LocalDate.of(2026, 11, 1), LocalDate.of(2026, 12, 1), LocalDate.of(2027, 1, 1))));
        doAnswer(asked -> {
                    RuleDefinition rule = asked.getArgument(0);
                    return new Moment(asked.getArgument(1), rule.zone(), known);
                })
                .when(schedules)
                .moment(any(), any());
        assertThat(warnings(
                        "{ from: start of period, to: now }",
                        "memory: { key: [sailing] }\nschedule: { start: 2026-06-01T05:40, recur: FREQ=DAILY }"))
                .containsExactly("with this schedule and the dates of the parameters, no check looks at the time from"
                        + " Monday 30 November 2026, 05:40 to Tuesday 1 December 2026, 00:00;"
                        + " look further back, or check more often");
    }

    @Test
    void theWindowOfAConditionIsHeldAgainstTheSlotsToo() {
        String weekdays = "schedule: { start: 2026-06-01T05:40, recur: \"FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR\" }\n";
        String key = "memory: { key: [sailing] }\n";
        assertThat(warnings("{}", key + weekdays + "exceptions: delay_min > 15 and planned in last 24 hours"))
                .containsExactly(
                        "with this schedule and the window on planned, no check looks at the time from Friday 27 November 2026, 05:40 to"
                                + " Sunday 29 November 2026, 05:40; look further back, or check more often");
        assertThat(warnings("{}", key + weekdays + "exceptions: due in previous week"))
                .isEmpty();
        assertThat(warnings("{}", key + weekdays + "exceptions: delay_min > 15 or planned in last 24 hours"))
                .isEmpty();
    }

    @Test
    void whatComesBackWithAnotherDateIsWarnedOf() {
        String daily = "schedule: { start: 2026-06-01T05:40, recur: FREQ=DAILY }\nexceptions: due in next 30 days\n";
        assertThat(warnings("{}", daily + "memory: { key: [sailing] }"))
                .containsExactly("a row that was reported, leaves the result and comes back later with another due"
                        + " is not reported again; add due to the key, or report changed");
        assertThat(warnings("{}", daily + "memory: { key: [sailing, due] }")).isEmpty();
        assertThat(warnings("{}", daily + "memory: { key: [sailing], report: [new, changed] }"))
                .isEmpty();
        assertThat(warnings("{}", daily + "memory: { key: [sailing], absence: clears }"))
                .isEmpty();
    }
}
