package dev.oddsentry.service.mail;

import dev.oddsentry.core.definition.DeliveryDefinition.Recipients;

/**
 * Who gets a message.
 *
 * @param recipients as they are written: addresses, perhaps with names, and references to teams and people
 * @param owner the team that answers
 * @param list what stands before the domain in the message's List-Id
 */
public record Envelope(Recipients recipients, String owner, String list) {}
