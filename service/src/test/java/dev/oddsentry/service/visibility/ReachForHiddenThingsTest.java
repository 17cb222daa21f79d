package dev.oddsentry.service.visibility;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Documents, trials, questions and changes of a stranger do not reach what is hidden. */
class ReachForHiddenThingsTest extends HiddenEstate {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "query: query-MARK",
                "query: OPEN\nschedule: { start: 2026-01-05T06:00, recur: FREQ=DAILY, calendar: calendar-MARK }",
                "query: OPEN\nexceptions: delay_min > threshold('threshold_WORD')",
                "query: OPEN\nschedule: { after: [ { rule: rule-MARK } ] }",
                "query: OPEN\ndelivery: { layout: layout-MARK, to: [deck@skerryline.example] }",
                "query: OPEN\ndelivery: { to: [\"list: list-MARK\"] }"
            })
    void aRuleOfOnesOwnDoesNotReachIt(String fields) {
        String rule = "kind: rule\nname: own-" + suffix + "\nowner: " + shop + "\nmemory: { key: [sailing] }\n"
                + fields.replace("MARK", mark).replace("WORD", wordMark).replace("OPEN", open) + "\n";
        String unknown = rule.replaceAll("late[-_][0-9a-f]{8}", "nowhere");
        for (String operation : List.of("/api/preview", "/api/review", "/api/mail-preview")) {
            var refused = people.get("stranger").postYaml(operation, rule);
            assertThat(refused.text()).as(operation).contains("there is no ");
        }
        var stranger = people.get("stranger");
        String told = stranger.pushAnswer(rule)
                .body()
                .path("problems")
                .path(0)
                .path("message")
                .asString();
        assertThat(told).startsWith("there is no ");
        assertThat(told.replaceAll("late[-_][0-9a-f]{8}", "nowhere"))
                .isEqualTo(stranger.pushAnswer(unknown)
                        .body()
                        .path("problems")
                        .path(0)
                        .path("message")
                        .asString());
        assertThat(people.get("guest")
                        .postYaml("/api/review", rule.replace(shop, guests))
                        .text())
                .doesNotContain("there is no ");
    }

    @Test
    void aRuleThatEverybodySeesDoesNotShowTheTextOfItsHiddenQuery() {
        operator.push("kind: rule\nname: seen-" + suffix + "\nowner: " + vault + "\nquery: query-" + mark
                + "\nmemory: { key: [sailing] }\ndelivery: { to: [deck@skerryline.example] }\n");
        String page = "/api/rules/seen-" + suffix;
        assertThat(people.get("reader").get(page).path("text").path("sql").isNull())
                .isTrue();
        assertThat(people.get("guest").get(page).path("text").path("sql").asString())
                .contains("select");
        operator.post("/api/definitions/rule/seen-" + suffix + "/retire", Map.of("reason", "a test"));
    }

    @Test
    void aTrialUnderItsNameOrItsIdIsRefused() {
        String own = "kind: rule\nowner: " + shop + "\nquery: " + open + "\nmemory: { key: [sailing] }\n";
        String id = operator.get("/api/definitions/rule/rule-" + mark + ".json")
                .path("id")
                .asString();
        for (String named : List.of("name: rule-" + mark, "name: own-trial-" + suffix + "\nid: " + id))
            for (String operation : List.of("/api/preview", "/api/mail-preview", "/api/review")) {
                var answer = people.get("stranger").postYaml(operation, own + named + "\n");
                assertThat(answer.status()).as(operation + " " + answer.text()).isEqualTo(409);
                assertThat(answer.text()).contains("is taken");
            }
        var query = people.get("stranger")
                .postYaml(
                        "/api/query-effect",
                        "kind: query\nname: query-" + mark + "\nsource: ferry\nsql: select 1 as one\n");
        assertThat(query.text()).contains("is taken");
    }

    @Test
    void itsCalendarAndLayoutAreNotUsedInQuestions() {
        var stranger = people.get("stranger");
        String dates = "/api/dates?zone=UTC&start=2026-01-05T06:00&recur=FREQ%3DDAILY&calendar=calendar-" + mark;
        assertThat(stranger.send("GET", dates, null, Map.of()).status()).isEqualTo(404);
        assertThat(people.get("guest").send("GET", dates, null, Map.of()).status())
                .isEqualTo(200);
        var meant = Map.of("texts", List.of("today + 1 working day"), "zone", "UTC", "calendar", "calendar-" + mark);
        assertThat(stranger.postAnswer("/api/relative-dates", meant).status()).isEqualTo(404);
        assertThat(people.get("guest").postAnswer("/api/relative-dates", meant).status())
                .isEqualTo(200);
        var own = new LateSailings(service);
        operator.push(own.saved());
        String extract = "/api/rules/" + own.name + "/extract.csv?layout=layout-" + mark;
        assertThat(stranger.send("GET", extract, null, Map.of()).status()).isEqualTo(404);
        assertThat(people.get("guest").send("GET", extract, null, Map.of()).status())
                .isEqualTo(200);
    }

    @Test
    void itsSourceReadsNothingForOthers() {
        String query =
                "kind: query\nname: own-query-" + suffix + "\nsource: source-" + mark + "\nsql: select 1 as one\n";
        var stranger = people.get("stranger");
        assertThat(stranger.pushAnswer(query).text()).contains("there is no source \\\"source-" + mark);
        assertThat(stranger.postAnswer("/api/query-runs", Map.of("document", query))
                        .text())
                .contains("there is no source");
        assertThat(stranger.postYaml("/api/review", query).text()).contains("there is no source");
        assertThat(people.get("keeper")
                        .pushAnswer(query + "owner: " + vault + "\nvisible_to: [" + vault + "]\n")
                        .status())
                .isEqualTo(200);

        var guest = people.get("guest");
        String kept = operator.send("GET", "/api/definitions/query/query-" + mark, null, Map.of())
                .text();
        assertThat(guest.pushAnswer(kept.replaceFirst("name: .*", "name: copied-" + suffix))
                        .text())
                .as("another query with the same text")
                .contains("there is no source");
        assertThat(guest.pushAnswer(kept + "\ntitle: Better called\n").text())
                .as("nothing that is read changes")
                .doesNotContain("there is no source");
    }

    @Test
    void whatIsHiddenIsNeitherReplacedNorChanged() {
        var stranger = people.get("stranger");
        for (String kind : List.of("rule", "query", "calendar", "layout", "round-up", "recipient-list")) {
            String name = (kind.equals("recipient-list") ? "list" : kind) + "-" + mark;
            String document = operator.send("GET", "/api/definitions/" + kind + "/" + name, null, Map.of())
                    .text();
            String open = document.replaceFirst("visible_to: .*\n( *- .*\n)*", "")
                    .replaceFirst("owner: .*", "owner: " + shop);
            var refused = stranger.pushAnswer(open);
            assertThat(refused.status()).as(kind + refused.text()).isEqualTo(409);
            assertThat(operator.send("GET", "/api/definitions/" + kind + "/" + name, null, Map.of())
                            .text())
                    .isEqualTo(document);
        }
        var found = operator.get("/api/findings?rule=rule-" + mark).path("findings");
        var handled = stranger.post(
                "/api/findings/handling",
                Map.of("findings", List.of(found.path(0).path("id").asLong()), "kind", "TAKE"));
        assertThat(handled.path("handled").asInt()).isZero();
        assertThat(operator.get("/api/findings?rule=rule-" + mark)
                        .path("findings")
                        .path(0)
                        .path("handling"))
                .isEmpty();
        assertThat(stranger.postAnswer("/api/events/event-" + mark, Map.of()).status())
                .isEqualTo(404);
    }
}
