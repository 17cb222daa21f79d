package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.SAVED_FILTER;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.Records;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Ways of looking at the list of rules, each person's own. */
@Component
public class SavedFilters {
    private static final int MOST = 100;

    private final DSLContext db;
    private final Clock clock;

    SavedFilters(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** @param filter the part of the list's address behind the question mark */
    public record SavedFilter(String name, String filter) {}

    public List<SavedFilter> of(Person of) {
        return db.select(SAVED_FILTER.NAME, SAVED_FILTER.FILTER)
                .from(SAVED_FILTER)
                .where(SAVED_FILTER.PERSON_ID.eq(of.id()))
                .orderBy(SAVED_FILTER.NAME)
                .fetch(Records.mapping(SavedFilter::new));
    }

    /** @throws RefusedException if the person has too many */
    @Transactional
    public List<SavedFilter> save(Person of, String name, String filter) {
        if (db.fetchCount(SAVED_FILTER, SAVED_FILTER.PERSON_ID.eq(of.id()), SAVED_FILTER.NAME.ne(name)) >= MOST)
            throw RefusedException.conflict("A person keeps " + MOST + " filters at most; remove one first.");
        db.insertInto(SAVED_FILTER)
                .set(SAVED_FILTER.PERSON_ID, of.id())
                .set(SAVED_FILTER.NAME, name)
                .set(SAVED_FILTER.FILTER, filter)
                .set(SAVED_FILTER.AT, clock.instant())
                .onConflict(SAVED_FILTER.PERSON_ID, SAVED_FILTER.NAME)
                .doUpdate()
                .setAllToExcluded()
                .execute();
        return of(of);
    }

    public List<SavedFilter> remove(Person of, String name) {
        db.deleteFrom(SAVED_FILTER)
                .where(SAVED_FILTER.PERSON_ID.eq(of.id()), SAVED_FILTER.NAME.eq(name))
                .execute();
        return of(of);
    }
}
