package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.FINDING;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.regex.Pattern;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.SortField;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;

/**
 * Where a finding stands in a list, worst and newest first, so that the next page begins behind it whatever has changed meanwhile.
 */
public final class FindingPlace {
    private static final Pattern CODE = Pattern.compile("([012])-(\\d{1,18})-(\\d{1,18})");

    private static final Field<Integer> RANK = DSL.case_(FINDING.SEVERITY)
            .when(Severity.CRITICAL, 0)
            .when(Severity.WARNING, 1)
            .otherwise(2);

    private FindingPlace() {}

    /** The order of such a list. */
    public static List<SortField<?>> order() {
        return List.of(RANK.asc(), FINDING.OPENED_AT.desc(), FINDING.ID.asc());
    }

    /**
     * @param code as {@link #next} gave it; null for the first page
     * @return true of the findings behind that place
     * @throws RefusedException if it is none
     */
    public static Condition behind(@Nullable String code) {
        if (code == null) return DSL.noCondition();
        var parts = CODE.matcher(code);
        if (!parts.matches()) throw RefusedException.notAPosition(code);
        int rank = Integer.parseInt(parts.group(1));
        var openedAt = Instant.EPOCH.plus(Long.parseLong(parts.group(2)), ChronoUnit.MICROS);
        long id = Long.parseLong(parts.group(3));
        return RANK.gt(rank)
                .or(RANK.eq(rank).and(FINDING.OPENED_AT.lt(openedAt)))
                .or(RANK.eq(rank).and(FINDING.OPENED_AT.eq(openedAt)).and(FINDING.ID.gt(id)));
    }

    /** The code behind which the next page begins; null where this was the last. */
    public static @Nullable String next(List<FindingRecord> page, int most) {
        if (page.size() < most) return null;
        var last = page.getLast();
        int rank = switch (last.getSeverity()) {
            case CRITICAL -> 0;
            case WARNING -> 1;
            case NOTICE -> 2;
        };
        return rank + "-" + ChronoUnit.MICROS.between(Instant.EPOCH, last.getOpenedAt()) + "-" + last.getId();
    }
}
