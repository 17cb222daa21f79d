package dev.oddsentry.service.outbox;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.recipients.RecipientLanguages;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/** Queues notices to teams, each member's in their own language. */
@Component
public class TeamNotices {
    private final RecipientLanguages languages;
    private final MessageBuilder messages;
    private final Outbox outbox;
    private final Clock clock;

    TeamNotices(RecipientLanguages languages, MessageBuilder messages, Outbox outbox, Clock clock) {
        this.languages = languages;
        this.messages = messages;
        this.outbox = outbox;
        this.clock = clock;
    }

    /** @param text lines, the last one with its line break */
    public record Notice(String subject, String text) {}

    /**
     * Part of the caller's transaction.
     *
     * @param usual the language of those who have set none
     */
    public void queue(
            MessageCause cause, String team, List<String> to, Language usual, Function<Phrases, Notice> notice) {
        var byAddress = languages.byAddress();
        Map<Language, List<String>> readers = new EnumMap<>(Language.class);
        for (String address : to)
            readers.computeIfAbsent(
                            byAddress.getOrDefault(address.toLowerCase(Locale.ROOT), usual), _ -> new ArrayList<>())
                    .add(address);
        readers.forEach((language, addresses) -> {
            var written = notice.apply(Phrases.in(language));
            var message = messages.plain(team, addresses, language, written.subject(), written.text());
            if (!message.to().isEmpty()) outbox.queue(cause, clock.instant(), message);
        });
    }
}
