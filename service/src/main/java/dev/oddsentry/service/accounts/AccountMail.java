package dev.oddsentry.service.accounts;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.service.accounts.PasswordLinks.IssuedLink;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.mail.MailServer;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.recipients.RecipientLanguages;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * Sends a person the link that sets their password. It goes to the mail server at once and past the outbox, where others would read it; what fails is
 * said to the one who asked, who sends another.
 */
@Component
class AccountMail {
    /** A team that nobody entered is reached through the operators, who then get the answers. */
    private static final String ANSWERED_BY = "operators";

    private final MessageBuilder messages;
    private final MailServer server;
    private final RecipientLanguages languages;
    private final Settings settings;

    AccountMail(MessageBuilder messages, MailServer server, RecipientLanguages languages, Settings settings) {
        this.messages = messages;
        this.server = server;
        this.languages = languages;
        this.settings = settings;
    }

    /** @return why it was not sent; empty if it was */
    Optional<String> send(Person to, IssuedLink link, boolean invitation) {
        var language = languages.byAddress().getOrDefault(to.email().toLowerCase(Locale.ROOT), Language.EN);
        var phrases = Phrases.in(language);
        String kind = invitation ? "account.invitation" : "account.forgotten";
        // Behind the hash sign it is not sent to any server, nor kept in its log.
        String address = settings.baseUrl() + "/password#" + link.token();
        String text = phrases.of(kind + ".text", to.name(), to.login(), address);
        var message = messages.plain(ANSWERED_BY, List.of(to.email()), language, phrases.of(kind + ".subject"), text);
        if (message.to().isEmpty()) return Optional.of("Mail to " + to.email() + " is blocked or was rejected.");
        return server.handOver(message.id(), message.mime(), message.to()).values().stream()
                .filter(reply -> !(reply instanceof MailServer.Reply.Taken))
                .map(MailServer.Reply::words)
                .findFirst();
    }
}
