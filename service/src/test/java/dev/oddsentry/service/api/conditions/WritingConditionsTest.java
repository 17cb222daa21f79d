package dev.oddsentry.service.api.conditions;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What an editor asks the service while a condition or a rule is being written. */
class WritingConditionsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);

    @BeforeEach
    void rule() {
        sailings.late("SK-1", 20).late("SK-2", 60).late("SK-3", 5).active();
    }

    private JsonNode condition(Map<String, Object> body) {
        return api.post("/api/queries/" + sailings.name + "/condition", body);
    }

    @Test
    void textAndTreeAreTwoViewsOfOneCondition() {
        var seen = condition(Map.of("text", "delay_min>15 AND reason is null"));
        assertThat(seen.path("text").asString()).isEqualTo("delay_min > 15 and reason is null");
        assertThat(seen.path("sentence").asString()).isEqualTo("late by more than 15 min and reason is missing");
        assertThat(seen.path("parts").path(1).path("sentence").asString()).isEqualTo("reason is missing");
        var again = condition(Map.of("tree", seen.path("tree")));
        assertThat(again.path("text").asString()).isEqualTo(seen.path("text").asString());
        assertThat(again.path("problems")).isEmpty();
    }

    @Test
    void aProblemHasItsPlaceAndTheNearestName() {
        var problem = condition(Map.of("text", "delay_min > 15\n and resaon is null"))
                .path("problems")
                .path(0);
        assertThat(problem.path("place").path("line").asInt()).isEqualTo(2);
        assertThat(problem.path("place").path("column").asInt()).isEqualTo(6);
        assertThat(problem.path("place").path("length").asInt()).isEqualTo(6);
        assertThat(problem.path("suggestion").asString()).isEqualTo("reason");
        var ofGroup = condition(
                Map.of("text", "late > 3", "per", List.of("sailing"), "measures", Map.of("late", "sum(delay_min)")));
        assertThat(ofGroup.path("problems")).isEmpty();
        assertThat(ofGroup.path("sentence").asString()).isEqualTo("late is more than 3");
    }

    @Test
    void completionAnswersWhatMayComeNext() {
        var options = api.post(
                "/api/queries/" + sailings.name + "/completion",
                Map.of("text", "delay_min > 15 and rea", "offset", 22));
        assertThat(options.path("from").asInt()).isEqualTo(19);
        assertThat(options.path("options").path(0).path("text").asString()).isEqualTo("reason");
        assertThat(options.path("options").path(0).path("detail").asString()).isEqualTo("a text");
        var ofCheck = api.post(
                "/api/queries/" + sailings.name + "/completion", Map.of("text", "", "offset", 0, "place", "check"));
        assertThat(ofCheck.path("options").path(0).path("text").asString()).isNotEmpty();
    }

    @Test
    void aTrialOffersToCountMissingValuesAndWarnsOfTextsThatNoRowHas() {
        service.ferry("update \"" + sailings.name + "\" set reason = 'fog' where sailing = 'SK-1'");
        var tried = api.post(
                "/api/queries/" + sailings.name + "/try", Map.of("condition", "reason <> 'fgo' and delay_min > 10"));
        assertThat(tried.path("unknownRows").asInt()).isEqualTo(1);
        var offer = tried.path("suggestions").path(0);
        assertThat(offer.path("rows").asInt()).isEqualTo(1);
        assertThat(offer.path("condition").asString())
                .isEqualTo("(reason <> 'fgo' or reason is null) and delay_min > 10");
        var warning = tried.path("warnings").path(0);
        assertThat(warning.path("message").asString()).isEqualTo("no row read has the text 'fgo' in reason");
        assertThat(warning.path("suggestion").asString()).isEqualTo("fog");
    }

    @Test
    void aTrialOffersToCountTextsThatAreThereButEmpty() {
        service.ferry("update \"" + sailings.name + "\" set reason = '  ' where sailing = 'SK-1'");
        var tried = api.post("/api/queries/" + sailings.name + "/try", Map.of("condition", "reason is null"));
        var offer = tried.path("suggestions").path(0);
        assertThat(offer.path("empty").asBoolean()).isTrue();
        assertThat(offer.path("rows").asInt()).isEqualTo(1);
        assertThat(offer.path("condition").asString()).isEqualTo("coalesce(trim(reason), '') = ''");
    }

    @Test
    void aDraftIsHeldAgainstTheActiveRuleAndLeavesNoTrace() {
        var draft = sailings.rule().replace("delay_min > 15", "delay_min < 30");
        var answer = api.send("POST", "/api/preview", draft, Map.of("Content-Type", "application/yaml"));
        var compared = answer.body().path("compared");
        assertThat(compared.path("both").asInt()).isEqualTo(1);
        assertThat(compared.path("onlyDraft").path(0).asString()).isEqualTo("SK-3");
        assertThat(compared.path("onlyActive").path(0).asString()).isEqualTo("SK-2");
        assertThat(answer.body().path("draft").path("exceptions").asInt()).isEqualTo(2);
        assertThat(api.get("/api/rules/" + sailings.name)
                        .path("rule")
                        .path("revision")
                        .asInt())
                .isEqualTo(1);
    }

    @Test
    void anExceptionThatGetsAnotherSeverityIsAnEffectToo() {
        var draft = sailings.rule().replace("delay_min >= 45", "delay_min >= 5");
        var compared = api.send("POST", "/api/preview", draft, Map.of("Content-Type", "application/yaml"))
                .body()
                .path("compared");
        assertThat(compared.path("onlyDraftCount").asInt()
                        + compared.path("onlyActiveCount").asInt())
                .isZero();
        assertThat(compared.path("otherSeverity").asInt()).isPositive();
    }

    @Test
    void aQueryThatReadsTheClockIsWarnedOf() {
        var saved = api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name
                + "\" where now() > '2020-01-01' and reason <> 'now()'"));
        assertThat(saved.path("warnings")).hasSize(1);
        assertThat(saved.path("warnings").path(0).path("message").asString())
                .startsWith("the text reads the clock itself");
    }
}
