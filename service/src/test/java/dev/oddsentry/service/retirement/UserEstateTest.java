package dev.oddsentry.service.retirement;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.people.Teams;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What depends on a user, before they are disabled, and who has it afterwards. */
class UserEstateTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final String suffix = UUID.randomUUID().toString().substring(0, 6);
    private final String team = "Quay " + suffix;
    private final String liv = "liv-" + suffix;
    private final String per = "per-" + suffix;

    private HttpApi user(String login, List<String> teams) {
        return HttpApi.newUser(service, login, "LEAD", teams, login + "@skerryline.example");
    }

    private JsonNode belongings(String login) {
        return api.get("/api/people/" + login + "/belongings");
    }

    private String recipients(String rule) {
        return api.get("/api/definitions/rule/" + rule + ".json")
                .path("delivery")
                .toString();
    }

    @Test
    void isListedAndHandedOver() {
        api.put(
                "/api/teams/" + team.replace(" ", "%20"),
                Map.of("addresses", List.of("quay@skerryline.example", liv + "@skerryline.example")));
        var person = user(liv, List.of(team));
        user(per, List.of());
        var sailings = new LateSailings(service).late("SK-1", 60).late("SK-2", 60);
        String saved = sailings.saved();
        api.push(saved.replace(
                "to: [",
                "to: [\"person: " + liv + "\", " + liv + "@skerryline.example, " + per + "@skerryline.example, "));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.check(sailings.name);
        var findings = api.get("/api/rules/" + sailings.name + "/findings").path("findings");
        for (var finding : findings)
            person.post(
                    "/api/rules/" + sailings.name + "/handling",
                    Map.of("finding", finding.path("id").asLong(), "kind", "TAKE"));
        person.post("/api/tokens/named", Map.of("name", "nightly", "scope", "READ", "days", 9));

        var before = belongings(liv);
        assertThat(before.path("aloneIn").toString()).isEqualTo("[\"" + team + "\"]");
        assertThat(before.path("reachedFor").toString()).isEqualTo("[\"" + team + "\"]");
        assertThat(before.path("mailedBy").path(0).path("name").asString()).isEqualTo(sailings.name);
        assertThat(before.path("taken").toString()).isEqualTo("[{\"name\":\"" + sailings.name + "\",\"count\":2}]");
        assertThat(before.path("tokens").asInt())
                .as("of the log-in, and the other")
                .isEqualTo(2);

        var handed = api.post("/api/people/" + liv + "/hand-over", Map.of("to", per, "reason", "leaves us"));
        assertThat(handed.path("findings").asInt()).isEqualTo(2);
        assertThat(recipients(sailings.name))
                .contains("person: " + per, per + "@skerryline.example")
                .doesNotContain(liv)
                .containsOnlyOnce(per + "@skerryline.example");
        assertThat(belongings(liv).path("mailedBy").size()).isZero();
        assertThat(service.bean(Teams.class).addressesOf(team))
                .containsExactly("quay@skerryline.example", per + "@skerryline.example");
        assertThat(belongings(per).path("taken").toString()).contains("\"count\":2");
        assertThat(api.get("/api/definitions/rule/" + sailings.name + "/revisions")
                        .toString())
                .contains("handed over from " + liv + ": leaves us");
        assertThat(api.postAnswer("/api/people/" + liv + "/hand-over", Map.of("to", per))
                        .status())
                .as("nothing is left")
                .isEqualTo(409);
    }

    @Test
    void goesToNobodyWhoCannotLogIn() {
        user(liv, List.of());
        user(per, List.of());
        assertThat(api.postAnswer("/api/people/" + liv + "/hand-over", Map.of("to", liv))
                        .status())
                .isEqualTo(422);
        api.post("/api/people/" + per + "/disable", Map.of());
        assertThat(api.postAnswer("/api/people/" + liv + "/hand-over", Map.of("to", per))
                        .text())
                .contains("is disabled");
        assertThat(api.postAnswer("/api/people/" + liv + "/hand-over", Map.of("to", "nobody"))
                        .status())
                .isEqualTo(404);
    }
}
