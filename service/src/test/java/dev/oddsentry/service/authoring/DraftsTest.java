package dev.oddsentry.service.authoring;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** An edit lies beside an active rule until someone switches to it, and there is a way back. */
class DraftsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings =
            new LateSailings(service).late("SK-1", 20).active();
    private final String path = "/api/rules/" + sailings.name;

    private HttpApi.Answer put(String document, String query) {
        return api.send("PUT", path + "/draft" + query, document, Map.of("Content-Type", "application/yaml"));
    }

    private String stricter() {
        return sailings.exceptions("delay_min > 30").rule();
    }

    private JsonNode page() {
        return api.get(path);
    }

    @Test
    void theRuleGoesOnAsItIsUntilSomeoneSwitches() {
        assertThat(page().path("draft").isNull()).isTrue();
        assertThat(api.send("GET", path + "/draft", null, Map.of()).status()).isEqualTo(404);
        var draft = put(stricter(), "").body();
        assertThat(draft.path("version").asInt()).isEqualTo(1);
        assertThat(draft.path("effect").asString()).isEqualTo("OTHER_CONDITIONS");
        assertThat(draft.path("document").path("exceptions").asString()).isEqualTo("delay_min > 30");
        assertThat(page().path("draft").path("author").asString()).isEqualTo("Operator");
        assertThat(page().path("rule").path("revision").asInt()).isEqualTo(1);
        assertThat(api.check(sailings.name).path("updates").asInt())
                .as("still the rule's own")
                .isEqualTo(1);

        var switched = api.post(path + "/draft/apply?reason=quieter&version=1", "");
        assertThat(switched.path("revision").asInt()).isEqualTo(2);
        assertThat(page().path("draft").isNull()).isTrue();
        assertThat(api.check(sailings.name).path("state").asString())
                .as("ends without a word")
                .isEqualTo("QUIET");
        assertThat(api.get(path + "/findings?state=OPEN").path("total").asInt()).isZero();
        assertThat(api.postAnswer(path + "/draft/apply", "").status()).isEqualTo(404);

        String revisions = "/api/definitions/rule/" + sailings.name + "/revisions";
        var all = api.get(revisions).path("revisions");
        assertThat(all).hasSize(2);
        assertThat(all.path(0).path("reason").asString()).isEqualTo("quieter");
        assertThat(api.send("GET", revisions + "/1", null, Map.of()).text())
                .contains("delay_min > 15 and reason is null");
        var back = api.post(revisions + "/1/restore", "");
        assertThat(back.path("revision").asInt()).isEqualTo(3);
        assertThat(back.path("effect").asString()).isEqualTo("OTHER_CONDITIONS");
        assertThat(api.get(revisions).path("revisions").path(0).path("reason").asString())
                .isEqualTo("restore revision 1");
        assertThat(api.check(sailings.name).path("updates").asInt()).isEqualTo(1);
        assertThat(api.postAnswer(revisions + "/9/restore", "").text()).contains("no revision 9");
        assertThat(api.send("GET", "/api/definitions/report/x/revisions", null, Map.of())
                        .text())
                .contains("none of query, rule");
    }

    @Test
    void ofTwoPeopleNeitherOverwritesTheOtherUnawares() {
        assertThat(put(stricter(), "").status()).isEqualTo(200);
        assertThat(put(stricter(), "").text()).contains("The rule has draft changes already, version 1");
        assertThat(put(stricter(), "?version=1").body().path("version").asInt()).isEqualTo(2);
        assertThat(put(stricter(), "?version=0").body().path("version").asInt()).isEqualTo(3);
        assertThat(api.postAnswer(path + "/draft/apply?version=2", "").text())
                .contains("Someone else has saved the draft, version 3");

        api.push(sailings.exceptions("delay_min > 40").rule());
        assertThat(page().path("draft").path("outdated").asBoolean()).isTrue();
        assertThat(api.postAnswer(path + "/draft/apply?version=3", "").text())
                .contains("saved revision 2 while you edited revision 1");
        assertThat(page().path("draft").path("version").asInt())
                .as("nothing is lost")
                .isEqualTo(3);
        assertThat(put(stricter(), "?version=3").body().path("baseRevision").asInt())
                .isEqualTo(2);
        assertThat(api.post(path + "/draft/apply", "").path("revision").asInt()).isEqualTo(3);

        put(sailings.exceptions("delay_min > 45").rule(), "?baseRevision=2");
        assertThat(api.postAnswer(path + "/draft/apply", "").text())
                .as("the author has not seen revision 3")
                .contains("saved revision 3 while you edited revision 2");
        assertThat(api.send("DELETE", path + "/draft", null, Map.of()).status()).isEqualTo(204);
        assertThat(put(stricter(), "?version=1").text()).contains("discarded");
        assertThat(api.send("DELETE", path + "/draft", null, Map.of()).status()).isEqualTo(404);
        var overtaken = api.send(
                "PUT",
                "/api/definitions?revision=1",
                sailings.exceptions("delay_min > 50").rule(),
                Map.of("Content-Type", "application/yaml"));
        assertThat(overtaken.status()).isEqualTo(409);
    }

    @Test
    void aDraftIsCheckedAndKeepsItsName() {
        assertThat(put(sailings.exceptions("dely_min > 30").rule(), "").text()).contains("dely_min", "delay_min");
        assertThat(put(stricter().replace("name: " + sailings.name, "name: other"), "")
                        .text())
                .contains("a draft cannot change the rule's name");
        assertThat(put(sailings.query("select 1 as a"), "").status()).isEqualTo(422);
        assertThat(page().path("draft").isNull()).isTrue();
        put(stricter(), "");
        assertThat(api.send("GET", path + "/draft.yaml", null, Map.of()).text()).contains("exceptions: delay_min > 30");
    }
}
