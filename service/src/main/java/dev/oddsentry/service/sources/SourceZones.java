package dev.oddsentry.service.sources;

import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/** In which zone each source's own tools show times: what a query that is run by hand is usually run in. Asked again after ten minutes. */
@Component
public class SourceZones {
    private static final Duration KNOWN_FOR = Duration.ofMinutes(10);

    private final SourcePools pools;
    private final LongSupplier nanos;
    private final ConcurrentHashMap<UUID, Known> known = new ConcurrentHashMap<>();

    @Autowired
    SourceZones(SourcePools pools) {
        this(pools, System::nanoTime);
    }

    SourceZones(SourcePools pools, LongSupplier nanos) {
        this.pools = pools;
        this.nanos = nanos;
    }

    /** @param madeFor another address may be another server */
    private record Known(Instant madeFor, ZoneId zone, long since) {
        boolean holds(Source source, long now) {
            return madeFor.equals(source.updatedAt()) && now - since < KNOWN_FOR.toNanos();
        }
    }

    /** UTC where the source cannot be asked: the query that follows says why. */
    public ZoneId of(Source source) {
        var found = known.get(source.id());
        if (found != null && found.holds(source, nanos.getAsLong())) return found.zone();
        try (var connection = pools.open(source, Lane.BY_HAND)) {
            var zone = connection.ownZone();
            known.put(source.id(), new Known(source.updatedAt(), zone, nanos.getAsLong()));
            return zone;
        } catch (SQLException unreachable) {
            return ZoneOffset.UTC;
        }
    }
}
