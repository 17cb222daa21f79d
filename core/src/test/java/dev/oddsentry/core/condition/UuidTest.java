package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.time.Instant;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A uuid is equal to itself in whatever letters it is written; other texts are not. */
class UuidTest {
    private static final String ID = "1b9d6bcd-bbfd-4b2d-9b5d-ab8dfbbd4bed";
    private static final String CAPITALS = "1B9D6BCD-BBFD-4B2D-9B5D-AB8DFBBD4BED";
    private static final Moment SLOT = new Moment(Instant.parse("2026-11-24T04:40:00Z"), ZoneOffset.UTC);
    private static final Columns COLUMNS = Columns.of(
            new Column("id", Type.TEXT, Column.Nature.UUID),
            new Column("entered", Type.TEXT),
            new Column("word", Type.TEXT));

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "id = '1B9D6BCD-BBFD-4B2D-9B5D-AB8DFBBD4BED'            | TRUE",
                "'1b9d6bcd-BBFD-4b2d-9b5d-ab8dfbbd4bed' = id            | TRUE",
                "id <> '1B9D6BCD-BBFD-4B2D-9B5D-AB8DFBBD4BED'           | FALSE",
                "id in ('x', '1B9D6BCD-BBFD-4B2D-9B5D-AB8DFBBD4BED')    | TRUE",
                "id not in ('1B9D6BCD-BBFD-4B2D-9B5D-AB8DFBBD4BED')     | FALSE",
                "id in (entered, 'x')                                   | TRUE",
                "id = entered                                           | TRUE",
                "entered in (id)                                        | TRUE",
                "id = '1b9d6bcd-bbfd-4b2d-9b5d-ab8dfbbd4bee'            | FALSE",
                "id between '1B9D' and '1BA0'                           | TRUE",
                "id = null                                              | UNKNOWN",
                "word = 'HOLM'                                          | FALSE",
                "word in ('HOLM')                                       | FALSE",
                "id = upper(id)                                         | TRUE",
            })
    void isComparedWithoutRegardToCase(String condition, Verdict verdict) {
        var evaluator = Condition.read(condition, COLUMNS).orThrow().at(SLOT);
        assertThat(evaluator.evaluate(new Object[] {ID, CAPITALS, "Holm"})).isEqualTo(verdict);
    }

    @Test
    void aMissingOneIsUnknownAsAnyOther() {
        var evaluator =
                Condition.read("id = '" + CAPITALS + "'", COLUMNS).orThrow().at(SLOT);
        assertThat(evaluator.evaluate(new Object[] {null, CAPITALS, "Holm"})).isEqualTo(Verdict.UNKNOWN);
    }

    @Test
    void itIsSoughtAmongTheRowsAsTheyHaveIt() {
        var compared =
                Condition.read("id = '" + CAPITALS + "'", COLUMNS).orThrow().comparedTexts();
        assertThat(compared).extracting(Condition.ComparedText::text).containsExactly(ID);
    }

    @Test
    void aGroupOfOneIsFoundInAnyCase() {
        var grouping = new Grouping(COLUMNS, new int[] {0}, Thresholds.NONE);
        var evaluator = grouping.condition("id = '" + CAPITALS + "' and count() > 0")
                .orThrow()
                .at(SLOT);
        var row = new Object[grouping.columns().size()];
        row[0] = ID;
        row[1] = 3L;
        assertThat(evaluator.evaluate(row)).isEqualTo(Verdict.TRUE);
    }
}
