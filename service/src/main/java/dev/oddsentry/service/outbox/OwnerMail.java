package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.INCIDENT;
import static dev.oddsentry.service.db.generated.Tables.PERSON;

import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.people.Teams;
import dev.oddsentry.service.recipients.BlockedRecipients;
import java.time.Clock;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Mail to the team that owns what a message was about; to the operators where none of the team's addresses can be reached. Never about such mail itself. */
@Component
class OwnerMail {
    private final DSLContext db;
    private final Clock clock;
    private final DefinitionStore definitions;
    private final Teams teams;
    private final BlockedRecipients reach;
    private final MessageBuilder messages;
    private final Outbox outbox;

    OwnerMail(
            DSLContext db,
            Clock clock,
            DefinitionStore definitions,
            Teams teams,
            BlockedRecipients reach,
            MessageBuilder messages,
            Outbox outbox) {
        this.db = db;
        this.clock = clock;
        this.definitions = definitions;
        this.teams = teams;
        this.reach = reach;
        this.messages = messages;
        this.outbox = outbox;
    }

    /** @return null where the message is about no rule and no round-up */
    @Nullable
    String owner(MessageRecord message) {
        var rule = message.getRuleId() == null ? message.getEscalationOf() : message.getRuleId();
        if (rule != null)
            return definitions.rule(rule).orElseThrow().definition().owner();
        if (message.getRoundUpId() != null)
            return definitions
                    .roundUp(message.getRoundUpId())
                    .orElseThrow()
                    .definition()
                    .owner();
        return null;
    }

    /**
     * Part of the caller's transaction.
     *
     * @param unreached addresses that the mail is about, where it would not arrive either
     */
    void send(String owner, String cause, Collection<String> unreached, String subject, String text) {
        var to = reached(teams.addressesOf(owner), unreached);
        if (to.isEmpty()) to = reached(operators(), unreached);
        if (to.isEmpty()) return;
        var told = messages.plain(owner, to, subject, text);
        if (told.to().isEmpty()) return;
        var now = clock.instant();
        // Over at once: it gets no further notice.
        long incident = db.insertInto(INCIDENT)
                .set(INCIDENT.CAUSE, cause)
                .set(INCIDENT.BEGAN_AT, now)
                .set(INCIDENT.MAILED_AT, now)
                .set(INCIDENT.OVER_AT, now)
                .returning(INCIDENT.ID)
                .fetchSingle()
                .getId();
        outbox.queue(new MessageCause.OfIncident(incident), now, told);
    }

    private List<String> reached(List<String> addresses, Collection<String> unreached) {
        var barred = reach.barred(null);
        return addresses.stream()
                .filter(address -> unreached.stream().noneMatch(address::equalsIgnoreCase))
                .filter(address -> !barred.containsKey(address.toLowerCase(Locale.ROOT)))
                .toList();
    }

    private List<String> operators() {
        return db.select(PERSON.EMAIL)
                .from(PERSON)
                .where(PERSON.ROLE.eq(Role.OPERATOR), PERSON.ACTIVE.isTrue())
                .orderBy(PERSON.EMAIL)
                .fetch(PERSON.EMAIL);
    }
}
