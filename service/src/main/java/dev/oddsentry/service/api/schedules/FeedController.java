package dev.oddsentry.service.api.schedules;

import static dev.oddsentry.service.db.generated.Tables.FEED;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.secrets.Hashes;
import dev.oddsentry.service.secrets.RandomText;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import org.jooq.DSLContext;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * The schedules as an iCalendar feed. Calendar programs cannot log in, so its address holds a token: 256 random bits, given out once
 * and kept as a hash, good for reading dates and titles and for nothing else.
 */
@RestController
class FeedController {
    private final DSLContext db;
    private final ScheduleFeed feed;
    private final Audit audit;
    private final Settings settings;
    private final Clock clock;
    private final People people;

    FeedController(DSLContext db, ScheduleFeed feed, Audit audit, Settings settings, Clock clock, People people) {
        this.people = people;
        this.db = db;
        this.feed = feed;
        this.audit = audit;
        this.settings = settings;
        this.clock = clock;
    }

    /** @param address shown this once */
    record FeedAddress(String address) {}

    @PostMapping(path = "/api/feed", produces = "application/json")
    FeedAddress createFeed(@AuthenticationPrincipal Person by) {
        String token = RandomText.make();
        db.insertInto(FEED)
                .set(FEED.PERSON_ID, by.id())
                .set(FEED.HASH, Hashes.of(token))
                .set(FEED.CREATED_AT, clock.instant())
                .onConflict(FEED.PERSON_ID)
                .doUpdate()
                .setAllToExcluded()
                .execute();
        audit.record(db, by.id(), AuditAct.CREATE_FEED, by.login(), null);
        return new FeedAddress(settings.baseUrl() + "/feeds/" + token + "/schedules.ics");
    }

    @DeleteMapping("/api/feed")
    void revokeFeed(@AuthenticationPrincipal Person by) {
        db.deleteFrom(FEED).where(FEED.PERSON_ID.eq(by.id())).execute();
        audit.record(db, by.id(), AuditAct.DELETE_FEED, by.login(), null);
    }

    @GetMapping(path = "/feeds/{token}/schedules.ics", produces = "text/calendar;charset=UTF-8")
    String getFeed(@PathVariable String token) {
        var of = db.select(FEED.PERSON_ID)
                .from(FEED)
                .where(FEED.HASH.eq(Hashes.of(token)))
                .fetchOptional(FEED.PERSON_ID)
                .flatMap(people::active)
                .orElseThrow(() -> RefusedException.notFound("No such feed."));
        return feed.text(of, clock.instant());
    }
}
