package dev.oddsentry.service.mail;

import dev.oddsentry.core.definition.DeliveryDefinition.Recipients;
import dev.oddsentry.core.definition.Sender;
import dev.oddsentry.service.ids.MessageId;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * The recipients of a message, and its conversation.
 *
 * @param id its number in the outbox, which links in it name
 * @param recipients as they are written: addresses, perhaps with names, and references to teams and people
 * @param owner the team that answers
 * @param list the part before the domain in the message's List-Id
 * @param of the rule or round-up whose mails readers may stop; null for mail that they asked for
 * @param thread what mail programs show it together with; null for nothing
 * @param sender null for that of the installation
 */
public record Envelope(
        MessageId id,
        Recipients recipients,
        String owner,
        String list,
        @Nullable UUID of,
        @Nullable String thread,
        NewMessage.Ways ways,
        @Nullable Sender sender) {

    static Envelope plain(Recipients recipients, String owner, String list) {
        return new Envelope(MessageId.random(), recipients, owner, list, null, null, NewMessage.Ways.USUAL, null);
    }
}
