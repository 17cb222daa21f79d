package dev.oddsentry.service.overview;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What the workbench asks while queries and rules are written, and what it sees over all of them. */
class WorkbenchApiTest {
    private final RunningService service = RunningService.get();

    private static String query(LateSailings sailings, String more) {
        return sailings.query(
                        "select sailing, delay_min, reason from \"" + sailings.name + "\" where sailing in (:which)")
                + "parameters: { which: { type: text, multiple: true, default: [SK-1, SK-2], help: which to look at"
                + more + " } }\n"
                + "categories: [Traffic, Daily]\n";
    }

    @Test
    void aQueryIsRunBeforeItIsSavedWithSeveralValuesAtOnce() {
        var sailings =
                new LateSailings(service).late("SK-1", 20).late("SK-2", 60).late("SK-3", 5);
        var body = Map.of(
                "document", query(sailings, ""), "values", Map.of("which", "SK-1, \"SK-3\""), "zone", "Europe/Oslo");
        var ran = service.api().post("/api/query-runs", body);
        assertThat(ran.path("rowsRead").asInt()).isEqualTo(2);
        assertThat(ran.path("rows").path(1).path(0).asString()).isEqualTo("SK-3");
        assertThat(ran.path("values").path("which").asString()).isEqualTo("SK-1, SK-3");
        assertThat(ran.path("columns").path(1).path("label").asString()).isEqualTo("Late by");
        var listed =
                Map.of("document", query(sailings, ", choices: [SK-1, SK-2]"), "values", Map.of("which", "SK-1, SK-9"));
        var refused = service.api().postAnswer("/api/query-runs", listed);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("\\\"SK-9\\\" is none of SK-1, SK-2", "values.which");
    }

    @Test
    void aRuleOnSeveralValuesFindsThemAndAListInItsDocumentStaysOne() {
        var sailings =
                new LateSailings(service).late("SK-1", 20).late("SK-2", 60).late("SK-3", 50);
        service.api().push(query(sailings, ""));
        service.api().push(sailings.rule() + "parameters: { which: [SK-1, SK-3] }\n");
        service.api().post("/api/rules/" + sailings.name + "/activate", "");
        var check = service.api().check(sailings.name);
        assertThat(check.path("exceptions").asInt()).isEqualTo(2);
        var document = service.api().get("/api/definitions/rule/" + sailings.name + ".json");
        assertThat(document.path("parameters").path("which").asString()).isEqualTo("SK-1, SK-3");
    }

    @Test
    void queriesSayWhoUsesThemAndWhatAnEditWouldMove() {
        var sailings = new LateSailings(service).late("SK-1", 20).late("SK-2", 60);
        service.api().push(query(sailings, ""));
        service.api().push(sailings.rule());
        service.api().post("/api/rules/" + sailings.name + "/activate", "");
        var page = service.api().get("/api/queries/" + sailings.name);
        assertThat(page.path("usedBy").path(0).path("how").asString()).isEqualTo("watches");
        assertThat(page.path("parameters").path(0).path("help").asString()).isEqualTo("which to look at");
        assertThat(page.path("query").path("categories").toString()).isEqualTo("[\"Traffic\",\"Daily\"]");

        var narrower =
                service.api().postYaml("/api/query-effect", query(sailings, "").replace("[SK-1, SK-2]", "[SK-2]"));
        var onRule = narrower.body().path("rules").path(0).path("compared");
        assertThat(onRule.path("onlyActive").toString()).isEqualTo("[\"SK-1\"]");
        assertThat(onRule.path("both").asInt()).isEqualTo(1);
        var helped = service.api()
                .postYaml("/api/query-effect", query(sailings, "").replace("which to look at", "other words"));
        assertThat(helped.body().path("effect").asString()).isEqualTo("NO_EFFECT");
        var breaking = service.api()
                .postYaml("/api/query-effect", query(sailings, "").replace("delay_min, reason", "delay_min"));
        assertThat(breaking.status()).isEqualTo(422);
        assertThat(breaking.text()).contains("reason");
    }

