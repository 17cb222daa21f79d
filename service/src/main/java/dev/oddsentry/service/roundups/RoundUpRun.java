package dev.oddsentry.service.roundups;

import static dev.oddsentry.service.db.generated.Tables.RULE;

import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.memory.LastReportWriter;
import dev.oddsentry.service.memory.MemoryWriter;
import dev.oddsentry.service.memory.RoundUpMemory;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.schedules.Schedules;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * Reports a round-up's updates: last reports are set to the current state in the transaction that queues the message, with the
 * rules locked against their checks.
 */
@Component
public class RoundUpRun {
    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Schedules schedules;
    private final RoundUps roundUps;
    private final RoundUpUpdates news;
    private final RoundUpMemory memory;
    private final LastReportWriter reported;
    private final MessageBuilder messages;
    private final Outbox outbox;

    RoundUpRun(
            DSLContext db,
            DefinitionStore definitions,
            Schedules schedules,
            RoundUps roundUps,
            RoundUpUpdates news,
            RoundUpMemory memory,
            LastReportWriter reported,
            MessageBuilder messages,
            Outbox outbox) {
        this.db = db;
        this.definitions = definitions;
        this.schedules = schedules;
        this.roundUps = roundUps;
        this.news = news;
        this.memory = memory;
        this.reported = reported;
        this.messages = messages;
        this.outbox = outbox;
    }

    /**
     * Tells what is due by now: of several times that were missed, once.
     *
     * @return the time it waits for then; empty where none comes
     */
    @Transactional
    public Optional<Instant> ifDue(UUID id) {
        var standing = roundUps.lock(id);
        var due = standing.due();
        if (due.isEmpty()) return Optional.ofNullable(standing.nextSlot());
        var roundUp = definitions.roundUp(id).orElseThrow();
        var slots = schedules
                .of(roundUp.definition().schedule(), roundUp.definition().zone())
                .due(due.get(), standing.now());
        tell(new RoundUpUpdates.Asked(MessageId.random(), roundUp, slots.latest(), null), standing.lastSlot());
        roundUps.goneThrough(id, slots.latest());
        roundUps.waitFor(id, slots.next().orElse(null));
        return slots.next();
    }

    /** Sends the updates that the round-up sends immediately, if there are any. */
    @Transactional
    public void atOnce(UUID id) {
        var standing = roundUps.lock(id);
        var roundUp = definitions.roundUp(id).orElseThrow();
        var atOnce = roundUp.definition().sendImmediately();
        if (atOnce == null || standing.paused()) return;
        tell(new RoundUpUpdates.Asked(MessageId.random(), roundUp, standing.now(), atOnce), standing.lastSlot());
    }

    /** Tells everything now, whatever its times. @return the message's number; empty where there is nothing to say */
    @Transactional
    public Optional<MessageId> now(UUID id) {
        var standing = roundUps.lock(id);
        var roundUp = definitions.roundUp(id).orElseThrow();
        var message =
                tell(new RoundUpUpdates.Asked(MessageId.random(), roundUp, standing.now(), null), standing.lastSlot());
        if (message != null) roundUps.goneThrough(id, standing.now());
        return Optional.ofNullable(message);
    }

    private @Nullable MessageId tell(RoundUpUpdates.Asked asked, @Nullable Instant last) {
        lockRules(asked.roundUp().definition());
        var gathered = news.gather(asked, last);
        var built = gathered.said() == null
                ? null
                : messages.build(
                        Objects.requireNonNull(asked.message()),
                        asked.roundUp().id(),
                        asked.roundUp().definition(),
                        gathered.said());
        // If there are no recipients, the updates stay unreported.
        MessageId message = built == null || built.to().isEmpty()
                ? null
                : outbox.queue(new MessageCause.OfRoundUp(asked.roundUp().id()), asked.slot(), built);
        for (var each : gathered.rules()) keep(asked, each, message);
        return message;
    }

    /** One after the other in the order of their numbers, so that two round-ups never wait for each other. */
    private void lockRules(RoundUpDefinition roundUp) {
        var ids = roundUp.rules().stream()
                .map(name -> definitions.rule(name).map(Current::ruleId).orElseThrow())
                .toList();
        db.selectFrom(RULE).where(RULE.ID.in(ids)).orderBy(RULE.ID).forUpdate().fetch();
    }

    private void keep(RoundUpUpdates.Asked asked, RoundUpUpdates.OfRule each, @Nullable MessageId message) {
        var by = new MemoryWriter.Writing(Scope.of(each.ruleId()), null, asked.slot());
        var audience = memory.join(asked.roundUp().id(), each.ruleId());
        reported.letPass(by, audience, each.letPass());
        if (message == null || each.told().isEmpty()) return;
        List<LastReportWriter.ReportedUpdate> reportedUpdates = each.told().stream()
                .map(told -> new LastReportWriter.ReportedUpdate(
                        told.subject(), told.now().severity(), told.kinds()))
                .toList();
        reported.report(by, audience, message, reportedUpdates);
        reported.heard(by, audience);
    }
}
