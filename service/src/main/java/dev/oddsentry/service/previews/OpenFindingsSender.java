package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.checks.CheckStore;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.ids.AudienceId;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.LastReportWriter;
import dev.oddsentry.service.memory.MemoryWriter;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.messages.MessagePlanner;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.reporting.ReportPlanner;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Sends one recipient all findings that are open now: a person who was added gets updates from then on, and not what the
 * others got before. Last reports do not change.
 */
@Component
public class OpenFindingsSender {
    private final DefinitionStore definitions;
    private final CheckStore checks;
    private final PreviewRunner previewing;
    private final CopyLookup copies;
    private final ReportPlanner reportPlanner;
    private final MessagePlanner messagePlanner;
    private final LastReportWriter reported;
    private final Outbox outbox;
    private final Audit audit;
    private final DSLContext db;
    private final TransactionTemplate transactions;

    OpenFindingsSender(
            DefinitionStore definitions,
            CheckStore checks,
            PreviewRunner previewing,
            CopyLookup copies,
            ReportPlanner reportPlanner,
            MessagePlanner messagePlanner,
            LastReportWriter reported,
            Outbox outbox,
            Audit audit,
            DSLContext db,
            TransactionTemplate transactions) {
        this.definitions = definitions;
        this.checks = checks;
        this.previewing = previewing;
        this.copies = copies;
        this.reportPlanner = reportPlanner;
        this.messagePlanner = messagePlanner;
        this.reported = reported;
        this.outbox = outbox;
        this.audit = audit;
        this.db = db;
        this.transactions = transactions;
    }

    private record Ready(Scope scope, ReportPlan.Outgoing outgoing) {}

    /**
     * @return the numbers of the messages
     * @throws RefusedException if the address gets none of the open findings, or the rule was never checked
     */
    public List<MessageId> to(Person by, RuleId ruleId, String address, Instant slot) {
        var rule = definitions.rule(ruleId).orElseThrow().definition();
        var latest = checks.latest(ruleId, 1);
        if (latest.isEmpty() || !checks.ofRule(ruleId).newcomer())
            throw RefusedException.conflict(
                    "The rule has no successful check yet; its first one reports to all recipients.");
        var ready = previewing.inWords(() -> {
            var all = new ArrayList<Ready>();
            var ofRule = copies.all(rule, slot);
            if (ofRule.isEmpty()) all.addAll(ready(rule, ruleId, slot, null, address));
            else
                ofRule.stream()
                        .filter(copy -> mayReach(copy, rule, address))
                        .forEach(copy -> all.addAll(ready(rule, ruleId, slot, copy, address)));
            return all;
        });
        if (ready.isEmpty())
            throw RefusedException.conflict("Nothing that is open now goes to " + address
                    + ": it is not a recipient of the rule, or none of its findings are open.");
        return Objects.requireNonNull(transactions.execute(_ -> {
            audit.record(db, by.id(), AuditAct.SEND_OPEN_FINDINGS, rule.name(), address);
            return ready.stream()
                    .map(each -> {
                        var writing = new MemoryWriter.Writing(
                                each.scope(), latest.getFirst().getId(), slot);
                        var first = each.outgoing().parts().getFirst().audience();
                        AudienceId audience =
                                reported.audience(each.scope(), first).id();
                        return outbox.queue(
                                MessageCause.OfCheck.of(writing, audience),
                                slot,
                                each.outgoing().message());
                    })
                    .toList();
        }));
    }

    /** So that copies of other recipients cause no wait and no failure. */
    private static boolean mayReach(PersonalCopy copy, RuleDefinition rule, String address) {
        return rule.delivery().split() != null
                || copy.to().isEmpty()
                || copy.to().stream().anyMatch(address::equalsIgnoreCase);
    }

    private List<Ready> ready(
            RuleDefinition rule, RuleId ruleId, Instant slot, @Nullable PersonalCopy copy, String address) {
        try (var run = previewing.run(rule, ruleId, slot, copy)) {
            var plan = reportPlanner.everythingOpen(run.evaluation(), run.audiences());
            var context = run.context("Open now: " + rule.title());
            return messagePlanner.messagesTo(address, context, run.evaluation(), plan).stream()
                    .map(outgoing -> new Ready(Objects.requireNonNull(run.scope()), outgoing))
                    .toList();
        }
    }
}
