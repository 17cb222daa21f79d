package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.SAVED_FILTER;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.Records;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Ways of looking at the list of rules, each person's own. */
@RestController
@RequestMapping(path = "/api/filters", produces = "application/json")
class SavedFilters {
    private static final int MOST = 100;

    private final DSLContext db;
    private final Clock clock;

    SavedFilters(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** @param filter the part of the list's address behind the question mark */
    record SavedFilter(String name, String filter) {}

    record SavedFilterBody(@NotNull @Size(max = 2000) String filter) {}

    @GetMapping
    List<SavedFilter> listFilters(@AuthenticationPrincipal Person of) {
        return db.select(SAVED_FILTER.NAME, SAVED_FILTER.FILTER)
                .from(SAVED_FILTER)
                .where(SAVED_FILTER.PERSON_ID.eq(of.id()))
                .orderBy(SAVED_FILTER.NAME)
                .fetch(Records.mapping(SavedFilter::new));
    }

    @PutMapping("/{name}")
    @Transactional
    public List<SavedFilter> saveFilter(
            @AuthenticationPrincipal Person of,
            @PathVariable @Size(max = 80) String name,
            @Valid @RequestBody SavedFilterBody body) {
        if (db.fetchCount(SAVED_FILTER, SAVED_FILTER.PERSON_ID.eq(of.id()), SAVED_FILTER.NAME.ne(name)) >= MOST)
            throw RefusedException.conflict("A person keeps " + MOST + " filters at most; remove one first.");
        db.insertInto(SAVED_FILTER)
                .set(SAVED_FILTER.PERSON_ID, of.id())
                .set(SAVED_FILTER.NAME, name)
                .set(SAVED_FILTER.FILTER, body.filter())
                .set(SAVED_FILTER.AT, clock.instant())
                .onConflict(SAVED_FILTER.PERSON_ID, SAVED_FILTER.NAME)
                .doUpdate()
                .setAllToExcluded()
                .execute();
        return listFilters(of);
    }

    @DeleteMapping("/{name}")
    List<SavedFilter> removeFilter(@AuthenticationPrincipal Person of, @PathVariable String name) {
        db.deleteFrom(SAVED_FILTER)
                .where(SAVED_FILTER.PERSON_ID.eq(of.id()), SAVED_FILTER.NAME.eq(name))
                .execute();
        return listFilters(of);
    }
}
