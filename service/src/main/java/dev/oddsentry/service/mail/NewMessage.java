package dev.oddsentry.service.mail;

import dev.oddsentry.core.definition.ReaderChoice;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.recipients.BlockedRecipients;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A message ready to be queued: its bytes are final, except for a first line if it is sent late, and the link of each recipient.
 *
 * @param messageId the value of its Message-ID header
 * @param to addresses of the envelope
 * @param barred those who would get it, and do not
 * @param ways what is done with it on its way
 */
public record NewMessage(
        MessageId id,
        String messageId,
        String subject,
        byte[] mime,
        List<String> to,
        Map<String, BlockedRecipients.Barred> barred,
        Ways ways) {

    /**
     * @param late the first line that it gets where it is handed over late; null for none
     * @param mayLeave whether it has an unsubscribe link for each recipient
     * @param choices what else each recipient may choose; null where it has no link to choose
     * @param kept files that stay behind log-in
     */
    public record Ways(
            @Nullable String late,
            boolean mayLeave,
            @Nullable List<ReaderChoice> choices,
            List<ExtractFiles.File> kept) {
        public static final Ways USUAL = new Ways(null, false, null, List.of());
    }
}
