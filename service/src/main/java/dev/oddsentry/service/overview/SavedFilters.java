package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.SAVED_FILTER;
import static dev.oddsentry.service.db.generated.Tables.TEAM;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.List;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Ways of looking at the list of rules: each person's own, and those that a team shares. */
@Component
public class SavedFilters {
    private static final int MOST = 100;

    private final DSLContext db;
    private final Clock clock;

    SavedFilters(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /**
     * @param filter the part of the list's address behind the question mark
     * @param team that shares it; null for a person's own
     * @param savedBy who saved it last
     */
    public record SavedFilter(
            String name, String filter, @Nullable String team, String savedBy) {}

    /** Those of the person, then those of teams. */
    public List<SavedFilter> of(Person of) {
        return db.select(SAVED_FILTER.NAME, SAVED_FILTER.FILTER, SAVED_FILTER.TEAM, PERSON.NAME)
                .from(SAVED_FILTER)
                .join(PERSON)
                .on(PERSON.ID.eq(SAVED_FILTER.PERSON_ID))
                .where(SAVED_FILTER.TEAM.isNotNull().or(SAVED_FILTER.PERSON_ID.eq(of.id())))
                .orderBy(SAVED_FILTER.TEAM.asc().nullsFirst(), SAVED_FILTER.NAME)
                .fetch(row -> new SavedFilter(row.value1(), row.value2(), row.value3(), row.value4()));
    }

    /**
     * Replaces one of the same name of the same person or team.
     *
     * @param team null for the person's own
     * @throws RefusedException if there are too many, or no such team
     */
    @Transactional
    public List<SavedFilter> save(Person of, String name, String filter, @Nullable String team) {
        if (team != null && !db.fetchExists(TEAM, TEAM.NAME.eq(team)))
            throw RefusedException.invalid("There is no team \"" + team + "\".");
        if (db.fetchCount(SAVED_FILTER, whose(of, team).and(SAVED_FILTER.NAME.ne(name))) >= MOST)
            throw RefusedException.conflict(
                    (team == null ? "A person" : "A team") + " has max " + MOST + " saved filters. Remove one first.");
        var unique = team == null
                ? List.of(SAVED_FILTER.PERSON_ID, SAVED_FILTER.NAME)
                : List.of(SAVED_FILTER.TEAM, SAVED_FILTER.NAME);
        db.insertInto(SAVED_FILTER)
                .set(SAVED_FILTER.PERSON_ID, of.id())
                .set(SAVED_FILTER.TEAM, team)
                .set(SAVED_FILTER.NAME, name)
                .set(SAVED_FILTER.FILTER, filter)
                .set(SAVED_FILTER.AT, clock.instant())
                .onConflict(unique)
                .where(team == null ? SAVED_FILTER.TEAM.isNull() : SAVED_FILTER.TEAM.isNotNull())
                .doUpdate()
                .setAllToExcluded()
                .execute();
        return of(of);
    }

    /** @param team null for the person's own */
    public List<SavedFilter> remove(Person of, String name, @Nullable String team) {
        db.deleteFrom(SAVED_FILTER)
                .where(whose(of, team), SAVED_FILTER.NAME.eq(name))
                .execute();
        return of(of);
    }

    private static Condition whose(Person of, @Nullable String team) {
        return team == null
                ? SAVED_FILTER.TEAM.isNull().and(SAVED_FILTER.PERSON_ID.eq(of.id()))
                : SAVED_FILTER.TEAM.eq(team);
    }
}
