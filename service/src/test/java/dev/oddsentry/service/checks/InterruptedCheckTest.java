package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.ids.CheckId;
import org.junit.jupiter.api.Test;

class InterruptedCheckTest {
    private final RunningService service = RunningService.get();

    @Test
    void checkThatEndedItsNodeTimeAfterTimeFailsInsteadOfRunningAgain() {
        var sailings = new LateSailings(service).late("SK-1", 20).active();
        CheckId id = CheckId.of(service.api().check(sailings.name).path("id").asString());
        // As a node leaves it that ends while it runs the check.
        service.execute(
                "records",
                "update rule_check set state = 'RUNNING', finished_at = null, attempt = 5, interruptions = 4, retry_at = null where id = '"
                        + id + "'");
        service.bean(CheckRunner.class).run(id);
        var check = service.api().get("/api/checks/" + id);
        assertThat(check.path("state").asString()).isEqualTo("FAILED");
        assertThat(check.path("reason").asString()).contains("The service ended 5 times while it ran this check");
    }

    @Test
    void retriesAndWaitingAreNoInterruptions() {
        var sailings = new LateSailings(service).late("SK-1", 20).active();
        CheckId id = CheckId.of(service.api().check(sailings.name).path("id").asString());
        service.execute(
                "records",
                "update rule_check set state = 'RUNNING', finished_at = null, attempt = 5, interruptions = 4, retry_at = now() where id = '"
                        + id + "'");
        assertThat(service.bean(CheckStore.class)
                        .takeUp(id, false)
                        .orElseThrow()
                        .interruptions())
                .isEqualTo((short) 4);
        service.execute(
                "records", "update rule_check set state = 'QUIET', finished_at = now() where id = '" + id + "'");
    }
}
