package dev.oddsentry.service.overview;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Filters of the list of rules that a person keeps, and those that a team shares. */
class SavedFiltersTest {
    private final RunningService service = RunningService.get();

    @Test
    void aFilterIsAPersonsOwn() {
        service.api().put("/api/filters/Mine%20today", Map.of("filter", "state=ACTIVE&open=yes"));
        var kept = service.api().put("/api/filters/Mine%20today", Map.of("filter", "state=ACTIVE"));
        assertThat(kept.toString())
                .contains("{\"name\":\"Mine today\",\"filter\":\"state=ACTIVE\",\"team\":null,")
                .doesNotContain("open=yes");
        assertThat(anotherPerson().get("/api/filters").toString()).doesNotContain("Mine today");
        assertThat(service.api().delete("/api/filters/Mine%20today").toString()).doesNotContain("Mine today");
    }

    private HttpApi anotherPerson() {
        String login = "filters-" + Long.toHexString(System.nanoTime());
        service.api()
                .post(
                        "/api/people",
                        Map.of(
                                "login",
                                login,
                                "name",
                                "Jens Brandt",
                                "email",
                                login + "@skerryline.example",
                                "role",
                                "ANALYST",
                                "password",
                                "long-enough-1"));
        return HttpApi.loggedIn(service.baseUrl(), login, "long-enough-1");
    }

    @Test
    void aTeamSharesAFilterBesideAPersonsOwnOfTheSameName() {
        service.api().put("/api/teams/Fleet", Map.of("addresses", List.of("fleet@skerryline.example")));
        service.api().put("/api/filters/Late", Map.of("filter", "q=late"));
        service.api().put("/api/filters/Late", Map.of("filter", "q=delay", "team", "Fleet"));
        anotherPerson().put("/api/filters/Late", Map.of("filter", "q=moved", "team", "Fleet"));

        assertThat(service.api().get("/api/filters").toString())
                .as("one's own first; the team's as the other person saved it last")
                .containsSubsequence("\"q=late\",\"team\":null", "\"q=moved\",\"team\":\"Fleet\"")
                .doesNotContain("q=delay");
        assertThat(service.api().delete("/api/filters/Late?team=Fleet").toString())
                .contains("q=late")
                .doesNotContain("q=moved");
        assertThat(service.api()
                        .send(
                                "PUT",
                                "/api/filters/Late",
                                "{\"filter\":\"\",\"team\":\"Nobody\"}",
                                Map.of("Content-Type", "application/json"))
                        .text())
                .contains("There is no team \\\"Nobody\\\".");
        service.api().delete("/api/filters/Late");
    }
}
