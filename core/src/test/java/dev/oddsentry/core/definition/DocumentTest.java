package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class DocumentTest {
    private static final String RULE = """
            kind: rule
            name: late-sailings
            title: Late sailings without a reason
            owner: Traffic reporting
            query: sailings-lately
            zone: Europe/Oslo
            parameters:
              since: today - 7 days
            exceptions: >
              delay_min > 15
              and reason is null
            severity:
              - critical: delay_min >= 45
              - warning
            memory:
              key: [sailing_id]
              report: [new, cleared]
              absence: ages_out
            schedule:
              start: 2026-01-05T05:40
              recur: FREQ=WEEKLY;BYDAY=MO
            delivery:
              to: [ines.holm@skerryline.example]
            """;

    private static List<Problem> problems(String text) {
        try {
            Document.read(text);
            return List.of();
        } catch (InvalidDefinitionException refused) {
            return refused.problems();
        }
    }

    @Test
    void readsARule() {
        var rule = (RuleDefinition) Document.read(RULE).definition();
        assertThat(rule.exceptions()).isEqualTo("delay_min > 15 and reason is null\n");
        assertThat(rule.severity())
                .containsExactly(
                        new RuleDefinition.SeverityLevel(Severity.CRITICAL, "delay_min >= 45"),
                        new RuleDefinition.SeverityLevel(Severity.WARNING, null));
        assertThat(rule.memory().report()).containsExactly(UpdateKind.NEW, UpdateKind.CLEARED);
        assertThat(rule.memory().mode()).isEqualTo(RuleDefinition.Mode.INCREMENTAL);
    }

    @Test
    void readingWhatPrintingPrintedGivesTheSameDefinition() {
        var rule = Document.read(RULE).definition().withId("6ec0bd7f-11c0-43da-975e-2a8ad9ebae0b");
        assertThat(Document.read(Document.print(rule)).definition()).isEqualTo(rule);
        var query = Document.read("""
                {kind: query, name: q, source: ferry, sql: "select 1 as \\"A b\\" where :since > now()",
                 parameters: {since: {type: instant, default: today}}, columns: {"A b": {label: One, unit: kr}}}
                """).definition();
        assertThat(Document.read(Document.print(query)).definition()).isEqualTo(query);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                // replace | by | line | column | message | suggestion
                "kind: rule          | kind: ruel             | 1  | 7  | is not a kind of definition | rule",
                "zone: Europe/Oslo   | zone: Europe/Olso      | 6  | 7  | is not a time zone |",
                "and reason is null  | and reason iss null    | 11 | 14 | unexpected \"iss\" | is",
                "delay_min >= 45     | delay_min => 45        | 13 | 26 | unexpected |",
                "key: [sailing_id]   | keys: [sailing_id]     | 16 | 3  | unknown field \"keys\" in memory | key",
                "report: [new, cleared] | report: [new, clear] | 17 | 17 | unknown value \"clear\"; use new, returned, worsened, improved, changed, cleared | cleared",
                "absence: ages_out  | absence: gone          | 18 | 12 | unknown value \"gone\"; use clears, ages_out, stays_open |",
                "recur: FREQ=WEEKLY;BYDAY=MO | recur: weekly  | 21 | 10 | unknown rule part |",
                "start: 2026-01-05T05:40 | start: monday      | 20 | 10 | not a local date and time |",
                "to: [ines.holm@skerryline.example] | to: [ines.holm] | 23 | 8 | is not a mail address |",
                "to: [ines.holm@skerryline.example] | to: [team: Traffic] | 23 | 8 | needs quotation marks: \"team: Traffic\" |",
                "name: late-sailings | name: Late Sailings    | 2  | 7  | lower-case letters |",
                "owner: Traffic reporting | oner: x           | 4  | 1  | unknown field \"oner\" | owner",
            })
    void aProblemTellsItsPlaceInTheDocument(
            String replaced, String by, int line, int column, String message, String suggestion) {
        assertThat(problems(RULE.replace(replaced, by))).anySatisfy(problem -> {
            assertThat(problem.message()).contains(message);
            assertThat(problem.place()).isNotNull();
            assertThat(problem.place().line()).isEqualTo(line);
            assertThat(problem.place().column()).isEqualTo(column);
            assertThat(problem.suggestion()).isEqualTo(suggestion);
        });
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "just words",
                "[1, 2]",
                "kind: [",
                "a: &x {b: *x}",
                "kind: rule\nkind: rule\n",
                "\u0000",
                "kind: rule\n\tname: x"
            })
    void whatIsNoDocumentIsRefusedWithWords(String text) {
        assertThat(problems(text))
                .isNotEmpty()
                .allSatisfy(problem -> assertThat(problem.message()).isNotBlank());
    }

    @Test
    void missingColumnIsRefusedAtItsPlaceInTheDocument() {
        var document = Document.read(RULE);
        var columns = Columns.of(
                new Column("sailing_id", Type.NUMBER),
                new Column("delay_min", Type.NUMBER),
                new Column("resaon", Type.TEXT));
        assertThatThrownBy(() -> CheckedRule.check(
                        (RuleDefinition) document.definition(), columns, Thresholds.NONE, document.places()))
                .isInstanceOfSatisfying(InvalidDefinitionException.class, refused -> {
                    var problem = refused.problems().getFirst();
                    assertThat(problem.field()).isEqualTo("exceptions");
                    assertThat(problem.place().line()).isEqualTo(11);
                    assertThat(problem.place().column()).isEqualTo(7);
                    assertThat(problem.suggestion()).isEqualTo("resaon");
                });
    }
}
