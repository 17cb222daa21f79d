package dev.oddsentry.service.api.readers;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;

import dev.oddsentry.core.definition.ReaderChoice;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.service.api.readers.YourMailPage.Outcome;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.ReaderLinks;
import dev.oddsentry.service.readers.OwnMail;
import dev.oddsentry.service.readers.OwnerQuestions;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.CollectionTime;
import dev.oddsentry.service.recipients.ReaderChoices;
import dev.oddsentry.service.recipients.ReaderChoices.Wish;
import dev.oddsentry.service.recipients.RecipientLanguages;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/**
 * The page of one recipient, by the link in each message: the link is for one address and is all that is needed, so what one can do here
 * is about that address alone. To look at the page changes nothing, since programs look at links in mail before people do.
 */
@RestController
class YourMailController {
    private final DSLContext db;
    private final ReaderLinks links;
    private final OwnMail mail;
    private final ReaderChoices choices;
    private final BlockedRecipients blocked;
    private final RecipientLanguages languages;
    private final OwnerQuestions questions;
    private final Clock clock;

    YourMailController(
            DSLContext db,
            ReaderLinks links,
            OwnMail mail,
            ReaderChoices choices,
            BlockedRecipients blocked,
            RecipientLanguages languages,
            OwnerQuestions questions,
            Clock clock) {
        this.db = db;
        this.links = links;
        this.mail = mail;
        this.choices = choices;
        this.blocked = blocked;
        this.languages = languages;
        this.questions = questions;
        this.clock = clock;
    }

    private record Reader(MessageId message, String address, String token) {}

    /** What a form of the page sends; each field is empty where its form does not have it. */
    private record Form(
            String act,
            String definition,
            String how,
            String day,
            String hour,
            String until,
            boolean link,
            String text) {}

    @GetMapping(path = "/your-mail/{message}/{token}", produces = "text/html;charset=UTF-8")
    ResponseEntity<String> showYourMail(@PathVariable String message, @PathVariable String token) {
        return reader(message, token)
                .map(reader ->
                        UnsubscribePages.answer(HttpStatus.OK, page(reader).html(Outcome.NONE)))
                .orElseGet(UnsubscribePages::unknown);
    }

    @PostMapping(path = "/your-mail/{message}/{token}", produces = "text/html;charset=UTF-8")
    ResponseEntity<String> changeYourMail(
            @PathVariable String message,
            @PathVariable String token,
            @RequestParam(defaultValue = "") String act,
            @RequestParam(defaultValue = "") String definition,
            @RequestParam(defaultValue = "each") String how,
            @RequestParam(defaultValue = "1") String day,
            @RequestParam(defaultValue = "7") String hour,
            @RequestParam(defaultValue = "") String until,
            @RequestParam(defaultValue = "") String link,
            @RequestParam(defaultValue = "") String language,
            @RequestParam(defaultValue = "") String question) {
        var form = new Form(act, definition, how, day, hour, until, !link.isEmpty(), question);
        return reader(message, token)
                .map(reader -> {
                    var outcome = act.equals("language") ? setLanguage(reader, language) : act(reader, form);
                    var status = outcome.wrong() == null ? HttpStatus.OK : HttpStatus.UNPROCESSABLE_CONTENT;
                    return UnsubscribePages.answer(status, page(reader).html(outcome));
                })
                .orElseGet(UnsubscribePages::unknown);
    }

    private Outcome act(Reader reader, Form form) {
        var page = page(reader);
        var about = page.entries().stream()
                .filter(entry -> entry.definition().toString().equals(form.definition()))
                .findFirst()
                .orElse(null);
        if (about == null) return wrong(page, null, "wrong.definition");
        return switch (form.act()) {
            case "choose" -> choose(reader, page, about, form);
            case "leave" -> {
                if (!about.mayLeave()) yield wrong(page, about, "wrong.choice");
                blocked.leave(about.definition(), reader.address(), reader.message());
                yield said(page.word("said.left", about.title()), about);
            }
            case "return" -> {
                blocked.comeBack(about.definition(), reader.address(), null);
                yield said(page.word("said.returned", about.title()), about);
            }
            case "ask" -> ask(reader, page, about, form.text());
            default -> wrong(page, about, "wrong.definition");
        };
    }

