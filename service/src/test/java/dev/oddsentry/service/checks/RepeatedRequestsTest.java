package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Pressing twice is not asking twice. */
class RepeatedRequestsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);

    private String ask() {
        var answer = api.send("POST", "/api/rules/" + sailings.name + "/checks", "", Map.of());
        assertThat(answer.status()).isIn(200, 202);
        return answer.body().path("id").asString();
    }

    @ParameterizedTest
    @ValueSource(strings = {"memory: { mode: full }", "memory: { key: [sailing] }"})
    void threePressesWithinSecondsAreOneCheckAndOneMail(String memory) throws Exception {
        sailings.memory(memory).late("SK-1", 20).active();
        var ids = new HashSet<String>();
        try (var presses = Executors.newVirtualThreadPerTaskExecutor()) {
            List<Callable<String>> three =
                    Stream.generate(() -> (Callable<String>) this::ask).limit(3).toList();
            for (var each : presses.invokeAll(three)) ids.add(each.get());
        }
        ids.add(ask());
        assertThat(ids).hasSize(1);
        assertThat(api.get("/api/outbox?rule=" + sailings.name).path("messages"))
                .hasSize(1);
        String insisted = api.check(sailings.name).path("id").asString();
        assertThat(ids).doesNotContain(insisted);
    }

    @Test
    void checkRunsAgainForARuleSavedMeanwhile() {
        sailings.late("SK-1", 20).active();
        String first = ask();
        api.push(sailings.exceptions("delay_min > 10 and reason is null").rule());
        String second = ask();
        assertThat(second).isNotEqualTo(first);
        assertThat(ask()).isEqualTo(second);
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\" where true"));
        assertThat(ask()).isNotEqualTo(second);
    }
}
