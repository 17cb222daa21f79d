package dev.oddsentry.service.db;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.jooq.Condition;
import org.jooq.Field;
import org.jspecify.annotations.Nullable;

/**
 * Where an entry stands in a list, newest first, so that the next page begins behind it whatever has been added meanwhile.
 *
 * @param at to the microsecond, as PostgreSQL keeps it
 */
public record PagePlace(Instant at, UUID id) {
    private static final Pattern CODE = Pattern.compile("(\\d{1,18})-([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})");

    /** @return empty if the code is not one that {@link #next} made */
    public static Optional<PagePlace> read(String code) {
        var parts = CODE.matcher(code);
        if (!parts.matches()) return Optional.empty();
        try {
            return Optional.of(new PagePlace(
                    Instant.EPOCH.plus(Long.parseLong(parts.group(1)), ChronoUnit.MICROS),
                    UUID.fromString(parts.group(2))));
        } catch (DateTimeException | ArithmeticException tooFar) {
            return Optional.empty();
        }
    }

    public String code() {
        return ChronoUnit.MICROS.between(Instant.EPOCH, at) + "-" + id;
    }

    /** @return true of the entries behind this one, in the order of {@code time} descending and {@code key} ascending */
    public Condition behind(Field<Instant> time, Field<?> key) {
        return time.lt(at).or(time.eq(at).and(key.coerce(UUID.class).gt(id)));
    }

    /** The code behind which the next page begins; {@code null} if this was the last page. */
    public static <T> @Nullable String next(List<T> page, int most, Function<T, PagePlace> place) {
        return page.size() < most ? null : place.apply(page.getLast()).code();
    }
}
