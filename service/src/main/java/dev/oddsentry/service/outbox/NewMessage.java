package dev.oddsentry.service.outbox;

import java.util.List;

/**
 * A message ready to be queued: its bytes are final.
 *
 * @param messageId the value of its Message-ID header
 * @param to addresses of the envelope
 */
public record NewMessage(String messageId, String subject, byte[] mime, List<String> to) {}
