package dev.oddsentry.service.incidents;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT_RULE;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.IncidentRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.failures.IncidentKind;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.TeamNotices;
import dev.oddsentry.service.people.Teams;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Mails the owners of rules that fail: once at the start, after a short while in which failures of the same cause come together; once a
 * day while it lasts; and once when it is over. Recipients of findings never see any of it.
 */
@Component
public class IncidentMail {
    private static final Duration ONCE_MORE_AFTER = Duration.ofDays(1);

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Teams teams;
    private final TeamNotices notices;
    private final TransactionTemplate transactions;
    private final Settings settings;
    private final Clock clock;

    IncidentMail(
            DSLContext db,
            DefinitionStore definitions,
            Teams teams,
            TeamNotices notices,
            TransactionTemplate transactions,
            Settings settings,
            Clock clock) {
        this.db = db;
        this.definitions = definitions;
        this.teams = teams;
        this.notices = notices;
        this.transactions = transactions;
        this.settings = settings;
        this.clock = clock;
    }

    public RecurringTask<Void> task() {
        return Tasks.recurring(
                        "incident-mail", FixedDelay.of(settings.incidents().lookEvery()))
                .execute((_, _) -> look());
    }

    private void look() {
        var live = db.selectFrom(INCIDENT).where(INCIDENT.OVER_AT.isNull()).fetch(INCIDENT.ID);
        for (long id : live) transactions.executeWithoutResult(_ -> look(id));
    }

    /** What a notice says of an incident. */
    private enum Phase {
        BEGAN,
        LASTS,
        OVER
    }

    /** A rule with checks that failed in an incident. */
    private record Hit(
            RuleDefinition rule, int failures, @Nullable FailureKind failure, String reason) {}

    private void look(long id) {
        var incident = db.selectFrom(INCIDENT)
                .where(INCIDENT.ID.eq(id), INCIDENT.OVER_AT.isNull())
                .forUpdate()
                .fetchOne();
        if (incident == null) return;
        Instant now = clock.instant();
        boolean over = !db.fetchExists(
                INCIDENT_RULE, INCIDENT_RULE.INCIDENT_ID.eq(id).and(INCIDENT_RULE.RECOVERED_AT.isNull()));
        boolean mailed = incident.getMailedAt() != null;
        boolean due = mailed
                ? !incident.getMailedAt().plus(ONCE_MORE_AFTER).isAfter(now)
                : !incident.getBeganAt().plus(settings.incidents().gather()).isAfter(now);
        if (over) {
            if (mailed) notify(incident, hits(id, true), Phase.OVER);
            db.update(INCIDENT)
                    .set(INCIDENT.OVER_AT, now)
                    .where(INCIDENT.ID.eq(id))
                    .execute();
        } else if (due) {
            notify(incident, hits(id, false), mailed ? Phase.LASTS : Phase.BEGAN);
            db.update(INCIDENT)
                    .set(INCIDENT.MAILED_AT, now)
                    .where(INCIDENT.ID.eq(id))
                    .execute();
        }
    }

    private List<Hit> hits(long id, boolean recovered) {
        var rows = db.select(INCIDENT_RULE.RULE_ID, INCIDENT_RULE.FAILURES, INCIDENT_RULE.FAILURE, INCIDENT_RULE.REASON)
                .from(INCIDENT_RULE)
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(INCIDENT_RULE.RULE_ID.coerce(DEFINITION.ID)))
                .where(
                        INCIDENT_RULE.INCIDENT_ID.eq(id),
                        recovered ? INCIDENT_RULE.RECOVERED_AT.isNotNull() : INCIDENT_RULE.RECOVERED_AT.isNull())
                .orderBy(DEFINITION.NAME)
                .fetch();
        return rows.map(row -> {
            var rule = definitions.rule(row.value1()).orElseThrow().definition();
            return new Hit(rule, row.value2(), row.value3(), row.value4());
        });
    }

    /** One message for each team, and each language in it. */
    private void notify(IncidentRecord incident, List<Hit> hits, Phase phase) {
        Map<String, List<Hit>> byOwner = new LinkedHashMap<>();
        hits.forEach(hit -> byOwner.computeIfAbsent(hit.rule().owner(), _ -> new ArrayList<>())
                .add(hit));
        byOwner.forEach((owner, ofTeam) -> notices.queue(
                new MessageCause.OfIncident(incident.getId()),
                owner,
                teams.addressesOf(owner),
                ofTeam.getFirst().rule().delivery().texts().language(),
                phrases -> new TeamNotices.Notice(
                        subject(phrases, incident, ofTeam, phase), text(phrases, incident, ofTeam, phase))));
    }

    private static String words(IncidentKind kind) {
        return switch (kind) {
            case NO_ROWS -> "notice.noRows.";
            case AWAITING_APPROVAL -> "notice.approval.";
            case SOURCE, RULE -> "notice.failing.";
            case MAIL_UNDELIVERED, MAIL_UNCONFIRMED, MAIL_BLOCKED ->
                throw new IllegalStateException(kind + " is about no check");
        };
    }

    private static String subject(Phrases phrases, IncidentRecord incident, List<Hit> hits, Phase phase) {
        var kind = incident.getKind();
        String rules = hits.size() == 1 ? hits.getFirst().rule().title() : phrases.of("notice.rules", hits.size());
        String key = words(kind) + "subject." + phase;
        return kind == IncidentKind.SOURCE || kind == IncidentKind.RULE
                ? phrases.of(key, rules, phrases.of("notice.cause." + kind, incident.getName()))
                : phrases.of(key, rules);
    }

    private String text(Phrases phrases, IncidentRecord incident, List<Hit> hits, Phase phase) {
        var lines = new ArrayList<String>();
        // A team's rules are nearly always in one zone; where they are not, the first one's is as good as any.
        String since = phrases.time(
                "date.notice",
                incident.getBeganAt().atZone(hits.getFirst().rule().zone()));
        lines.add(phrases.of(words(incident.getKind()) + (phase == Phase.OVER ? "OVER" : "LASTS"), since));
        lines.add("");
        for (var hit : hits) {
            lines.add(phrases.of("notice.hit", hit.rule().title(), hit.failures()));
            if (phase != Phase.OVER) lines.add("  " + reason(phrases, hit));
            lines.add("  " + settings.baseUrl() + "/rules/" + hit.rule().name());
        }
        lines.add("");
        lines.add(phrases.of("notice.why"));
        return String.join("\n", lines) + "\n";
    }

    /** The reason as it is kept is in English, with what the source said; in other languages the console has that. */
    private static String reason(Phrases phrases, Hit hit) {
        if (phrases.language() == Language.EN) return hit.reason();
        return hit.failure() == null
                ? phrases.of("notice.none")
                : phrases.of("notice.failure." + hit.failure()) + " " + phrases.of("notice.console");
    }
}
