package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Questions whose answers become a definition file. */
class NewRuleTest extends AgainstAService {
    private static final String FINE =
            "{\"added\": [], \"problems\": [], \"revision\": 0, \"text\": \"kind: rule\\n\"}";

    private Ran answering(Path file, String... answers) {
        var before = System.in;
        System.setIn(new ByteArrayInputStream((String.join("\n", answers) + "\n").getBytes(StandardCharsets.UTF_8)));
        try {
            return odd("new", "rule", "--out", file.toString());
        } finally {
            System.setIn(before);
        }
    }

    private void ferry() {
        answer("GET /api/queries", "[{\"name\": \"sailings\", \"title\": \"Sailings\"}]");
        answer("GET /api/queries/sailings", "{\"columns\": [{\"name\": \"sailing\"}, {\"name\": \"delay_min\"}]}");
        answer("GET /api/teams", "[{\"name\": \"Traffic reporting\", \"addresses\": []}]");
        answer("POST /api/review", FINE);
    }

    @Test
    void answersBecomeADefinitionAndUsualOnesNeedNotBeTyped() throws IOException {
        ferry();
        Path file = folder.resolve("late.rule.yaml");
        var ran = answering(
                file,
                "Sene avganger – Gråvik",
                "",
                "",
                "",
                "delay_min > 15",
                "delay_min > 45",
                "",
                "Europe/Oslo",
                "weekdays 05:40",
                "ines.holm@skerryline.example, team: Traffic",
                "");
        assertThat(ran.status()).as(ran.out() + ran.err()).isZero();
        assertThat(Files.readString(file)).isEqualTo("kind: rule\n");
        assertThat(asked.getLast())
                .contains("\"name\":\"sene-avganger-gravik\"", "\"title\":\"Sene avganger – Gråvik\"")
                .contains("\"query\":\"sailings\"", "\"exceptions\":\"delay_min > 15\"")
                .contains("\"severity\":[{\"critical\":\"delay_min > 45\"},\"warning\"]")
                .contains("\"mode\":\"incremental\"", "\"key\":[\"sailing\"]")
                .contains("\"recur\":\"FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR\"")
                .contains("\"to\":[\"ines.holm@skerryline.example\",\"team: Traffic\"]")
                .contains("\"owner\":\"Traffic reporting\"");
    }

    @Test
    void wrongAnswerIsSaidAndAskedAgain() {
        ferry();
        answer("POST /api/review", """
                {"added": [], "revision": 0, "problems": [
                  {"field": "title", "message": "the title is taken", "weight": "ERROR", "suggestion": "Late"},
                  {"field": "owner", "message": "not yet", "weight": "ERROR"},
                  {"field": "title_of", "message": "another field", "weight": "ERROR"}]}
                """);
        var ran = answering(folder.resolve("x.yaml"), "One", "Two");
        assertThat(ran.out())
                .contains("  the title is taken; did you mean Late?")
                .doesNotContain("not yet", "another field");
        assertThat(ran.status()).isEqualTo(2);
        assertThat(ran.err()).contains("The answers ended at \"Title\". Nothing was written.");
        assertThat(folder.resolve("x.yaml")).doesNotExist();
    }

    @Test
    void plainReportHasNoQuestionsOfExceptions() {
        ferry();
        var ran = answering(folder.resolve("p.yaml"), "Week", "", "", "3", "", "daily 07:00", "", "");
        assertThat(ran.status()).isZero();
        assertThat(ran.out()).doesNotContain("exception if", "Columns that");
        assertThat(asked.getLast()).contains("\"mode\":\"plain\"").doesNotContain("exceptions", "key");
    }

    @Test
    void existingFileIsKept() throws IOException {
        ferry();
        Path file = Files.writeString(folder.resolve("kept.yaml"), "mine");
        var ran = answering(file, "Week", "", "", "2", "", "", "", "on demand", "", "");
        assertThat(ran.status()).isEqualTo(2);
        assertThat(ran.err()).contains("exists and was kept");
        assertThat(file).hasContent("mine");
        assertThat(List.of(odd("new", "query").status())).containsExactly(2);
    }
}
