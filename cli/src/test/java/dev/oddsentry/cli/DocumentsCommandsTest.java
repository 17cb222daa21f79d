package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.output.LineDifferences;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Definitions as files: pulled, held against what is saved, and pushed, with nobody's work lost on either side. */
class DocumentsCommandsTest extends AgainstAService {
    private Path definitions;

    private void pulled(String late, int revision) {
        definitions = folder.resolve("definitions");
        answer(
                "GET /api/definitions",
                "[{\"kind\":\"query\",\"name\":\"sailings\",\"revision\":1},{\"kind\":\"rule\",\"name\":\"late\",\"revision\":"
                        + revision + "}]");
        answer("GET /api/definitions/query/sailings", "kind: query\nname: sailings\n");
        answer("GET /api/definitions/rule/late", late);
    }

    @Test
    void everythingIsPulledAndAFileThatWasEditedIsLeftAlone() throws IOException {
        pulled("kind: rule\nname: late\n", 1);
        assertThat(odd("pull", folder.resolve("definitions").toString()).out())
                .contains("2 documents written", "0 were the same");
        assertThat(definitions.resolve("late.rule.yaml")).content().isEqualTo("kind: rule\nname: late\n");
        assertThat(odd("pull", definitions.toString()).out()).contains("0 documents written", "2 were the same");

        Files.writeString(definitions.resolve("late.rule.yaml"), "kind: rule\nname: late\ntitle: mine\n");
        pulled("kind: rule\nname: late\ntitle: theirs\n", 2);
        answer("GET /api/definitions/rule/late/revisions/1", "kind: rule\nname: late\n");
        var kept = odd("pull", definitions.toString());
        assertThat(kept.status()).isEqualTo(1);
        assertThat(kept.err()).contains("was edited in the folder and differs from revision 2");
        assertThat(definitions.resolve("late.rule.yaml")).content().contains("mine");
        odd("pull", definitions.toString(), "--replace");
        assertThat(definitions.resolve("late.rule.yaml")).content().contains("theirs");
    }

    @Test
    void onlyWhatIsNamedIsPulledAndWhatThereIsNotIsSaid() {
        pulled("kind: rule\nname: late\n", 1);
        var ran = odd("pull", definitions.toString(), "rule/late", "rule/laet");
        assertThat(ran.status()).isEqualTo(1);
        assertThat(ran.err()).contains("There is no rule laet.");
        assertThat(definitions.resolve("sailings.query.yaml")).doesNotExist();
    }

    @Test
    void aFolderIsPushedWithWhatOthersNameFirstAndNobodysSaveIsOverwritten() throws IOException {
        pulled("kind: rule\nname: late\n", 1);
        odd("pull", definitions.toString());
        answer(
                "PUT /api/definitions?reason=&revision=1",
                "{\"kind\":\"rule\",\"name\":\"late\",\"revision\":2,\"changed\":true}");
        asked.clear();
        assertThat(odd("push", definitions.toString()).status()).isZero();
        assertThat(asked).hasSize(2);
        assertThat(asked.getFirst()).contains("kind: query");
        // The second push knows of the first.
        answer(
                "PUT /api/definitions?reason=&revision=2",
                "{\"kind\":\"rule\",\"name\":\"late\",\"revision\":3,\"changed\":true}");
        assertThat(odd("push", definitions.resolve("late.rule.yaml").toString()).out())
                .contains("revision 3");
        refuse(
                "PUT /api/definitions?reason=&revision=3",
                409,
                "{\"detail\":\"It was saved as revision 4 since revision 3.\"}");
        assertThat(odd("push", definitions.resolve("late.rule.yaml").toString()).status())
                .isEqualTo(1);
        answer("PUT /api/definitions?reason=", "{\"kind\":\"rule\",\"name\":\"late\",\"revision\":5,\"changed\":true}");
        assertThat(odd("push", definitions.resolve("late.rule.yaml").toString(), "--force")
                        .status())
                .isZero();
    }

