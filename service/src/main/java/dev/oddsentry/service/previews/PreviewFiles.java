package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.Attachment;
import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.mail.NewMessage;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.messages.HeldRows;
import dev.oddsentry.service.messages.MessagePlanner;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.reporting.ReportPlanner;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.ArrayList;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** What a check now would send, as files: the message and the extract. Nothing is reported or remembered. */
@Component
public class PreviewFiles {
    private final DefinitionStore definitions;
    private final PreviewRunner previewing;
    private final Layouts layouts;
    private final CopyLookup copies;
    private final ReportPlanner reportPlanner;
    private final MessagePlanner messagePlanner;
    private final Audit audit;
    private final DSLContext db;
    private final Outbox outbox;
    private final TransactionTemplate transactions;

    PreviewFiles(
            DefinitionStore definitions,
            PreviewRunner previewing,
            Layouts layouts,
            CopyLookup copies,
            ReportPlanner reportPlanner,
            MessagePlanner messagePlanner,
            Audit audit,
            DSLContext db,
            Outbox outbox,
            TransactionTemplate transactions) {
        this.definitions = definitions;
        this.previewing = previewing;
        this.layouts = layouts;
        this.copies = copies;
        this.reportPlanner = reportPlanner;
        this.messagePlanner = messagePlanner;
        this.audit = audit;
        this.db = db;
        this.outbox = outbox;
        this.transactions = transactions;
    }

    /**
     * The message with the present updates; without any, with all open findings.
     *
     * @param copy whose personal copy; the first one's if null
     * @param split whose part of a split; the first one's if null
     * @throws RefusedException if nothing is open, or that value has no findings
     */
    public NewMessage mail(Person by, RuleId ruleId, Instant slot, @Nullable String copy, @Nullable String split) {
        var rule = definitions.rule(ruleId).orElseThrow().definition();
        audit.record(db, by.id(), AuditAct.PREVIEW_MESSAGE, rule.name(), split);
        return previewing.inWords(() -> {
            try (var run = previewing.run(rule, ruleId, slot, copies.of(rule, slot, copy))) {
                var plan = planNow(run);
                var context = run.context("Preview: " + rule.title());
                var messages = messagePlanner.messages(context, run.evaluation(), plan);
                return messages.stream()
                        .filter(each -> split == null
                                || each.parts().stream()
                                        .anyMatch(part -> part.audience().equals(new AudienceKey(split))))
                        .findFirst()
                        .orElseThrow(() -> RefusedException.notFound("No mail would go to \"" + split + "\" now."))
                        .message();
            }
        });
    }

    /**
     * Sends the person what would be sent, every part of a split by itself, marked as a preview; nothing is reported or remembered.
     *
     * @return how many messages
     */
    public int sendTo(Person by, RuleId ruleId, Instant slot, @Nullable String copy) {
        var rule = definitions.rule(ruleId).orElseThrow().definition();
        audit.record(db, by.id(), AuditAct.PREVIEW_MESSAGE, rule.name(), by.mailAddress());
        var messages = previewing.inWords(() -> {
            try (var run = previewing.run(rule, ruleId, slot, copies.of(rule, slot, copy))) {
                var plan = planNow(run);
                var context = run.context("Preview: " + rule.title());
                return messagePlanner.previewsFor(by.mailAddress(), context, run.evaluation(), plan).stream()
                        .map(ReportPlan.Outgoing::message)
                        .toList();
            }
        });
        messages.forEach(message -> transactions.executeWithoutResult(
                _ -> outbox.queue(new MessageCause.OfPreview(ruleId), slot, message)));
        return messages.size();
    }

    /** What is new; where nothing is, everything that is open. */
    private ReportPlan planNow(PreviewRun run) {
        var plan = reportPlanner.choose(run.evaluation(), run.audiences());
        if (plan.updates().isEmpty()) plan = reportPlanner.everythingOpen(run.evaluation(), run.audiences());
        if (plan.updates().isEmpty())
            throw RefusedException.conflict("Nothing is open, so there is nothing that a mail would say.");
        return plan;
    }

    /** Every exception of now as a file, in the rule's layout. */
    public ExtractFiles.File extract(
            Person by, RuleId ruleId, Instant slot, @Nullable String copy, @Nullable String layout, Format format) {
        var saved = definitions.rule(ruleId).orElseThrow().definition();
        var rule = layout == null ? saved : layouts.inLayout(by, saved, layout);
        audit.record(db, by.id(), AuditAct.PREVIEW_EXTRACT, rule.name(), format.code());
        return previewing.inWords(() -> {
            try (var run = previewing.run(rule, ruleId, slot, copies.of(rule, slot, copy))) {
                var rows = run.evaluation().rows(run.labels());
                var all = new ArrayList<Extract.Row>();
                var held = new HeldRows();
                run.evaluation().exceptions().forEach(evaluatedRow -> {
                    held.add(evaluatedRow.row());
                    all.add(rows.standing(evaluatedRow));
                });
                var wanted = run.rule().delivery().attachments().stream()
                        .filter(each -> each.format() == format)
                        .findFirst()
                        .orElse(Attachment.of(format));
                var context = new ExtractFiles.About(rule.name(), rule.title(), slot, rule.zone(), null, copy);
                return ExtractFiles.file(wanted, rows.extract(all), context);
            }
        });
    }
}
