package dev.oddsentry.service.api.overview;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.service.overview.Changes;
import dev.oddsentry.service.overview.Day;
import dev.oddsentry.service.overview.FindingsAcross;
import dev.oddsentry.service.overview.FindingsOverTime;
import dev.oddsentry.service.overview.RecipientOverview;
import dev.oddsentry.service.overview.WeekAhead;
import dev.oddsentry.service.web.RefusedException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** What is seen over all rules: the day, findings, readers, and that something has changed. */
@RestController
@RequestMapping("/api")
class OverviewController {
    private static final Duration LONGEST_DAY = Duration.ofHours(26);

    private final Day day;
    private final FindingsAcross findings;
    private final FindingsOverTime overTime;
    private final RecipientOverview readers;
    private final WeekAhead week;
    private final Changes changes;

    OverviewController(
            Day day,
            FindingsAcross findings,
            FindingsOverTime overTime,
            RecipientOverview readers,
            WeekAhead week,
            Changes changes) {
        this.overTime = overTime;
        this.week = week;
        this.day = day;
        this.findings = findings;
        this.readers = readers;
        this.changes = changes;
    }

    /**
     * @param from where the reader's day begins
     * @param until where it ends, which a clock change may move
     */
    @GetMapping(path = "/day", produces = "application/json")
    Day.DayView getDay(@RequestParam Instant from, @RequestParam Instant until) {
        if (!until.isAfter(from) || Duration.between(from, until).compareTo(LONGEST_DAY) > 0)
            throw RefusedException.invalid("from, until: a day, of " + LONGEST_DAY.toHours() + " hours at most.");
        return day.of(from, until);
    }

    /**
     * @param first the first of its seven days
     * @param zone in which days and hours begin
     */
    @GetMapping(path = "/week", produces = "application/json")
    WeekAhead.WeekView getWeek(@RequestParam LocalDate first, @RequestParam ZoneId zone) {
        return week.of(first, zone);
    }

    /**
     * @param state absent for all that have not cleared
     * @param rule its name
     * @param q only those with this in their identity, row, or rule's name
     */
    @GetMapping(path = "/findings", produces = "application/json")
    FindingsAcross.FindingSummaryList listFindings(
            @RequestParam(required = false) @Nullable FindingState state,
            @RequestParam(required = false) @Nullable Severity severity,
            @RequestParam(required = false) FindingsAcross.@Nullable HandledBy handling,
            @RequestParam(required = false) @Nullable String rule,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(required = false) @Nullable String after) {
        return findings.list(new FindingsAcross.Ask(state, severity, handling, rule, q, after));
    }

    /**
     * @param days up to today
     * @param by one line for each rule or for each team
     * @param rule only this rule, by its name
     * @param zone in which days begin
     */
    @GetMapping(path = "/findings/over-time", produces = "application/json")
    FindingsOverTime.OpenFindings getFindingsOverTime(
            @RequestParam(defaultValue = "90") int days,
            @RequestParam(defaultValue = "RULE") FindingsOverTime.By by,
            @RequestParam(required = false) @Nullable String rule,
            @RequestParam ZoneId zone) {
        return overTime.of(days, by, rule, zone);
    }

    /** Every address that a definition names or that got mail lately. */
    @GetMapping(path = "/recipients", produces = "application/json")
    List<RecipientOverview.RecipientSummary> listRecipients() {
        return readers.all();
    }

    @GetMapping(path = "/recipients/{address}", produces = "application/json")
    RecipientOverview.RecipientPage getRecipient(@PathVariable String address) {
        return readers.one(address);
    }

    /** Server-sent events, one named {@code changed} whenever checks, findings, mail or definitions have moved. */
    @GetMapping(path = "/changes", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter streamChanges() {
        return changes.listen();
    }
}
