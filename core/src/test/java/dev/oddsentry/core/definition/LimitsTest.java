package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.InstanceOfAssertFactories.type;

import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.schedule.CalendarFile;
import dev.oddsentry.core.schedule.Recurrence;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What multiplies is refused in words before it costs anything. */
class LimitsTest {

    private static String problems(String document) {
        try {
            Document.read(document);
            return "";
        } catch (InvalidDefinitionException refused) {
            return refused.problems().size() + " " + refused.getMessage();
        }
    }

    @Test
    void documentOfTooManyValuesOrTooDeepIsRefusedAsAWhole() {
        String addresses =
                IntStream.range(0, 40_000).mapToObj(i -> "a" + i + "@b.example").collect(Collectors.joining(", "));
        assertThat(problems("kind: rule\nname: x\ndelivery: { to: [" + addresses + "] }\n"))
                .isEqualTo("1 the document has more than 20000 fields and values");
        assertThat(problems("kind: rule\nname: " + "[".repeat(50_000))).contains("nested more than 30 deep");
        assertThat(problems("a: ".repeat(10) + "\n")).isNotEmpty();
    }

    @Test
    void onlyTheFirstHundredProblemsAreReturned() {
        String fields =
                IntStream.range(0, 5_000).mapToObj(i -> "field" + i + ": x\n").collect(Collectors.joining());
        assertThat(problems("kind: rule\nname: x\n" + fields)).startsWith("100 ");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{{#rows}}{{#rows}}x{{/rows}}{{/rows}}    | is inside itself",
                "{{#a}}{{#b}}{{#a}}x{{/a}}{{/b}}{{/a}}    | is inside itself",
            })
    void sectionInItselfIsRefused(String text, String words) {
        assertThatThrownBy(() -> Template.of(text))
                .asInstanceOf(type(InvalidDefinitionException.class))
                .satisfies(e -> assertThat(e.getMessage()).contains(words));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{{#rows}}{{sailing}}{{/rows}} {{#rows}}{{delay}}{{/rows}}",
                "{{^rows}}none{{/rows}}{{#rows}}{{#late}}x{{/late}}{{/rows}}"
            })
    void sectionsBesideAndInOthersAreFine(String text) {
        assertThat(Template.of(text).fields()).contains("rows");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "FREQ=DAILY;BYHOUR=%s;BYMINUTE=%s;BYSECOND=%s | times of a day",
                "FREQ=YEARLY;BYHOUR=%s;BYMINUTE=0,10,20,30,40,50   | dates for one step",
            })
    void recurrenceThatExpandsToTooManyDatesIsRefused(String rule, String words) {
        String hours = IntStream.range(0, 24).mapToObj(String::valueOf).collect(Collectors.joining(","));
        String minutes = IntStream.range(0, 60).mapToObj(String::valueOf).collect(Collectors.joining(","));
        String full = rule.replaceFirst("%s", hours)
                .replace("%s", minutes)
                .replace(
                        "FREQ=YEARLY;BYHOUR=" + hours + ";BYMINUTE=0,10,20,30,40,50",
                        "FREQ=YEARLY;BYHOUR=" + hours + ";BYMINUTE=" + minutes);
        assertThatThrownBy(() -> Recurrence.of(full, LocalDateTime.parse("2026-01-01T00:00"), ZoneOffset.UTC))
                .asInstanceOf(type(InvalidDefinitionException.class))
                .satisfies(e -> assertThat(e.getMessage()).contains(words));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "FREQ=DAILY;BYHOUR=6,7,8,9,10;BYMINUTE=0,10,20,30,40,50",
                "FREQ=MINUTELY;INTERVAL=20",
                "FREQ=SECONDLY;INTERVAL=3"
            })
    void recurrenceThatPeopleWriteIsFine(String rule) {
        assertThat(Recurrence.of(rule, LocalDateTime.parse("2026-01-01T00:00"), ZoneOffset.UTC)
                        .nextAfter(LocalDateTime.parse("2026-11-28T00:00").toInstant(ZoneOffset.UTC)))
                .isPresent();
    }

    @ParameterizedTest
    @ValueSource(strings = {"FREQ=SECONDLY", "FREQ=MINUTELY;INTERVAL=5", "FREQ=DAILY;BYHOUR=1,2,3", "FREQ=DAILY"})
    void holidayThatRecursTooOftenIsRefused(String rule) {
        String file =
                "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20260101\r\nRRULE:"
                        + rule + "\r\nSUMMARY:x\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        assertThatThrownBy(() -> CalendarFile.holidays(file, LocalDate.parse("2031-01-01")))
                .isInstanceOf(InvalidDefinitionException.class);
    }
}
