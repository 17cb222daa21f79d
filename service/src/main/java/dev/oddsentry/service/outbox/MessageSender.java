package dev.oddsentry.service.outbox;

import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.helper.CustomTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.MailServer;
import dev.oddsentry.service.mail.MailServer.Reply;
import dev.oddsentry.service.mail.ReaderLinks;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * Hands one message over to the recipients that have not got it yet, outside any transaction, and records each try. A node that dies
 * between the hand-over and its record leaves it to another, which hands it over again under the same Message-ID: at least once.
 */
@Component
public class MessageSender {
    static final TaskDescriptor<Void> TASK = TaskDescriptor.of("hand-over");
    private static final Duration AFTER_OUR_FAILURE = Duration.ofSeconds(10);

    private final Deliveries deliveries;
    private final MailServer server;
    private final ReaderLinks links;
    private final Clock clock;

    MessageSender(Deliveries deliveries, MailServer server, ReaderLinks links, Clock clock) {
        this.links = links;
        this.deliveries = deliveries;
        this.server = server;
        this.clock = clock;
    }

    public CustomTask<Void> task() {
        return Tasks.custom(TASK)
                .onDeadExecutionRevive()
                .onFailure((complete, operations) ->
                        operations.reschedule(complete, clock.instant().plus(AFTER_OUR_FAILURE)))
                .execute((instance, _) -> completion(handOver(MessageId.of(instance.getId()))));
    }

    private static CompletionHandler<Void> completion(Optional<Instant> nextTry) {
        return nextTry.<CompletionHandler<Void>>map(
                        when -> (complete, operations) -> operations.reschedule(complete, when))
                .orElse(new CompletionHandler.OnCompleteRemove<>());
    }

    /** @return when to try again; empty once every recipient is done with */
    private Optional<Instant> handOver(MessageId messageId) {
        var closed = server.closedFor();
        if (!closed.isZero()) return Optional.of(clock.instant().plus(closed));
        var due = deliveries.claim(messageId);
        if (due.lookAgainIn() != null) return Optional.of(clock.instant().plus(due.lookAgainIn()));
        if (due.readerLinks()) handOverToEach(messageId, due);
        else if (!due.to().isEmpty()) deliveries.record(messageId, server.handOver(messageId, due.mime(), due.to()));
        return deliveries.nextTry(messageId);
    }

    /** Recipients with a link of their own get separate bytes; the answer for one is stored before the next is sent. */
    private void handOverToEach(MessageId messageId, Deliveries.Due due) {
        for (int i = 0; i < due.to().size(); i++) {
            String reader = due.to().get(i);
            var replies = server.handOver(
                    messageId, links.forReader(due.mime(), messageId, reader, due.mayLeave()), List.of(reader));
            deliveries.record(messageId, replies);
            if (replies.get(reader) instanceof Reply.Delayed(var words, var forEverybody) && forEverybody) {
                var others = new HashMap<String, Reply>();
                due.to()
                        .subList(i + 1, due.to().size())
                        .forEach(other -> others.put(other, new Reply.Delayed(words, true)));
                deliveries.record(messageId, others);
                return;
            }
        }
    }
}
