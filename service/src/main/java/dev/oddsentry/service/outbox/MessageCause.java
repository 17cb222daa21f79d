package dev.oddsentry.service.outbox;

import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.ids.AudienceId;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.MemoryWriter;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** What a message belongs to: what it is held with, retried for, counted under and removed with. */
public sealed interface MessageCause {
    /**
     * The report of a check.
     *
     * @param check {@code null} where a person sends open findings before the rule's first check
     * @param audience whose last report the message moves
     */
    record OfCheck(RuleId rule, @Nullable CheckId check, AudienceId audience) implements MessageCause {
        public static OfCheck of(MemoryWriter.Writing by, AudienceId audience) {
            return new OfCheck(by.ruleId(), by.checkId(), audience);
        }
    }

    record OfRoundUp(UUID roundUp) implements MessageCause {}

    /** A notice to the team that owns the rules. */
    record OfIncident(long incident) implements MessageCause {}

    /** What a person sends to themselves; it reports nothing. */
    record OfPreview(RuleId rule) implements MessageCause {}

    /** What a person sends to themselves of a rule that may not be saved yet; it reports nothing. */
    record OfTrial(UUID person) implements MessageCause {}

    /** Findings that nobody took in time. */
    record OfEscalation(RuleId rule) implements MessageCause {}

    /** What a recipient has in one message, since they chose so. @param address in lower case */
    record OfCollection(String address) implements MessageCause {}

    /** A recipient asks the owner of a rule or a round-up. */
    record OfQuestion(UUID definition, String address) implements MessageCause {}

    /** A second copy of a message, with the cause of the first. */
    record OfRepeat(MessageRecord first) implements MessageCause {}

    /** Writes the cause into the columns of a new message. */
    default void writeTo(MessageRecord row) {
        switch (this) {
            case OfCheck(var rule, var check, var audience) -> {
                row.setRuleId(rule);
                row.setCheckId(check);
                row.setAudienceId(audience);
            }
            case OfRoundUp(var roundUp) -> row.setRoundUpId(roundUp);
            case OfIncident(var incident) -> row.setIncidentId(incident);
            case OfPreview(var rule) -> row.setPreviewOf(rule);
            case OfTrial(var person) -> row.setTrialOf(person);
            case OfEscalation(var rule) -> row.setEscalationOf(rule);
            case OfCollection(var address) -> row.setCollectionFor(address);
            case OfQuestion(var definition, var address) -> {
                row.setQuestionAbout(definition);
                row.setQuestionFrom(address);
            }
            case OfRepeat(var first) -> {
                row.setRuleId(first.getRuleId());
                row.setCheckId(first.getCheckId());
                row.setAudienceId(first.getAudienceId());
                row.setIncidentId(first.getIncidentId());
                row.setRoundUpId(first.getRoundUpId());
                row.setPreviewOf(first.getPreviewOf());
                row.setTrialOf(first.getTrialOf());
                row.setEscalationOf(first.getEscalationOf());
                row.setRepeatOf(first.getRepeatOf() == null ? first.getId() : first.getRepeatOf());
                row.setAllowUnsubscribe(first.getAllowUnsubscribe());
                row.setReaderLinks(first.getReaderLinks());
                row.setCollectionFor(first.getCollectionFor());
                row.setQuestionAbout(first.getQuestionAbout());
                row.setQuestionFrom(first.getQuestionFrom());
            }
        }
    }
}
