package dev.oddsentry.cli.output;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.contract.CheckView;
import dev.oddsentry.contract.PartCount;
import dev.oddsentry.contract.Problem;
import dev.oddsentry.contract.UnknownRowsSuggestion;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

class OutputTest {
    /** Takes answers of which only what matters is written out. */
    private static final JsonMapper JSON = JsonMapper.builder()
            .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .build();

    private static <T> T answer(String json, Class<T> type) {
        return JSON.readValue(json.replace('\'', '"'), type);
    }

    private static Listing listing() {
        var listing = new Listing("Sailing", "Late by");
        listing.add("SK-412", "7");
        listing.add("Gråvik, \"north\"\n\u001b[31m", "12.5");
        return listing;
    }

    @Test
    void tablesAlignNumbersRightAndLetNothingReachTheTerminalThatItWouldActOn() {
        var out = new StringWriter();
        listing().printTable(new PrintWriter(out, true));
        assertThat(out.toString().lines())
                .containsExactly(
                        "SAILING               LATE BY",
                        "SK-412                      7",
                        "Gråvik, \"north\" [31m     12.5");
    }

    @Test
    void csvKeepsEverything() {
        var out = new StringWriter();
        listing().printCsv(new PrintWriter(out, true));
        assertThat(out).hasToString("Sailing,Late by\nSK-412,7\n\"Gråvik, \"\"north\"\"\n\u001b[31m\",12.5\n");
    }

    @Test
    void longCellsAreShortenedInTablesOnly() {
        var listing = new Listing("Reason");
        listing.add("x".repeat(200));
        var table = new StringWriter();
        listing.printTable(new PrintWriter(table, true));
        assertThat(table.toString().lines().skip(1)).containsExactly("x".repeat(59) + "…");
        var csv = new StringWriter();
        listing.printCsv(new PrintWriter(csv, true));
        assertThat(csv.toString()).contains("x".repeat(200));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'state':'QUIET','rowsRead':7,'exceptions':2,'unknownRows':1} | quiet: 7 rows read, 2 exceptions, 1 unknown (value missing), nothing new.",
                "{'state':'FIRED','rowsRead':7,'exceptions':2,'updates':2} | fired: 7 rows read, 2 exceptions, 2 reported.",
                "{'state':'PARTLY_FAILED','rowsRead':7,'exceptions':2,'updates':1,'reason':'no answer'} | partly failed: 7 rows read, 2 exceptions, 1 reported. no answer",
                "{'state':'QUIET','rowsRead':1,'exceptions':1} | quiet: 1 row read, 1 exception, nothing new.",
                "{'state':'INCOMPLETE','rowsRead':3,'exceptions':0,'unknownRows':4,'unevaluated':5,'unevaluatedGroups':[{'group':'Terna','reason':'miles is missing'},{'group':'Skua','reason':'still learning usual(fuel, 8), 3 of 8'},{'group':'Lomvi','reason':'miles is missing'}]} | incomplete: 3 rows read, 0 exceptions. Could not be evaluated: Terna, Lomvi: miles is missing; Skua: still learning usual(fuel, 8), 3 of 8; and 2 more.",
                "{'state':'RUNNING'} | still running.",
            })
    void checkIsSummedUpInOneSentence(String check, String words) {
        assertThat(Words.outcome(answer(check, CheckView.class))).isEqualTo(words);
    }

    @Test
    void aProblemShowsItsLineWithAMarkAndTheNearestName() {
        var problem = answer(
                "{\"weight\":\"ERROR\",\"message\":\"unknown column\",\"suggestion\":\"reason\",\"place\":{\"line\":2,\"column\":3,\"length\":6}}",
                Problem.class);
        assertThat(ProblemText.lines(problem, "r.yaml", "a\nb resaon\n"))
                .isEqualTo(List.of("r.yaml:2:3: unknown column", "    b resaon", "      ^ did you mean \"reason\"?"));
        assertThat(ProblemText.lines(problem, null, null))
                .isEqualTo(List.of("unknown column", "    did you mean \"reason\"?"));
    }

    @Test
    void partsCountGroupsInARuleOverGroups() {
        var parts = List.of(new PartCount(1L, "sum(litres) > 900", Map.of("litres", 2L), null));
        assertThat(Words.parts(parts, true))
                .containsExactly(
                        "  1 group matching after: sum(litres) > 900", "      2 groups unknown: litres is missing");
        assertThat(Words.parts(List.of(new PartCount(2L, "late", Map.of(), null)), false))
                .containsExactly("  2 rows matching after: late");
        var offer = new UnknownRowsSuggestion("litres", "sum(litres) > 900 or litres is null", false, 2L);
        var warning = new Problem("exceptions", "this is never true", null, "litre", "WARNING");
        assertThat(Words.advice(List.of(offer), List.of(warning), true))
                .containsExactly(
                        "  To count the 2 groups where litres is missing, write: sum(litres) > 900 or litres is null",
                        "  Warning: this is never true; did you mean \"litre\"?");
    }

    @ParameterizedTest
    @CsvSource({"52.63261851, 52.633", "0.000412345, 0.000412", "12.5, 12.5", "999.9999, 1000", "7, 7", ", –"})
    void measuredNumbersAreRoundedForPeople(@Nullable BigDecimal number, String words) {
        assertThat(Words.number(number)).isEqualTo(words);
    }
}
