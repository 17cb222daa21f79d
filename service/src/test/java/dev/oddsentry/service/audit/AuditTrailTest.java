package dev.oddsentry.service.audit;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Who did what, as a list and as files. */
class AuditTrailTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final String login = "audit-" + UUID.randomUUID().toString().substring(0, 8);

    private HttpApi added() {
        api.post(
                "/api/people",
                Map.of(
                        "login", login,
                        "name", "Åse \"Deck\" Holm",
                        "email", login + "@skerryline.example",
                        "password", "four unrelated words",
                        "role", "ANALYST"));
        return HttpApi.loggedIn(service.baseUrl(), login, "four unrelated words");
    }

    private List<String> acts(String query) {
        return api.get("/api/audit?" + query)
                .path("entries")
                .valueStream()
                .map(entry -> entry.path("act").asString() + " "
                        + entry.path("subject").asString())
                .toList();
    }

    @Test
    void changesLooksAndLogInsAreToldApart() {
        var me = added();
        var sailings = new LateSailings(service).late("SK-1", 60).active();
        me.post("/api/rules/" + sailings.name + "/preview", Map.of());
        me.post("/api/rules/" + sailings.name + "/pause", "");
        HttpApi.stranger(service.baseUrl())
                .postAnswer("/api/tokens", Map.of("login", login, "password", "a wrong password"));
        assertThat(acts("by=" + login + "&kind=CHANGES")).containsExactly("PAUSE_RULE " + sailings.name);
        assertThat(acts("by=" + login + "&kind=LOOKS")).containsExactly("PREVIEW_RULE " + sailings.name);
        assertThat(acts("by=" + login + "&kind=LOG_INS")).containsExactly("GET_TOKEN " + login);
        assertThat(acts("kind=LOG_INS&q=" + login))
                .as("nobody was logged in when it was refused")
                .containsExactly("LOG_IN_REFUSED " + login, "GET_TOKEN " + login);
    }

    @Test
    void pagesAndTimesLeaveNothingOut() {
        added();
        Instant began = api.get("/api/audit?q=" + login)
                .path("entries")
                .valueStream()
                .map(entry -> Instant.parse(entry.path("at").asString()))
                .min(Instant::compareTo)
                .orElseThrow();
        String table = "audit-" + login;
        for (int i = 0; i < 130; i++)
            api.put("/api/languages/" + table + i + "@skerryline.example", Map.of("language", "DE"));
        var seen = new ArrayList<Long>();
        String next = "";
        do {
            var page = api.get("/api/audit?q=" + table + "&from=" + began + next);
            page.path("entries").forEach(entry -> seen.add(entry.path("id").asLong()));
            next = page.path("next").isNull()
                    ? null
                    : "&before=" + page.path("next").asLong();
        } while (next != null);
        assertThat(seen).hasSize(130).doesNotHaveDuplicates().isSortedAccordingTo((a, b) -> Long.compare(b, a));
        assertThat(acts("q=" + table + "&to=" + began)).isEmpty();
    }

    @Test
    void filesHoldWhatTheListHolds() {
        added();
        api.put(
                "/api/people/" + login,
                Map.of("name", "=cmd()", "email", login + "@skerryline.example", "role", "LEAD", "teams", List.of()));
        var lines = new String(api.bytes("/api/audit.jsonl?q=" + login), StandardCharsets.UTF_8)
                .strip()
                .split("\n");
        var acts = new ArrayList<String>();
        for (String line : lines) acts.add(read(line).path("act").asString());
        assertThat(acts).containsExactly("change person", "get token", "add person");
        assertThat(read(lines[0]).path("detail").asString())
                .contains("Åse \"Deck\" Holm")
                .contains("→ =cmd()");
        var csv = api.send("GET", "/api/audit.csv?q=" + login, null, Map.of());
        assertThat(csv.header("Content-Disposition")).contains("audit.csv");
        assertThat(csv.text().lines()).hasSize(4).first().asString().contains("at,by,name,kind,act,about,detail");
    }

    private static JsonNode read(String line) {
        return new JsonMapper().readTree(line);
    }
}
