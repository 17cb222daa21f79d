package dev.oddsentry.service.authoring;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static org.jooq.impl.DSL.coalesce;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.lower;
import static org.jooq.impl.DSL.noCondition;

import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.recipients.Directory;
import dev.oddsentry.service.schedules.Schedules;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Recipients who get so many messages that they will hardly read one more: seen before a rule is saved. */
@Component
class CrowdedReaders {
    private static final int MOST_IN_A_WEEK = 40;
    private static final int WEEKS_BACK = 4;
    private static final int MOST_NAMED = 3;
    /** Enough to know that it is too much. */
    private static final int MOST_SLOTS = 1000;

    private final DSLContext db;
    private final Directory directory;
    private final Schedules schedules;
    private final Clock clock;

    CrowdedReaders(DSLContext db, Directory directory, Schedules schedules, Clock clock) {
        this.db = db;
        this.directory = directory;
        this.schedules = schedules;
        this.clock = clock;
    }

    Optional<Problem> warning(RuleDefinition rule, FieldPlaces places) {
        var addresses = directory
                .written(List.copyOf(rule.delivery().recipients().all()))
                .stream()
                .map(written -> MailAddress.bare(written).toLowerCase(Locale.ROOT))
                .distinct()
                .toList();
        if (addresses.isEmpty()) return Optional.empty();
        // What a rule sends at every check is known; of another what it has sent says most.
        int certain = sendsAlways(rule) ? checksInAWeek(rule) : 0;
        var lately = lately(addresses, certain > 0 ? rule.name() : null);
        var crowded = new ArrayList<String>();
        for (String address : addresses) {
            int others = Math.round(lately.getOrDefault(address, 0) / (float) WEEKS_BACK);
            if (others + certain > MOST_IN_A_WEEK) crowded.add(address + ": " + words(others, certain));
        }
        if (crowded.isEmpty()) return Optional.empty();
        int more = crowded.size() - MOST_NAMED;
        String named = String.join("; ", crowded.subList(0, Math.min(MOST_NAMED, crowded.size())));
        return Optional.of(Problem.warning(
                "more than " + MOST_IN_A_WEEK + " messages a week for " + named
                        + (more > 0 ? "; and " + more + " others" : "")
                        + ". A round-up gathers the messages of several rules",
                "delivery.to",
                places.of("delivery.to")));
    }

    private static String words(int others, int certain) {
        if (certain == 0) return others + " a week lately";
        return certain + " a week from this rule" + (others == 0 ? "" : ", " + others + " from others lately");
    }

    private static boolean sendsAlways(RuleDefinition rule) {
        return rule.delivery().texts().sendWhenQuiet();
    }

    private int checksInAWeek(RuleDefinition rule) {
        Instant now = clock.instant();
        Instant end = now.plus(Duration.ofDays(7));
        return (int) schedules.of(rule).next(MOST_SLOTS, now).stream()
                .filter(slot -> slot.isBefore(end))
                .count();
    }

    /** How many messages each address got over the weeks. @param except the rule whose messages are not counted; null for none */
    private Map<String, Integer> lately(List<String> addresses, @Nullable String except) {
        var address = lower(MESSAGE_RECIPIENT.ADDRESS);
        return db.select(address, count())
                .from(MESSAGE_RECIPIENT)
                .join(MESSAGE)
                .on(MESSAGE.ID.eq(MESSAGE_RECIPIENT.MESSAGE_ID))
                .leftJoin(DEFINITION)
                .on(DEFINITION.ID.eq(
                        coalesce(MESSAGE.RULE_ID, MESSAGE.ESCALATION_OF).coerce(DEFINITION.ID)))
                .where(
                        address.in(addresses),
                        MESSAGE.CREATED_AT.ge(clock.instant().minus(Duration.ofDays(7L * WEEKS_BACK))),
                        MESSAGE.PREVIEW_OF.isNull(),
                        MESSAGE.TRIAL_OF.isNull(),
                        except == null
                                ? noCondition()
                                : DEFINITION.NAME.isNull().or(DEFINITION.NAME.ne(except)))
                .groupBy(address)
                .fetchMap(row -> row.value1(), row -> row.value2());
    }
}
