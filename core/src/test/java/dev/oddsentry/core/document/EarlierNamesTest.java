package dev.oddsentry.core.document;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** An earlier name is refused, and the problem names the present one at its place. */
class EarlierNamesTest {
    private static final String RULE = """
            kind: rule
            name: late-sailings
            owner: Traffic reporting
            query: sailings-lately
            zone: Europe/Oslo
            exceptions: delay_min > 15
            """;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "fire when: exceptions() > 2 | fire when | fire_when",
                "checking: { retries: 2 } | checking | limits",
                "limits: { time limit: 5 minutes } | limits.time limit | time_limit",
                "memory: { key: [a], hold: 2 checks } | memory.hold | open_after",
                "memory: { key: [a], most cleared: 20 % } | memory.most cleared | max_cleared",
                "memory: { key: [a], absence: passed by } | memory.absence | ages_out",
                "memory: { key: [a], report: [eased] } | memory.report | improved",
                "memory: { key: [a], report: [moved away] } | memory.report | moved",
                "memory: { key: [a], first_check: take as known } | memory.first_check | treat_as_known",
                "schedule: { working days: [3] } | schedule.working days | working_days",
                "schedule: { on_holidays: drop } | schedule.on_holidays | skip",
                "schedule: { when_empty: tell } | schedule.when_empty | notify",
                "schedule: { after: [{ rule: x, on: [blank] }] } | schedule.after | no_rows",
                "delivery: { most an hour: 3 } | delivery.most an hour | max_per_hour",
                "delivery: { may leave: true } | delivery.may leave | allow_unsubscribe",
                "delivery: { layout: { columns: [a], besides: [] } } | delivery.layout.besides | extra_columns",
                "delivery: { layout: { columns: [a], extra_columns: [news] } } | delivery.layout.extra_columns | update",
                "delivery: { attach: [{ format: csv, mark: false }] } | delivery.attach | byte_order_mark",
            })
    void earlierNameIsRefusedWithThePresentOne(String line, String place, String present) {
        var refused = catchThrowableOfType(InvalidDefinitionException.class, () -> Document.read(RULE + line + "\n"));
        assertThat(refused.problems()).anySatisfy(problem -> {
            assertThat(problem.suggestion()).isEqualTo(present);
            assertThat(problem.field()).startsWith(place);
            assertThat(problem.place()).isNotNull();
        });
    }
}
