package dev.oddsentry.service.handling;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Many findings are handled in one request: those that are named, or all that match a filter. */
class ManyFindingsTest {
    private static final String PATH = "/api/findings/handling";

    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Map<String, Object> filter = Map.of("rule", sailings.name);

    @BeforeEach
    void moreAreOpenThanAListShows() {
        service.ferry(
                "create table if not exists \"" + sailings.name + "\" (sailing text, delay_min integer, reason text)");
        service.ferry("insert into \"" + sailings.name
                + "\" select 'SK-' || n, case when n <= 50 then 60 else 20 end, null from generate_series(1, 450) n");
        sailings.active();
        api.check(sailings.name);
    }

    private JsonNode find(String more) {
        return api.get("/api/findings?rule=" + sailings.name + more);
    }

    private List<Long> ids(String more) {
        var ids = new ArrayList<Long>();
        find(more)
                .path("findings")
                .forEach(finding -> ids.add(finding.path("id").asLong()));
        return ids;
    }

    @Test
    void allThatMatchAreHandledOnceAndTheOthersAreNot() {
        var bad = Map.<String, Object>of("rule", sailings.name, "severity", "CRITICAL");
        var result = api.post(PATH, Map.of("filter", bad, "expected", 50, "kind", "TAKE", "note", "Calling Holm"));
        assertThat(result.path("handled").asInt()).isEqualTo(50);
        assertThat(find("&handling=TAKEN").path("total").asInt()).isEqualTo(50);
        assertThat(find("&handling=BY_NOBODY").path("total").asInt()).isEqualTo(400);
        assertThat(find("&handling=TAKEN")
                        .path("findings")
                        .path(0)
                        .path("handling")
                        .path(0)
                        .path("note")
                        .asString())
                .isEqualTo("Calling Holm");
        var all = Map.of("filter", filter, "expected", 450, "kind", "ACCEPT", "note", "The ramp was closed.");
        assertThat(api.post(PATH, all).path("handled").asInt()).isEqualTo(450);
        assertThat(find("&handling=TAKEN").path("total").asInt()).isEqualTo(50);
        var undone = api.post(PATH, Map.of("filter", filter, "expected", 450, "kind", "TAKE", "withdraw", true));
        assertThat(undone.path("handled").asInt()).isEqualTo(50);
        assertThat(undone.path("unchanged").asInt()).isEqualTo(400);
        assertThat(find("&handling=TAKEN").path("total").asInt()).isZero();
    }

    @Test
    void thoseThatClearedAreCountedAndANoteGoesToThemToo() {
        var some = ids("&severity=CRITICAL");
        service.ferry("delete from \"" + sailings.name + "\" where sailing in ('SK-1', 'SK-2')");
        api.check(sailings.name);
        var asked = new ArrayList<>(some);
        asked.add(some.getFirst());
        asked.add(Long.MAX_VALUE);
        var result =
                api.post(PATH, Map.of("findings", asked, "kind", "SNOOZE", "until", "2999-01-01", "note", "Holidays"));
        assertThat(result.toString()).isEqualTo("{\"handled\":48,\"cleared\":2,\"unchanged\":0,\"missing\":1}");
        var noted = api.post(PATH, Map.of("findings", some, "note", "Seen with the terminal"));
        assertThat(noted.path("handled").asInt()).isEqualTo(50);
        var explained = api.get("/api/rules/" + sailings.name + "/explanation?key=SK-1");
        assertThat(explained.path("events").toString())
                .contains("Seen with the terminal")
                .doesNotContain("snoozed");
        assertThat(api.get("/api/rules/" + sailings.name + "/explanation?key=SK-3")
                        .path("events")
                        .toString())
                .contains("Seen with the terminal", "snoozed");
    }

    @Test
    void nothingIsDoneIfOthersMatchByNowOrTheRequestMakesNoSense() {
        assertThat(api.postAnswer(PATH, Map.of("filter", filter, "expected", 449, "kind", "TAKE"))
                        .text())
                .contains("The filter now matches 450 findings; you saw 449. Look at the list again.");
        assertThat(api.postAnswer(PATH, Map.of("filter", filter, "kind", "TAKE"))
                        .text())
                .contains("the number of findings that you saw");
        assertThat(api.postAnswer(PATH, Map.of("kind", "TAKE")).text()).contains("Give either");
        assertThat(api.postAnswer(PATH, Map.of("filter", filter, "expected", 450, "kind", "ACCEPT"))
                        .text())
                .contains("A note is required");
        assertThat(api.postAnswer(PATH, Map.of("filter", filter, "expected", 450, "kind", "SNOOZE"))
                        .text())
                .contains("A snooze needs an end date");
        assertThat(api.postAnswer(PATH, Map.of("filter", filter, "expected", 450, "kind", "TAKE", "until", "tomorrow"))
                        .text())
                .contains("\\\"tomorrow\\\" is not a date");
        assertThat(api.postAnswer(PATH, Map.of("filter", filter, "expected", 450, "note", " "))
                        .text())
                .contains("The note is empty");
        assertThat(find("&handling=BY_NOBODY").path("total").asInt()).isEqualTo(450);
        assertThat(api.post(PATH, Map.of("findings", List.of(), "kind", "TAKE"))
                        .path("handled")
                        .asInt())
                .isZero();
    }

    @Test
    void twoPeopleAtOnceLeaveEachFindingHandledOnce() throws Exception {
        var forward = ids("&severity=CRITICAL");
        var backward = forward.reversed();
        try (var both = Executors.newFixedThreadPool(2)) {
            for (int round = 0; round < 5; round++) {
                List<Callable<JsonNode>> asks = List.of(
                        () -> api.post(PATH, Map.of("findings", forward, "kind", "TAKE")),
                        () -> api.post(PATH, Map.of("findings", backward, "kind", "TAKE")));
                for (var ask : both.invokeAll(asks))
                    assertThat(ask.get().path("handled").asInt()).isEqualTo(50);
            }
        }
        find("&severity=CRITICAL")
                .path("findings")
                .forEach(finding -> assertThat(finding.path("handling")).hasSize(1));
    }
}
