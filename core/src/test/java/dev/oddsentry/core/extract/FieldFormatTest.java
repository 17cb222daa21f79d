package dev.oddsentry.core.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Formats behind the fields of templates. */
class FieldFormatTest {
    private static Map<String, @Nullable Object> values(Language language) {
        var values = new HashMap<String, @Nullable Object>();
        values.put("next", "2026-11-30 06:30");
        FieldFormat.allow(values, "next", ZonedDateTime.parse("2026-11-30T06:30:00+01:00[Europe/Oslo]"), language);
        values.put("sum_litres", "271013.5");
        FieldFormat.allow(values, "sum_litres", new BigDecimal("271013.5"), language);
        values.put("title", "Bunkering");
        values.put("since", "");
        FieldFormat.allow(values, "since", null, language);
        return values;
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "{{next}}; EN; 2026-11-30 06:30",
                "{{next | date}}; EN; 30 November 2026",
                "{{next|weekday}}; EN; Monday",
                "{{ next | weekday }}; DE; Montag",
                "{{next | month}}; NB; november 2026",
                "{{next | time}}; EN; 06:30",
                "{{next | EEE d MMM HH:mm}}; EN; Mon 30 Nov 06:30",
                "{{sum_litres | #,##0}}; EN; 271,014",
                "{{sum_litres | #,##0.00}}; DE; 271.013,50",
                "{{title | date}}; EN; Bunkering",
                "[{{since | date}}]; EN; []",
                "{{#next}}next: {{next | time}}{{/next}}; EN; next: 06:30",
            })
    void fieldIsWrittenInItsFormat(String template, Language language, String text) {
        assertThat(Template.of(template).render(values(language))).isEqualTo(text);
    }

    @Test
    void cellsOfRowsHaveFormatsToo() {
        var row = new HashMap<String, @Nullable Object>();
        row.put("due", "2026-12-24");
        FieldFormat.allow(row, "due", LocalDate.parse("2026-12-24"), Language.EN);
        var values = values(Language.EN);
        values.put("rows", List.of(row));
        assertThat(Template.of("{{#rows}}{{due | weekday}} after {{next | weekday}}{{/rows}}")
                        .render(values))
                .isEqualTo("Thursday after Monday");
    }

    @Test
    void fieldsAreNamedWithoutTheirFormats() {
        var template = Template.of("{{next | date}} {{#rows}}{{litres | 0.0}}{{/rows}} {{next}}");
        assertThat(template.fields()).containsExactly("next", "rows", "litres");
        assertThat(template.formats()).extracting(FieldFormat::field).containsExactly("next", "litres");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "{{next | soon}}; \"soon\" is not a format. Use date, weekday, month, time, or a pattern",
                "{{next | }}; is not a format",
                "{{#next | date}}x{{/next | date}}; a section has no format: write {{#next}}",
            })
    void whatIsNoFormatIsRefused(String template, String words) {
        assertThatThrownBy(() -> Template.of(template))
                .isInstanceOf(InvalidDefinitionException.class)
                .hasMessageContaining(words);
    }

    @ParameterizedTest
    @EnumSource(Type.class)
    void everyFormatThatIsOfferedFitsItsType(Type type) {
        for (String name : FieldFormat.namesFor(type))
            assertThat(Template.of("{{x | " + name + "}}")
                            .formats()
                            .getFirst()
                            .format()
                            .fits(type))
                    .as("%s for %s", name, type)
                    .isTrue();
    }
}
