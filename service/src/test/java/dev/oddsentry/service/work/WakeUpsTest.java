package dev.oddsentry.service.work;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import org.junit.jupiter.api.Test;

/** Tasks that something has put to sleep for too long. */
class WakeUpsTest {
    private final RunningService service = RunningService.get();
    private final LateSailings sailings =
            new LateSailings(service).schedule("schedule: { start: 2026-01-01T00:00, recur: FREQ=DAILY }");

    private long asleep() {
        return service.count(
                "records",
                "select count(*) from rule join definition using (id) left join scheduled_tasks on task_name = 'slot' and task_instance = rule.id::text"
                        + " where name = '" + sailings.name
                        + "' and (execution_time is null or execution_time > next_slot + interval '1 minute')");
    }

    private void change(String sql) {
        service.execute(
                "records",
                sql
                        + " where task_name = 'slot' and task_instance = (select id::text from definition where kind = 'RULE' and name = '"
                        + sailings.name + "')");
    }

    @Test
    void taskThatIsLateOrMissingIsPlannedAgain() {
        sailings.active();
        assertThat(asleep()).isZero();
        change(
                "update scheduled_tasks set execution_time = execution_time + interval '3 hours', version = version + 1");
        assertThat(asleep()).isEqualTo(1);
        service.bean(WakeUps.class).watchOnce();
        assertThat(asleep()).isZero();
        change("delete from scheduled_tasks");
        assertThat(asleep()).isEqualTo(1);
        service.bean(WakeUps.class).watchOnce();
        assertThat(asleep()).isZero();
    }
}
