package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** What is retired, restored, removed, handed over or renamed from the command line. */
class ArchiveCommandsTest extends AgainstAService {
    private static final String RETIRED =
            "{\"kind\":\"rule\",\"name\":\"late-sailings\",\"title\":\"Late sailings\",\"owner\":null,\"at\":\"2026-11-24T04:40:00Z\",\"by\":\"Ines Holm\",\"reason\":\"the line closed\"}";
    private static final String COUNTS =
            "{\"revisions\":3,\"checks\":1,\"findings\":120,\"messages\":0,\"measurements\":0,\"thresholdValues\":2}";
    private static final String RULE =
            "{\"kind\":\"rule\",\"name\":\"late-sailings\",\"title\":\"Late sailings\",\"owned\":true,\"mailed\":false,\"retired\":true}";

    @Test
    void definitionIsRetiredWithAReasonAndRestored() {
        answer("POST /api/definitions/rule/late-sailings/retire", RETIRED);
        answer("POST /api/definitions/rule/late-sailings/restore", "");
        assertThat(odd("retire", "rule/late-sailings").err()).contains("--reason");
        assertThat(odd("retire", "rule/late-sailings", "--reason", "the line closed")
                        .out())
                .contains("Retired rule/late-sailings. To restore it: odd restore rule/late-sailings");
        assertThat(odd("restore", "rule/late-sailings").out())
                .contains("Restored rule/late-sailings. To check it again: odd activate late-sailings");
        assertThat(asked)
                .containsExactly(
                        "POST /api/definitions/rule/late-sailings/retire {\"reason\":\"the line closed\"}",
                        "POST /api/definitions/rule/late-sailings/restore");
    }

    @Test
    void kindIsNeeded() {
        var ran = odd("restore", "late-sailings");
        assertThat(ran.status()).isEqualTo(2);
        assertThat(ran.err()).contains("\"late-sailings\" has no kind; write it as rule/late-sailings.");
        assertThat(odd("remove", "rule/").status()).isEqualTo(2);
    }

    @Test
    void archiveSaysWhoAndWhy() {
        answer("GET /api/archive", "[" + RETIRED + "]");
        assertThat(odd("archive").out()).contains("rule/late-sailings", "Ines Holm", "the line closed");
        answer("GET /api/archive", "[]");
        assertThat(odd("archive").out()).contains("Nothing was retired.");
    }

    @Test
    void nothingIsRemovedBeforeItWasSaidWhatGoes() {
        answer("GET /api/definitions/rule/late-sailings/removal", COUNTS);
        answer("DELETE /api/definitions/rule/late-sailings", COUNTS);
        assertThat(odd("remove", "rule/late-sailings").out())
                .contains("for good: 3 revisions, 1 check, 120 findings, 2 threshold values.")
                .contains("To do it: odd remove rule/late-sailings --yes");
        assertThat(asked).noneMatch(call -> call.startsWith("DELETE"));
        assertThat(odd("remove", "rule/late-sailings", "--yes").out()).contains("Removed rule/late-sailings: 3 rev");
        assertThat(asked).anyMatch(call -> call.startsWith("DELETE /api/definitions/rule/late-sailings"));
    }

    @Test
    void teamIsListedHandedOverRenamedAndRemoved() {
        answer("GET /api/teams/Traffic%20reporting/definitions", "[" + RULE + "]");
        answer("POST /api/teams/Traffic%20reporting/hand-over", "[" + RULE + "]");
        answer(
                "POST /api/teams/Traffic%20reporting/rename",
                "{\"name\":\"Fleet\",\"addresses\":[],\"signature\":\"\",\"hasLogo\":false,\"members\":[]}");
        answer("DELETE /api/teams/Traffic%20reporting", "");
        assertThat(odd("team", "Traffic reporting").out()).contains("rule/late-sailings", "yes", "retired");
        assertThat(odd("hand-over", "Traffic reporting", "Fleet", "--reason", "merged")
                        .out())
                .contains("rule/late-sailings", "Handed over to Fleet: 1 definition.");
        assertThat(odd("rename-team", "Traffic reporting", "Fleet").out())
                .contains("Renamed Traffic reporting to Fleet.");
        assertThat(odd("remove-team", "Traffic reporting").out()).contains("Removed the team Traffic reporting.");
        assertThat(asked)
                .contains("POST /api/teams/Traffic%20reporting/rename {\"name\":\"Fleet\"}")
                .anyMatch(call -> call.startsWith("POST /api/teams/Traffic%20reporting/hand-over ")
                        && call.contains("\"to\":\"Fleet\"")
                        && call.contains("\"reason\":\"merged\""));
    }
}
