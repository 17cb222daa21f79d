package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** When a rule is checked, in plain English. */
class ScheduleWordsTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "                                                                        | on demand only",
                "start: 2026-01-05T05:40, recur: FREQ=DAILY                              | every day at 05:40",
                "start: 2026-01-05T05:40, working_days: [3]                              | on working day 3 of each month at 05:40",
                "also: [2026-05-16T10:00]                                                | on 2026-05-16 at 10:00",
                "start: 2026-01-05T05:40, recur: FREQ=DAILY, on_holidays: skip            | every day at 05:40, on working days only",
                "start: 2026-01-05T05:40, recur: FREQ=DAILY, on_holidays: next_working_day, except: [2026-12-24]"
                        + " | every day at 05:40, moved to the next working day, without 1 date",
                "events: [sailings-loaded]                                               | when sailings-loaded is reported",
                "start: 2026-01-05T05:40, recur: FREQ=DAILY, events: [sailings-loaded]"
                        + " | every day at 05:40; when sailings-loaded is reported",
                "after: [crew-hours]                                                     | after each check of crew-hours",
                "after: [{rule: bunkering, on: [no_rows, failed]}]"
                        + " | after a check of bunkering that failed or returned no rows",
                "ready_when: {query: loaded}"
                        + " | on demand only; each once loaded returns a row, asked every 5 minutes for 2 hours",
            })
    void saysEverythingThatBeginsACheck(String schedule, String words) {
        var rule = (RuleDefinition) Document.read("{kind: rule, name: late, owner: Traffic reporting, query: sailings,"
                        + " memory: {key: [sailing]}, schedule: {" + (schedule == null ? "" : schedule) + "}}")
                .definition();
        assertThat(ScheduleWords.of(rule)).isEqualTo(words);
    }
}
