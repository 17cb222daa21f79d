package dev.oddsentry.service.incidents;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT_RULE;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.IncidentRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.people.Teams;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Mails the owners of rules that fail: once at the start, after a short while in which failures of the same cause come together; once a
 * day while it lasts; and once when it is over. Recipients of findings never see any of it.
 */
@Component
public class IncidentMail {
    private static final Duration ONCE_MORE_AFTER = Duration.ofDays(1);
    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("EEE d MMM yyyy HH:mm VV", Locale.ENGLISH);

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Teams teams;
    private final MessageBuilder messages;
    private final Outbox outbox;
    private final TransactionTemplate transactions;
    private final Settings settings;
    private final Clock clock;

    IncidentMail(
            DSLContext db,
            DefinitionStore definitions,
            Teams teams,
            MessageBuilder messages,
            Outbox outbox,
            TransactionTemplate transactions,
            Settings settings,
            Clock clock) {
        this.db = db;
        this.definitions = definitions;
        this.teams = teams;
        this.messages = messages;
        this.outbox = outbox;
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
    private record Hit(String name, String title, String owner, ZoneId zone, int failures, String reason) {}

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
        var rows = db.select(DEFINITION.ID, INCIDENT_RULE.FAILURES, INCIDENT_RULE.REASON)
                .from(INCIDENT_RULE)
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(INCIDENT_RULE.RULE_ID))
                .where(
                        INCIDENT_RULE.INCIDENT_ID.eq(id),
                        recovered ? INCIDENT_RULE.RECOVERED_AT.isNotNull() : INCIDENT_RULE.RECOVERED_AT.isNull())
                .orderBy(DEFINITION.NAME)
                .fetch();
        return rows.map(row -> {
            var rule = definitions.rule(row.value1()).orElseThrow().definition();
            return new Hit(rule.name(), rule.title(), rule.owner(), rule.zone(), row.value2(), row.value3());
        });
    }

    /** One message for each team. */
    private void notify(IncidentRecord incident, List<Hit> hits, Phase phase) {
        Map<String, List<Hit>> byOwner = new LinkedHashMap<>();
        hits.forEach(hit ->
                byOwner.computeIfAbsent(hit.owner(), _ -> new ArrayList<>()).add(hit));
        byOwner.forEach((owner, ofTeam) -> {
            var to = teams.addressesOf(owner);
            if (to.isEmpty()) return;
            String text = text(incident, ofTeam, phase);
            outbox.queue(
                    new MessageCause.OfIncident(incident.getId()),
                    clock.instant(),
                    messages.plain(owner, to, subject(incident, ofTeam, phase), text));
        });
    }

    private static String subject(IncidentRecord incident, List<Hit> hits, Phase phase) {
        String rules = hits.size() == 1 ? hits.getFirst().title() : hits.size() + " rules";
        if (Incidents.isNoRows(incident.getCause()))
            return switch (phase) {
                case BEGAN -> "No rows: " + rules;
                case LASTS -> "Still no rows: " + rules;
                case OVER -> "Rows again: " + rules;
            };
        return switch (phase) {
            case BEGAN -> "Checks failing: " + rules + " (" + incident.getCause() + ")";
            case LASTS -> "Checks still failing: " + rules + " (" + incident.getCause() + ")";
            case OVER -> "Checks recovered: " + rules + " (" + incident.getCause() + ")";
        };
    }

    private String text(IncidentRecord incident, List<Hit> hits, Phase phase) {
        var lines = new ArrayList<String>();
        // A team's rules are nearly always in one zone; where they are not, the first one's is as good as any.
        String since = TIME.format(incident.getBeganAt().atZone(hits.getFirst().zone()));
        if (Incidents.isNoRows(incident.getCause()))
            lines.add(
                    phase == Phase.OVER
                            ? "The result had no rows from " + since + " on. The latest result has rows."
                            : "The result has had no rows since " + since + ". The checks themselves succeeded.");
        else
            lines.add(
                    phase == Phase.OVER
                            ? "The checks of these rules failed from " + since
                                    + " on. The last check of each succeeded."
                            : "The checks of these rules have failed since " + since
                                    + ". These checks reported nothing and did not change any findings.");
        lines.add("");
        for (var hit : hits) {
            String times = hit.failures() + (hit.failures() == 1 ? " check" : " checks");
            lines.add(hit.title() + ", " + times);
            if (phase != Phase.OVER) lines.add("  " + hit.reason());
            lines.add("  " + settings.baseUrl() + "/rules/" + hit.name());
        }
        lines.add("");
        lines.add(
                "You get this email because your team owns these rules. You get one notice when it starts, one a day while it lasts, and one when it ends.");
        return String.join("\n", lines) + "\n";
    }
}
