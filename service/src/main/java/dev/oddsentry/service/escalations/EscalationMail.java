package dev.oddsentry.service.escalations;

import static dev.oddsentry.service.db.generated.Tables.FINDING;

import dev.oddsentry.core.definition.DeliveryDefinition.Escalation;
import dev.oddsentry.core.definition.DeliveryDefinition.Recipients;
import dev.oddsentry.core.definition.DeliveryDefinition.Show;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.extracts.mail.PassedOnWords;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.layouts.RememberedRows;
import dev.oddsentry.service.mail.Envelope;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.mail.NewMessage;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.thresholds.ThresholdStore;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** The message with findings that nobody took, from memory, in the rule's layout and language. */
@Component
class EscalationMail {
    private final DSLContext db;
    private final Layouts layouts;
    private final RememberedRows remembered;
    private final ThresholdStore thresholds;
    private final Schedules schedules;
    private final MessageBuilder messages;
    private final Settings settings;

    EscalationMail(
            DSLContext db,
            Layouts layouts,
            RememberedRows remembered,
            ThresholdStore thresholds,
            Schedules schedules,
            MessageBuilder messages,
            Settings settings) {
        this.db = db;
        this.layouts = layouts;
        this.remembered = remembered;
        this.thresholds = thresholds;
        this.schedules = schedules;
        this.messages = messages;
        this.settings = settings;
    }

    /** @param told the slot of the rule's last message */
    NewMessage of(
            Current<RuleDefinition> saved, Escalation escalation, List<FindingRecord> due, Instant told, Instant now) {
        var rule = layouts.resolved(saved.definition());
        var ofRule = remembered.of(rule, schedules.moment(rule, now), thresholds.all());
        String link = settings.baseUrl() + "/rules/" + rule.name();
        var rows = due.stream()
                .map(finding -> ofRule.rows()
                        .remembered(finding.getSeverity(), Set.of(), Json.row(finding.getRow()), Map.of())
                        .linked(link + "/findings/" + finding.getId()))
                .toList();
        Extract extract = ofRule.rows().extract(rows);
        var language = rule.delivery().texts().language();
        var said = new Announcement(
                rule.title(),
                null,
                rule.owner(),
                rule.zone(),
                now,
                extract,
                List.of(),
                List.of(),
                Announcement.MOST_ROWS,
                rule.delivery().show() == Show.LINK,
                new Announcement.Own(
                        PassedOnWords.subject(language, extract, rule.title()), PassedOnWords.opening(language), null),
                open(saved.ruleId()),
                0,
                ofRule.because(),
                "",
                new Announcement.Habit(Announcement.Tells.UPDATES, false, Set.of(), null),
                told,
                schedules.of(rule).nextAfter(now).orElse(null),
                null,
                List.of(),
                Announcement.Files.NONE,
                List.of(),
                Announcement.Links.to(link));
        var envelope = new Envelope(
                MessageId.random(),
                Recipients.to(escalation.to()),
                rule.owner(),
                rule.name() + ".rules",
                saved.id(),
                null,
                NewMessage.Ways.USUAL,
                rule.delivery().options().sender());
        return messages.build(envelope, said, List.of());
    }

    private long open(RuleId rule) {
        return db.fetchCount(FINDING, FINDING.RULE_ID.eq(rule).and(FINDING.STATE.eq(FindingState.OPEN)));
    }
}