    @Test
    void choicesComeFromAnotherQueryAndTablesFromTheSource() {
        var sailings = new LateSailings(service).late("SK-1", 20).late("SK-2", 60);
        service.api().push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        String chooses = "kind: query\nname: " + sailings.name + "-one\nsource: ferry\nsql: select sailing from \""
                + sailings.name + "\" where sailing = :one\nparameters: { one: { choices: { from: " + sailings.name
                + ", value: sailing, label: delay_min } } }\n";
        var saved = service.api().push(chooses.replace("from: " + sailings.name, "from: nothing-like-it"));
        assertThat(saved.path("warnings").path(0).path("message").asString())
                .contains("no query \"nothing-like-it\" yet");
        service.api().push(chooses);
        String id = service.api()
                .get("/api/definitions/query/" + sailings.name + ".json")
                .path("id")
                .asString();
        var renamed = service.api()
                .pushAnswer("id: " + id + "\n"
                        + sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\"")
                                .replace("name: " + sailings.name, "name: " + sailings.name + "-else"));
        assertThat(renamed.status()).isEqualTo(422);
        assertThat(renamed.text()).contains("by the query ");
        var offer = service.api().get("/api/queries/" + sailings.name + "-one/choices/one");
        assertThat(offer.path("choices").path(1).toString()).isEqualTo("{\"value\":\"SK-2\",\"label\":\"60\"}");
        var tables = service.api().get("/api/sources/ferry/tables").path("tables");
        assertThat(tables.toString()).contains("\"name\":\"" + sailings.name + "\"", "\"name\":\"delay_min\"");
        assertThat(service.api()
                        .get("/api/queries/" + sailings.name)
                        .path("usedBy")
                        .path(0)
                        .path("how")
                        .asString())
                .isEqualTo("choices");
    }

    @Test
    void relativeDatesSayWhatTheyMean() {
        var means = service.api()
                .post(
                        "/api/relative-dates",
                        Map.of("texts", List.of("2026-03-29", "yesterday"), "zone", "Europe/Oslo"));
        assertThat(means.path(0).path("means").asString()).isEqualTo("2026-03-29T00:00+01:00");
        assertThat(means.path(1).path("refused").asString()).contains("is not a relative date");
    }

    @Test
    void anActOnManyIsListedBeforeItIsDoneAndOneThatIsRefusedKeepsNoOther() {
        var active = new LateSailings(service).active();
        var draft = new LateSailings(service);
        service.api().push(draft.saved());
        var rules = List.of(active.name, draft.name);
        var pause = Map.of("action", "PAUSE", "rules", rules);
        var listed = service.api().post("/api/bulk-actions", pause);
        assertThat(listed.path(0).path("refused").isNull()).isTrue();
        assertThat(listed.path(1).path("refused").asString()).contains("Only an active rule can be paused");
        assertThat(state(active)).isEqualTo("ACTIVE");
        service.api().post("/api/bulk-actions?apply=true", pause);
        assertThat(state(active)).isEqualTo("PAUSED");

        var people = Map.of(
                "action",
                "RECIPIENTS",
                "rules",
                rules,
                "add",
                List.of("new@skerryline.example"),
                "remove",
                List.of(active.recipient),
                "reason",
                "she left");
        var changed = service.api().post("/api/bulk-actions?apply=true", people);
        assertThat(changed.path(0).path("result").asString()).isEqualTo(active.recipient + " → new@skerryline.example");
        assertThat(service.api()
                        .get("/api/rules/" + draft.name)
                        .path("rule")
                        .path("to")
                        .toString())
                .contains("new@skerryline.example", draft.recipient);
        service.api()
                .post(
                        "/api/bulk-actions?apply=true",
                        Map.of("action", "HAND_OVER", "rules", rules, "owner", "Terminal desk"));
        assertThat(service.api()
                        .get("/api/rules/" + active.name)
                        .path("rule")
                        .path("owner")
                        .asString())
                .isEqualTo("Terminal desk");
        var revisions = service.api()
                .get("/api/definitions/rule/" + active.name + "/revisions")
                .path("revisions");
        assertThat(revisions.path(1).path("reason").asString()).isEqualTo("she left");
    }

    private String state(LateSailings sailings) {
        return service.api()
                .get("/api/rules/" + sailings.name)
                .path("rule")
                .path("state")
                .asString();
    }

    @Test
    void aCopyRemembersItsOriginalAndNothingElse() {
        var sailings = new LateSailings(service).late("SK-1", 20).active();
        service.api().check(sailings.name);
        String copy = sailings.name + "-north";
        service.api().post("/api/rules/" + sailings.name + "/copies", Map.of("name", copy, "title", "In the north"));
        var made = service.api().get("/api/rules/" + copy).path("rule");
        assertThat(made.path("state").asString()).isEqualTo("DRAFT");
        assertThat(made.path("copiedFrom").asString()).isEqualTo(sailings.name);
        assertThat(made.path("named").isEmpty()).isTrue();
        assertThat(made.path("open").isEmpty()).isTrue();
        assertThat(service.api()
                        .postAnswer("/api/rules/" + copy + "/activate", "")
                        .text())
                .contains("no recipient");
        assertThat(service.api()
                        .postAnswer("/api/rules/" + sailings.name + "/copies", Map.of("name", copy))
                        .status())
                .isEqualTo(409);
    }

    @Test
    void findingsReadersAndTheDayGoOverAllRules() {
        var sailings =
                new LateSailings(service).late("SK-1", 20).late("SK-2", 60).active();
        var check = service.api().check(sailings.name);
        var found = service.api().get("/api/findings?severity=CRITICAL&handling=BY_NOBODY&rule=" + sailings.name);
        assertThat(found.path("total").asInt()).isEqualTo(1);
        var finding = found.path("findings").path(0);
        assertThat(finding.path("cells").toString())
                .contains("{\"label\":\"Late by\",\"text\":\"60 min\",\"link\":null}");
        service.api()
                .post(
                        "/api/rules/" + sailings.name + "/handling",
                        Map.of("finding", finding.path("id").asLong(), "kind", "TAKE"));
        assertThat(service.api()
                        .get("/api/findings?handling=BY_NOBODY&rule=" + sailings.name)
                        .path("total")
                        .asInt())
                .isEqualTo(1);
        assertThat(service.api()
                        .get("/api/findings?q=SK-2&rule=" + sailings.name)
                        .path("total")
                        .asInt())
                .isEqualTo(1);

        var reader = service.api().get("/api/recipients/" + sailings.recipient.toUpperCase(Locale.ROOT));
        assertThat(reader.path("gets").path(0).path("how").toString()).isEqualTo("[\"to\"]");
        assertThat(reader.path("gets").path(0).path("messages").asInt()).isEqualTo(1);

        Instant slot = Instant.parse(check.path("slot").asString());
        var day = service.api().get("/api/day?from=" + slot.minusSeconds(3600) + "&until=" + slot.plusSeconds(3600));
        JsonNode lane = null;
        for (JsonNode each : day.path("lanes")) if (each.path("rule").asString().equals(sailings.name)) lane = each;
        // Of many lanes some are only counted.
        if (lane != null) {
            assertThat(lane.path("checks").path(0).path("worst").asString()).isEqualTo("CRITICAL");
            assertThat(lane.path("checks").path(0).path("updates").asInt()).isEqualTo(2);
        } else assertThat(day.path("moreLanes").asInt()).isPositive();
        for (JsonNode each : day.path("open"))
            if (each.path("rule").asString().equals(sailings.name)) {
                assertThat(each.path("criticalUnhandled").asInt()).isZero();
                assertThat(each.path("taken").asInt()).isEqualTo(1);
            }
        assertThat(service.api()
                        .send("GET", "/api/day?from=" + slot + "&until=" + slot, null, Map.of())
                        .status())
                .isEqualTo(422);
    }

    @Test
    void findingsAreReadPageByPageWithoutAGapOrARepeat() {
        var sailings = new LateSailings(service);
        service.ferry("insert into \"" + sailings.name
                + "\" select 'P-' || i, case when i % 3 = 0 then 60 else 20 end, null from generate_series(1, 430) i");
        sailings.active();
        service.api().check(sailings.name);
        var seen = new ArrayList<String>();
        var severities = new ArrayList<String>();
        String after = "";
        int pages = 0;
        do {
            var page = service.api().get("/api/findings?rule=" + sailings.name + after);
            for (var each : page.path("findings")) {
                seen.add(each.path("identity").asString());
                severities.add(each.path("severity").asString());
            }
            after = page.path("next").isNull()
                    ? null
                    : "&after=" + page.path("next").asString();
            pages++;
        } while (after != null);
        assertThat(pages).isEqualTo(3);
        assertThat(seen).doesNotHaveDuplicates().hasSizeGreaterThanOrEqualTo(430);
        assertThat(severities).as("worst first, over the pages").isSorted();
        assertThat(service.api()
                        .send("GET", "/api/findings?after=somewhere", null, Map.of())
                        .text())
                .contains("after: \\\"somewhere\\\" is not a position in this list");
        assertThat(service.api()
                        .get("/api/rules/" + sailings.name + "/findings")
                        .path("next")
                        .isNull())
                .as("all on one page")
                .isTrue();
    }

    @Test
    void aReviewSaysHowADocumentWouldBeSavedAndSavesNothing() {
        var sailings = new LateSailings(service).active();
        var review = service.api()
                .postYaml("/api/review", sailings.rule().replace("delay_min > 15", "delay_min > 30"))
                .body();
        assertThat(review.path("effect").asString()).isEqualTo("OTHER_CONDITIONS");
        assertThat(review.path("before").asString()).contains("delay_min > 15");
        assertThat(review.path("text").asString()).contains("delay_min > 30");
        assertThat(review.path("revision").asInt()).isEqualTo(1);
        var wrong = service.api()
                .postYaml("/api/review", sailings.rule().replace("reason is", "resaon is"))
                .body();
        assertThat(wrong.path("problems").path(0).path("suggestion").asString()).isEqualTo("reason");
        assertThat(service.api()
                        .postYaml("/api/review", "kind: [")
                        .body()
                        .path("problems")
                        .isEmpty())
                .isFalse();
        var query = service.api()
                .get("/api/definitions")
                .valueStream()
                .filter(each -> each.path("kind").asString().equals("query")
                        && each.path("name").asString().equals(sailings.name))
                .findFirst()
                .orElseThrow();
        assertThat(query.path("rules"))
                .as("the rules that use it")
                .extracting(each -> each.asString())
                .containsExactly(sailings.name);
        assertThat(service.api()
                        .get("/api/rules/" + sailings.name)
                        .path("rule")
                        .path("revision")
                        .asInt())
                .isEqualTo(1);
    }

    @Test
    void listenersAreNotifiedOfACheck() throws IOException {
        var sailings = new LateSailings(service).late("SK-1", 20).active();
        var connection = (HttpURLConnection)
                URI.create(service.baseUrl() + "/api/changes").toURL().openConnection();
        connection.setRequestProperty("Authorization", "Bearer " + token());
        connection.setReadTimeout(30_000);
        try (var lines =
                new BufferedReader(new InputStreamReader(connection.getInputStream(), StandardCharsets.UTF_8))) {
            assertThat(lines.readLine()).startsWith(":");
            service.api().check(sailings.name);
            String heard = "";
            while (!heard.startsWith("data:") || !heard.contains("findings")) heard = lines.readLine();
            assertThat(heard).startsWith("data:");
        } finally {
            connection.disconnect();
        }
    }

    private String token() {
        return service.api()
                .post("/api/tokens", Map.of("login", "operator", "password", RunningService.OPERATOR_PASSWORD))
                .path("token")
                .asString();
    }

    @Test
    void nothingIsCalledAsTheAddressOfNewOnes() {
        var refused = service.api().pushAnswer("kind: query\nname: new\nsource: ferry\nsql: select 1 as one\n");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("use another name");
    }

    @Test
    void nothingOfItAnswersAStranger() {
        for (String path : List.of(
                "/api/queries",
                "/api/findings",
                "/api/recipients",
                "/api/changes",
                "/api/filters",
                "/api/definitions",
                "/api/schemas/odd-document.schema.json"))
            assertThat(HttpApi.stranger(service.baseUrl())
                            .send("GET", path, null, Map.of())
                            .status())
                    .as(path)
                    .isEqualTo(401);
    }
}
