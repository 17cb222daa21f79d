package dev.oddsentry.service.escalations;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.RULE;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import dev.oddsentry.core.definition.DeliveryDefinition.Escalation;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.rules.RuleState;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Escalates findings that nobody has taken, in one message for each rule. A repeated run sends nothing. */
@Component
public class Escalations {
    private static final Logger LOG = LoggerFactory.getLogger(Escalations.class);

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Untaken untaken;
    private final EscalationMail mail;
    private final Outbox outbox;
    private final TransactionTemplate transactions;
    private final Settings settings;
    private final Clock clock;

    Escalations(
            DSLContext db,
            DefinitionStore definitions,
            Untaken untaken,
            EscalationMail mail,
            Outbox outbox,
            TransactionTemplate transactions,
            Settings settings,
            Clock clock) {
        this.db = db;
        this.definitions = definitions;
        this.untaken = untaken;
        this.mail = mail;
        this.outbox = outbox;
        this.transactions = transactions;
        this.settings = settings;
        this.clock = clock;
    }

    public RecurringTask<Void> task() {
        return Tasks.recurring("escalations", FixedDelay.of(settings.incidents().lookEvery()))
                .execute((_, _) -> look());
    }

    private void look() {
        for (var rule : definitions.rules()) {
            var escalation = rule.definition().delivery().escalation();
            if (escalation == null) continue;
            try {
                transactions.executeWithoutResult(_ -> look(rule, escalation));
            } catch (RuntimeException failed) {
                // A rule whose rows cannot be laid out any more does not stop the others; it is tried
                // again.
                LOG.warn(
                        "findings of {} could not be escalated",
                        rule.definition().name(),
                        failed);
            }
        }
    }

    private void look(Current<RuleDefinition> rule, Escalation escalation) {
        // A check that commits at the same time would clear what is about to be escalated.
        var state = db.select(RULE.STATE)
                .from(RULE)
                .where(RULE.ID.eq(rule.ruleId()))
                .forUpdate()
                .fetchSingle()
                .value1();
        if (state != RuleState.ACTIVE) return;
        Instant now = clock.instant();
        Instant until = Untaken.until(escalation, now, rule.definition().zone());
        var row = untaken.lock(rule.ruleId(), until, now);
        var due = untaken.due(row, escalation, until, now);
        if (due.isEmpty() || passOn(rule, escalation, due, now)) untaken.lookedAt(row, until, now);
    }

    /** @return false where none of those whom it is for can be reached, so that it is looked for again */
    private boolean passOn(Current<RuleDefinition> rule, Escalation escalation, List<FindingRecord> due, Instant now) {
        Instant told = db.select(DSL.max(MESSAGE.SLOT))
                .from(MESSAGE)
                .where(MESSAGE.RULE_ID.eq(rule.ruleId()))
                .fetchOptional(0, Instant.class)
                .orElse(now);
        var message = mail.of(rule, escalation, due, told, now);
        if (message.to().isEmpty()) return false;
        untaken.passedOn(due, outbox.queue(new MessageCause.OfEscalation(rule.ruleId()), now, message), now);
        return true;
    }
}