    @Test
    void comparisonShowsTheEffectAndSavesNothing() throws IOException {
        var file = Files.writeString(folder.resolve("late.rule.yaml"), "kind: rule\nname: late\n");
        answer(
                "POST /api/review",
                "{\"kind\":\"rule\",\"name\":\"late\",\"before\":\"name: late\\nexceptions: delay_min > 15\\n\",\"text\":\"name: late\\nexceptions: delay_min > 30\\n\","
                        + "\"revision\":7,\"effect\":\"OTHER_CONDITIONS\",\"problems\":[{\"weight\":\"WARNING\",\"message\":\"doubtful\"}]}");
        answer(
                "POST /api/preview",
                "{\"draft\":{\"wouldReport\":0},\"compared\":{\"both\":12,\"onlyDraftCount\":0,\"onlyDraft\":[],\"onlyActiveCount\":8,\"onlyActive\":[\"SK-1\"]}}");
        var ran = odd("diff", file.toString(), "--effect");
        assertThat(ran.status()).isEqualTo(1);
        assertThat(ran.err()).contains("late.rule.yaml: warning: doubtful");
        assertThat(ran.out())
                .contains(
                        "rule late differs from revision 7.",
                        "  - exceptions: delay_min > 15",
                        "  + exceptions: delay_min > 30",
                        "The conditions changed: the next check evaluates again",
                        "Now: 0 more, 8 fewer (SK-1), 12 as before; a check would report 0.")
                .doesNotContain("name: late");
        assertThat(asked).noneMatch(call -> call.startsWith("PUT"));

        answer(
                "POST /api/review",
                "{\"kind\":\"rule\",\"name\":\"late\",\"before\":\"a\",\"text\":\"a\",\"revision\":7,\"problems\":[]}");
        assertThat(odd("diff", file.toString()).out()).contains("Nothing differs: 1 file.");
        answer(
                "POST /api/review",
                "{\"kind\":null,\"before\":null,\"text\":null,\"problems\":[{\"weight\":\"ERROR\",\"message\":\"unknown field\"}]}");
        var refused = odd("diff", file.toString());
        assertThat(refused.status()).isEqualTo(ExitStatus.INVALID);
        assertThat(refused.err()).contains("unknown field", "is not a valid definition");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"a b c|a b c|''", "a b c|a x c|- b + x", "''|a|+ a", "a b|b|- a", "a b c d|a c d e|- b + e"})
    void linesThatDifferAreTheFewest(String before, String after, String differences) {
        assertThat(String.join(" ", LineDifferences.lines(lines(before), lines(after))))
                .isEqualTo(differences);
    }

    private static String lines(String words) {
        return words.replace(" ", "\n");
    }

    @Test
    void manyRulesAreActedOnOnlyWhenReally() {
        answer(
                "GET /api/rules",
                "[{\"name\":\"late\",\"owner\":\"Traffic\",\"labels\":[\"daily\"]},{\"name\":\"fuel\",\"owner\":\"Crew\",\"labels\":[]}]");
        answer("POST /api/bulk-actions?apply=false", "[{\"rule\":\"late\",\"result\":\"pause\",\"refused\":null}]");
        answer(
                "POST /api/bulk-actions?apply=true",
                "[{\"rule\":\"late\",\"result\":\"pause\",\"refused\":\"Only an active rule can be paused.\"}]");
        assertThat(odd("bulk", "pause", "--label", "daily").out()).contains("late: pause", "Nothing has changed yet");
        assertThat(asked.getLast()).contains("\"rules\":[\"late\"]", "PAUSE");
        var really = odd("bulk", "pause", "--owned-by", "Traffic", "--apply");
        assertThat(really.status()).isEqualTo(1);
        assertThat(really.err()).contains("late is not changed: Only an active rule can be paused.");
        assertThat(odd("bulk", "pause").status()).isEqualTo(2);
        assertThat(odd("bulk", "stop", "late").status()).isEqualTo(2);
    }

    @Test
    void theDoctorSaysWhatToDoAboutEachThingThatIsWrong() {
        answer(
                "GET /api/status",
                "{\"at\":\"2020-01-01T00:00:00Z\",\"node\":\"a\",\"activeRules\":3,\"running\":0,\"problems\":[\"2 checks are late.\"]}");
        answer("GET /api/sources", "[{\"name\":\"ferry\",\"username\":\"reader\",\"jdbcUrl\":\"jdbc:postgresql:x\"}]");
        answer("POST /api/sources/ferry/test", "{\"reached\":false,\"detail\":\"The source does not answer.\"}");
        refuse("POST /api/mail/test", 403, "{\"detail\":\"Only an operator tries the mail servers.\"}");
        answer("GET /api/calendars", "[{\"name\":\"norway\",\"knownUntil\":\"2020-12-25\",\"rules\":[\"late\"]}]");
        var ran = odd("doctor");
        assertThat(ran.status()).isEqualTo(1);
        assertThat(ran.out())
                .contains(
                        "✕ clock: ",
                        "✕ work: 2 checks are late.",
                        "✕ source ferry: The source does not answer.",
                        "  Check that the database runs and accepts reader at",
                        "– mail servers: tested for operators only",
                        "✕ calendar norway: holidays are known until 2020-12-25 only",
                        "Something needs attention.");
        server.stop(0);
        assertThat(odd("doctor").status()).isEqualTo(ExitStatus.NOT_REACHED);
    }

    @Test
    void completionKnowsEveryCommand() {
        var script = new StringWriter();
        int status = Odd.run(new PrintWriter(script), new PrintWriter(script), "completion");
        assertThat(status).isZero();
        for (String name : List.of("pull", "diff", "push", "doctor", "explain"))
            assertThat(script.toString()).contains("_picocli_odd_" + name);
    }
}
