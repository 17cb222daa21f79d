package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.INCIDENT;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.failures.IncidentKind;
import dev.oddsentry.service.people.Operators;
import dev.oddsentry.service.people.Teams;
import dev.oddsentry.service.recipients.BlockedRecipients;
import java.time.Clock;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Mail to the team that owns what a message was about; to the operators where none of the team's addresses can be reached. Never about such mail itself. */
@Component
class OwnerMail {
    private final Operators operators;
    private final DSLContext db;
    private final Clock clock;
    private final DefinitionStore definitions;
    private final Teams teams;
    private final BlockedRecipients reach;
    private final TeamNotices notices;

    OwnerMail(
            DSLContext db,
            Clock clock,
            DefinitionStore definitions,
            Teams teams,
            BlockedRecipients reach,
            TeamNotices notices,
            Operators operators) {
        this.db = db;
        this.clock = clock;
        this.definitions = definitions;
        this.teams = teams;
        this.reach = reach;
        this.operators = operators;
        this.notices = notices;
    }

    /** @param language of the rule or the round-up; members of the team may have set their own */
    record Owner(String team, Language language) {}

    /** @return null where the message is about no rule and no round-up */
    @Nullable
    Owner owner(MessageRecord message) {
        var id = message.getRuleId() == null ? message.getEscalationOf() : message.getRuleId();
        if (id != null) {
            var rule = definitions.rule(id).orElseThrow().definition();
            return new Owner(rule.owner(), rule.delivery().texts().language());
        }
        if (message.getRoundUpId() != null) {
            var roundUp =
                    definitions.roundUp(message.getRoundUpId()).orElseThrow().definition();
            return new Owner(roundUp.owner(), roundUp.language());
        }
        return null;
    }

    /**
     * Part of the caller's transaction.
     *
     * @param name as the kind has it
     * @param unreached addresses that the mail is about, where it would not arrive either
     */
    void send(
            Owner owner,
            IncidentKind kind,
            String name,
            Collection<String> unreached,
            Function<Phrases, TeamNotices.Notice> notice) {
        var to = reached(teams.addressesOf(owner.team()), unreached);
        if (to.isEmpty()) to = reached(operators.addresses(), unreached);
        if (to.isEmpty()) return;
        var now = clock.instant();
        // Over at once: it gets no further notice.
        long incident = db.insertInto(INCIDENT)
                .set(INCIDENT.KIND, kind)
                .set(INCIDENT.NAME, name)
                .set(INCIDENT.BEGAN_AT, now)
                .set(INCIDENT.MAILED_AT, now)
                .set(INCIDENT.OVER_AT, now)
                .returning(INCIDENT.ID)
                .fetchSingle()
                .getId();
        notices.queue(new MessageCause.OfIncident(incident), owner.team(), to, owner.language(), notice);
    }

    private List<String> reached(List<String> addresses, Collection<String> unreached) {
        var barred = reach.barred(null);
        return addresses.stream()
                .filter(address -> unreached.stream().noneMatch(address::equalsIgnoreCase))
                .filter(address -> !barred.containsKey(address.toLowerCase(Locale.ROOT)))
                .toList();
    }
}
