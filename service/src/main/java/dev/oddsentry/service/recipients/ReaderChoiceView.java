package dev.oddsentry.service.recipients;

import dev.oddsentry.service.recipients.ReaderChoices.Chosen;
import java.time.Instant;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * What a recipient chose of the messages of a rule or a round-up.
 *
 * @param pausedUntil null where messages are not paused
 * @param collect {@code daily} or {@code weekly}; null where each message is sent on its own
 * @param collectHour from 0 to 23, in the zone of the definition; null without a collection
 * @param collectDay {@code monday} to {@code sunday}; null without a weekly collection
 * @param filesByLink whether files stay behind the link to the report
 * @param nextCollection when the messages that wait are sent; null where none is kept back
 */
public record ReaderChoiceView(
        String address,
        @Nullable Instant pausedUntil,
        @Nullable String collect,
        @Nullable Integer collectHour,
        @Nullable String collectDay,
        boolean filesByLink,
        @Nullable Instant nextCollection,
        Instant chosenAt) {
    public static ReaderChoiceView of(Chosen chosen) {
        var time = chosen.time();
        boolean waits = time != null || chosen.pausedUntil() != null;
        return new ReaderChoiceView(
                chosen.address(),
                chosen.pausedUntil(),
                time == null ? null : lower(time.every()),
                time == null ? null : time.hour(),
                time == null || time.day() == null ? null : lower(time.day()),
                chosen.filesByLink(),
                waits ? chosen.nextCollection() : null,
                chosen.chosenAt());
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }
}
