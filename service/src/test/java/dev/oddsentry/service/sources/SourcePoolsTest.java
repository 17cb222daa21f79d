package dev.oddsentry.service.sources;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.oddsentry.service.RunningService;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** A source that cannot be reached is left alone for a while; one that is merely busy is not. */
class SourcePoolsTest {
    private final RunningService service = RunningService.get();
    private final Sources sources = mock();
    private final SourcePools pools = new SourcePools(sources, mock(), Duration.ofMillis(500));
    private final UUID id = UUID.randomUUID();

    private Source source(String url, Instant updatedAt) {
        when(sources.passwordOf(any())).thenReturn("reader");
        return new Source(
                id,
                "ferry",
                url,
                "ferry_reader",
                1_000,
                Duration.ofSeconds(5),
                2,
                null,
                Duration.ZERO,
                List.of(),
                updatedAt);
    }

    @AfterEach
    void close() {
        pools.close();
    }

    @Test
    void afterAFailureChecksWaitUntilThereIsAnAnswerOrAnotherAddress() throws SQLException {
        var gone = source("jdbc:postgresql://127.0.0.1:1/ferry", Instant.EPOCH);
        assertThat(pools.restsFor(gone)).isZero();
        assertThatThrownBy(() -> pools.open(gone, Lane.CHECKS)).isInstanceOf(SQLException.class);
        assertThat(pools.restsFor(gone)).isPositive().isLessThanOrEqualTo(Duration.ofSeconds(1));
        var moved = source(service.postgres().jdbcUrl("ferry"), Instant.EPOCH.plusSeconds(1));
        assertThat(pools.restsFor(moved)).isZero();
        pools.open(moved, Lane.BY_HAND).close();
        assertThat(pools.restsFor(moved)).isZero();
    }

    @Test
    void oneWhoseConnectionsAreAllInUseHasNotFailed() throws SQLException {
        var busy = source(service.postgres().jdbcUrl("ferry"), Instant.EPOCH);
        try (var only = pools.open(busy, Lane.BY_HAND)) {
            assertThat(only).isNotNull();
            assertThatThrownBy(() -> pools.open(busy, Lane.BY_HAND)).isInstanceOf(NoConnectionFreeException.class);
        }
        assertThat(pools.restsFor(busy)).isZero();
    }
}
