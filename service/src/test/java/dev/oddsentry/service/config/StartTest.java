package dev.oddsentry.service.config;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.service.RunningService;
import org.junit.jupiter.api.Test;

/** What stops the start, before any work is taken. */
class StartTest {
    private final RunningService service = RunningService.get();
    private final String database = "records_" + System.nanoTime();

    private void start(String... settings) {
        service.startNode(database, service.postgres().jdbcUrl(database), settings)
                .close();
    }

    @Test
    void anotherKeyStopsTheStart() {
        service.execute("postgres", "create database " + database);
        start();
        start();
        assertThatThrownBy(() -> start("--oddsentry.key=HwECAwQFBgcICQoLDA0ODxAREhMUFRYXGBkaGxwdHgA="))
                .hasStackTraceContaining("The key is not the one with which the secrets in these records were sealed");
    }

    @Test
    void recordsOfANewerVersionStopTheStart() {
        service.execute("postgres", "create database " + database);
        start();
        service.execute(
                database,
                "insert into flyway_schema_history (installed_rank, version, description, type, script, installed_by, execution_time, success)"
                        + " values (1000, '1000', 'of next year', 'SQL', 'V1000__of_next_year.sql', 'odd', 1, true)");
        assertThatThrownBy(this::start).hasStackTraceContaining("FlywayValidateException");
    }
}
