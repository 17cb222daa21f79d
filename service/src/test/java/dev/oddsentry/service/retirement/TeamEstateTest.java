package dev.oddsentry.service.retirement;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.HttpApi.Answer;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;

class TeamEstateTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final String suffix = UUID.randomUUID().toString().substring(0, 6);
    private final String deck = "Dekk " + suffix;
    private final String engine = "Maskin " + suffix;

    private Answer act(String method, String team, String act, String body) {
        return api.send(
                method,
                "/api/teams/" + team.replace(" ", "%20") + act,
                body,
                Map.of("Content-Type", "application/json"));
    }

    private void save(String team) {
        api.put("/api/teams/" + team.replace(" ", "%20"), Map.of("addresses", List.of("deck@skerryline.example")));
    }

    private void saveSource(String name, List<String> teams) {
        String address = api.get("/api/sources").path(0).path("jdbcUrl").asString();
        api.put(
                "/api/sources/" + name,
                Map.of("jdbcUrl", address, "username", "ferry_reader", "password", "reader", "teams", teams));
    }

    private LateSailings owned(String team) {
        var sailings = new LateSailings(service).late("SK-1", 60);
        String saved = sailings.saved();
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\"") + "owner: " + team
                + "\n");
        api.push(saved.replace("owner: Traffic reporting", "owner: " + team)
                .replace("to: [", "to: [\"team: " + team + "\", "));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.check(sailings.name);
        return sailings;
    }

    private String definition(String kind, String name) {
        return api.get("/api/definitions/" + kind + "/" + name + ".json").toString();
    }

    private List<String> estate(String team) {
        return api.get("/api/teams/" + team.replace(" ", "%20") + "/definitions")
                .valueStream()
                .map(each ->
                        each.path("kind").asString() + " " + each.path("name").asString()
                                + (each.path("owned").asBoolean() ? " owned" : "")
                                + (each.path("mailed").asBoolean() ? " mailed" : "")
                                + (each.path("shown").asBoolean() ? " shown" : "")
                                + (each.path("retired").asBoolean() ? " retired" : ""))
                .toList();
    }

    @Test
    void allThatATeamOwnsIsHandedOverAndChecksGoOn() {
        save(deck);
        var sailings = owned(deck);
        String name = sailings.name;
        assertThat(estate(deck)).containsExactly("query " + name + " owned", "rule " + name + " owned mailed");
        assertThat(act("POST", deck, "/hand-over", "{\"to\":\"" + engine + "\"}")
                        .text())
                .contains("there is no team");
        save(engine);
        assertThat(act("POST", deck, "/hand-over", "{\"to\":\"" + engine + "\",\"reason\":\"merged\"}")
                        .status())
                .isEqualTo(200);
        assertThat(definition("rule", name)).contains("\"owner\":\"" + engine + "\"", "team: " + deck);
        assertThat(definition("query", name)).contains("\"owner\":\"" + engine + "\"");
        assertThat(api.get("/api/definitions/rule/" + name + "/revisions").toString())
                .contains("handed over from " + deck + ": merged");
        sailings.late("SK-2", 50);
        assertThat(api.check(name).path("opened").asInt()).isEqualTo(1);
        assertThat(api.get("/api/outbox?rule=" + name).path("messages")).hasSize(2);
        assertThat(act("POST", deck, "/hand-over", "{\"to\":\"" + engine + "\"}")
                        .text())
                .contains("owns nothing");
    }

    @Test
    void whatIsShownToATeamAndItsSourceFollowItsNameAndKeepItFromBeingRemoved() {
        save(deck);
        save(engine);
        String name = "shown-" + suffix;
        api.push("kind: calendar\nname: " + name + "\nowner: " + engine + "\nvisible_to: [" + deck + "]\n");
        saveSource(name, List.of(deck));
        assertThat(estate(deck)).containsExactly("calendar " + name + " shown");
        assertThat(act("DELETE", deck, "", null).text()).contains("is named by calendar " + name);

        String dekk = "Dekk to " + suffix;
        assertThat(act("POST", deck, "/rename", "{\"name\":\"" + dekk + "\"}").status())
                .isEqualTo(200);
        assertThat(definition("calendar", name)).contains("\"visible_to\":[\"" + dekk + "\"]");
        api.push("kind: calendar\nname: " + name + "\nowner: " + engine + "\n");
        assertThat(act("DELETE", dekk, "", null).text()).contains("may use the source " + name);
        saveSource(name, List.of());
        assertThat(act("DELETE", dekk, "", null).text()).isEmpty();
    }

    @Test
    void aRenamedTeamTakesMembersDefinitionsDraftsAndTheArchiveAlong() {
        save(deck);
        String login = "deckhand-" + suffix;
        HttpApi.newUser(service, login, "ANALYST", List.of(deck), login + "@skerryline.example");
        String active = owned(deck).name;
        api.send(
                "PUT",
                "/api/rules/" + active + "/draft",
                api.send("GET", "/api/definitions/rule/" + active, null, Map.of())
                        .text()
                        .replaceFirst("title: .*", "title: Drafted"),
                Map.of("Content-Type", "application/yaml"));
        String retired = owned(deck).name;
        api.post("/api/definitions/rule/" + retired + "/retire", Map.of("reason", "gone"));
        save(engine);
        assertThat(act("POST", deck, "/rename", "{\"name\":\"" + engine + "\"}").text())
                .contains("There is a team");
        String bridge = "Bro ø " + suffix;
        assertThat(act("POST", deck, "/rename", "{\"name\":\"" + bridge + "\"}").status())
                .isEqualTo(200);
        assertThat(definition("rule", active)).contains("\"owner\":\"" + bridge + "\"", "team: " + bridge);
        assertThat(api.send("GET", "/api/rules/" + active + "/draft.yaml", null, Map.of())
                        .text())
                .contains("title: Drafted", "owner: " + bridge, "team: " + bridge)
                .doesNotContain(deck);
        assertThat(definition("rule", retired)).contains("\"owner\":\"" + bridge + "\"");
        assertThat(api.get("/api/people").valueStream())
                .anyMatch(each -> each.path("login").asString().equals(login)
                        && each.path("teams").toString().contains(bridge));
        assertThat(act("POST", deck, "/rename", "{\"name\":\"Other\"}").status())
                .isEqualTo(404);
        assertThat(act("DELETE", bridge.replace("ø", "%C3%B8"), "", null).text())
                .contains("is named by ", "query " + active, "rule " + retired + " (retired)");
    }

    @Test
    void aTeamThatNothingNamesIsRemoved() {
        save(deck);
        assertThat(act("DELETE", deck, "", null).status()).isEqualTo(200);
        assertThat(api.get("/api/teams").toString()).doesNotContain(deck);
        assertThat(act("DELETE", deck, "", null).status()).isEqualTo(404);
        assertThat(api.get("/api/audit?q=" + suffix).toString()).contains("REMOVE_TEAM");
    }
}