    private Outcome choose(Reader reader, YourMailPage page, OwnMail.Entry about, Form form) {
        Wish wish;
        switch (form.how()) {
            case "each" -> wish = new Wish.EachMessage();
            case "daily", "weekly" -> {
                var time = time(form);
                if (!about.allowed().contains(ReaderChoice.COLLECT) || time.isEmpty())
                    return wrong(page, about, "wrong.choice");
                wish = new Wish.Collected(time.get());
            }
            case "pause" -> {
                if (!about.allowed().contains(ReaderChoice.PAUSE)) return wrong(page, about, "wrong.choice");
                var until = date(form.until());
                if (until == null || until.isBefore(page.earliest(about)) || until.isAfter(page.latest(about)))
                    return wrong(
                            page, about, "wrong.date", page.date(page.earliest(about)), page.date(page.latest(about)));
                wish = new Wish.Paused(until.atTime(LocalTime.of(CollectionTime.USUAL_HOUR, 0))
                        .atZone(about.zone())
                        .toInstant());
            }
            default -> {
                return wrong(page, about, "wrong.choice");
            }
        }
        boolean byLink = form.link() && about.allowed().contains(ReaderChoice.LINK);
        choices.choose(about.definition(), reader.address(), wish, byLink, about.zone());
        return said(page.word("saved", about.title()), about);
    }

    private static Optional<CollectionTime> time(Form form) {
        try {
            int hour = Integer.parseInt(form.hour());
            if (hour < 0 || hour > 23) return Optional.empty();
            return Optional.of(
                    form.how().equals("daily")
                            ? new CollectionTime(CollectionTime.Every.DAILY, hour, null)
                            : new CollectionTime(
                                    CollectionTime.Every.WEEKLY, hour, DayOfWeek.of(Integer.parseInt(form.day()))));
        } catch (NumberFormatException | DateTimeException noTime) {
            return Optional.empty();
        }
    }

    private static @Nullable LocalDate date(String text) {
        try {
            return LocalDate.parse(text);
        } catch (DateTimeParseException noDate) {
            return null;
        }
    }

    private Outcome ask(Reader reader, YourMailPage page, OwnMail.Entry about, String question) {
        if (question.isBlank() || question.length() > OwnerQuestions.MOST_CHARACTERS)
            return new Outcome(null, page.word("wrong.question", OwnerQuestions.MOST_CHARACTERS), about, question);
        return switch (questions.ask(about, reader.address(), question)) {
            case SENT -> said(page.word("said.asked", about.owner(), reader.address()), about);
            case TOO_MANY -> new Outcome(null, page.word("wrong.many", OwnerQuestions.MOST_A_DAY), about, question);
            case NOBODY_TO_ASK -> new Outcome(null, page.word("wrong.nobody", about.owner()), about, question);
        };
    }

    private Outcome setLanguage(Reader reader, String code) {
        var language = Arrays.stream(Language.values())
                .filter(each -> each.code().equals(code))
                .findFirst();
        if (language.isEmpty() && !code.isEmpty()) return wrong(page(reader), null, "wrong.choice");
        languages.setByReader(reader.address(), language.orElse(null));
        return said(page(reader).word("said.language"), null);
    }

    private static Outcome said(String text, OwnMail.@Nullable Entry about) {
        return new Outcome(text, null, about, null);
    }

    private static Outcome wrong(YourMailPage page, OwnMail.@Nullable Entry about, String key, Object... values) {
        return new Outcome(null, page.word(key, values), about, null);
    }

    private YourMailPage page(Reader reader) {
        var entries = mail.of(reader.address());
        var own = languages.byAddress().get(reader.address().toLowerCase(Locale.ROOT));
        var shown = own != null || entries.isEmpty() ? own : entries.getFirst().language();
        return new YourMailPage(
                reader.address(), reader.token(), own, shown == null ? Language.EN : shown, clock.instant(), entries);
    }

    private Optional<Reader> reader(String message, String token) {
        MessageId id;
        try {
            id = MessageId.of(message);
        } catch (IllegalArgumentException noNumber) {
            return Optional.empty();
        }
        var addresses = db.select(MESSAGE_RECIPIENT.ADDRESS)
                .from(MESSAGE_RECIPIENT)
                .join(MESSAGE)
                .on(MESSAGE.ID.eq(MESSAGE_RECIPIENT.MESSAGE_ID))
                .where(
                        MESSAGE.ID.eq(id),
                        MESSAGE.READER_LINKS.isTrue(),
                        MESSAGE.CREATED_AT.gt(clock.instant().minus(ReaderLinks.WORK_FOR)))
                .fetch(MESSAGE_RECIPIENT.ADDRESS);
        return links.reader(ReaderLinks.Purpose.YOUR_MAIL, id, token, addresses)
                .map(address -> new Reader(id, address, token));
    }
}
