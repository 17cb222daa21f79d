package dev.oddsentry.core.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Links from the values of a row to other systems. */
class CellLinkTest {
    private static Map<String, @Nullable String> row(@Nullable String url) {
        var row = new HashMap<String, @Nullable String>();
        row.put("id", "12277");
        row.put("route", "Måkehamn – Skjærnes/Nord?&#");
        row.put("none", null);
        row.put("empty", " ");
        row.put("url", url);
        return row;
    }

    @ParameterizedTest
    @CsvSource({
        "https://records.example/s/{{id}}, https://records.example/s/12277",
        "https://records.example/?r={{route}}&s={{ id }},"
                + " https://records.example/?r=M%C3%A5kehamn%20%E2%80%93%20Skj%C3%A6rnes%2FNord%3F%26%23&s=12277",
        "mailto:{{id}}@records.example, mailto:12277@records.example",
        "http://127.0.0.1:8080/{{id}}#top, http://127.0.0.1:8080/12277#top",
    })
    void valuesAreEncodedIntoTheAddress(String template, String address) {
        assertThat(CellLink.of(template).to(row("")::get)).contains(address);
    }

    @ParameterizedTest
    @ValueSource(strings = {"https://x.example/{{none}}", "https://x.example/{{id}}/{{empty}}", "{{none}}"})
    void missingValueLeadsNowhere(String template) {
        assertThat(CellLink.of(template).to(row(null)::get)).isEmpty();
    }

    @Test
    void columnMayHoldTheAddressItself() {
        var link = CellLink.of("{{url}}");
        assertThat(link.to(row(" https://a.example/b?c=d ")::get)).contains("https://a.example/b?c=d");
        for (String no : new String[] {
            "javascript:alert(1)",
            "data:text/html,x",
            "//a.example",
            "see notes",
            "https://a b",
            "file:///etc",
            "x".repeat(3_000)
        }) assertThat(link.to(row(no)::get)).as(no).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "javascript:{{id}}",
                "{{id}}.example/x",
                "records/{{id}}",
                "https://{{id}}/x",
                "https://",
                "{{#id}}x{{/id}}",
                "{{id}}{{route}}",
                "{{{id}}}",
                "",
            })
    void whatIsNoAddressIsRefused(String template) {
        assertThatThrownBy(() -> CellLink.of(template)).isInstanceOf(InvalidDefinitionException.class);
    }
}
