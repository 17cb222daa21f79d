package dev.oddsentry.service.readers;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;

import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.people.Teams;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Mails what a recipient asks to the team that owns the rule or the round-up; the answer goes to the recipient. */
@Component
public class OwnerQuestions {
    public static final int MOST_A_DAY = 5;
    public static final int MOST_CHARACTERS = 2_000;

    private final DSLContext db;
    private final Teams teams;
    private final MessageBuilder messages;
    private final Outbox outbox;
    private final Settings settings;
    private final Clock clock;

    OwnerQuestions(DSLContext db, Teams teams, MessageBuilder messages, Outbox outbox, Settings settings, Clock clock) {
        this.db = db;
        this.teams = teams;
        this.messages = messages;
        this.outbox = outbox;
        this.settings = settings;
        this.clock = clock;
    }

    public enum Outcome {
        SENT,
        TOO_MANY,
        /** The owning team has no address that mail reaches. */
        NOBODY_TO_ASK
    }

    @Transactional
    public Outcome ask(OwnMail.Entry about, String address, String question) {
        String from = address.toLowerCase(Locale.ROOT);
        Instant now = clock.instant();
        int asked = db.fetchCount(
                MESSAGE, MESSAGE.QUESTION_FROM.eq(from).and(MESSAGE.CREATED_AT.gt(now.minus(Duration.ofDays(1)))));
        if (asked >= MOST_A_DAY) return Outcome.TOO_MANY;
        var phrases = Phrases.in(about.language());
        String page = settings.baseUrl() + (about.isRoundUp() ? "/setup/mail" : "/rules/" + about.name());
        var message = messages.question(
                about.owner(),
                teams.addressesOf(about.owner()),
                address,
                about.language(),
                phrases.of("question.subject", about.title()),
                phrases.of("question.text", address, about.title()) + "\n\n" + quoted(question) + "\n\n"
                        + phrases.of("question.answer", address) + "\n" + page + "\n");
        if (message.to().isEmpty()) return Outcome.NOBODY_TO_ASK;
        outbox.queue(new MessageCause.OfQuestion(about.definition(), from), now, message);
        return Outcome.SENT;
    }

    /** So that nobody takes what it says for words of ours. */
    private static String quoted(String question) {
        return String.join(
                "\n", question.strip().lines().map(line -> "> " + line).toList());
    }
}
