package dev.oddsentry.service.api.readers;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;

import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.ReaderLinks;
import dev.oddsentry.service.recipients.BlockedRecipients;
import java.time.Clock;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * The page behind a reader's own link: one button that stops the mails of a rule or a round-up for them. To look at it changes nothing, since programs look at links in mail
 * before people do.
 */
@RestController
class UnsubscribeController {
    private final DSLContext db;
    private final DefinitionStore definitions;
    private final ReaderLinks links;
    private final BlockedRecipients reach;
    private final Clock clock;

    UnsubscribeController(
            DSLContext db, DefinitionStore definitions, ReaderLinks links, BlockedRecipients reach, Clock clock) {
        this.db = db;
        this.definitions = definitions;
        this.links = links;
        this.reach = reach;
        this.clock = clock;
    }

    private record Reader(UUID definition, String address, UnsubscribePages page) {}

    @GetMapping(path = "/leave/{message}/{token}", produces = "text/html;charset=UTF-8")
    ResponseEntity<String> showUnsubscribePage(@PathVariable String message, @PathVariable String token) {
        return answer(
                message,
                token,
                reader -> reach.hasLeft(reader.definition(), reader.address())
                        ? reader.page().left()
                        : reader.page().input());
    }

    @PostMapping(path = "/leave/{message}/{token}", produces = "text/html;charset=UTF-8")
    ResponseEntity<String> unsubscribe(@PathVariable String message, @PathVariable String token) {
        return answer(message, token, reader -> {
            reach.leave(reader.definition(), reader.address(), MessageId.of(message));
            return reader.page().left();
        });
    }

    @PostMapping(path = "/leave/{message}/{token}/back", produces = "text/html;charset=UTF-8")
    ResponseEntity<String> resubscribeByLink(@PathVariable String message, @PathVariable String token) {
        return answer(message, token, reader -> {
            reach.comeBack(reader.definition(), reader.address(), null);
            return reader.page().back();
        });
    }

    private interface Answer {
        String to(Reader reader);
    }

    private ResponseEntity<String> answer(String message, String token, Answer answer) {
        return reader(message, token)
                .map(reader -> UnsubscribePages.answer(HttpStatus.OK, answer.to(reader)))
                .orElseGet(UnsubscribePages::unknown);
    }

    private Optional<Reader> reader(String message, String token) {
        MessageId id;
        try {
            id = MessageId.of(message);
        } catch (IllegalArgumentException noNumber) {
            return Optional.empty();
        }
        var row = db.select(MESSAGE.RULE_ID, MESSAGE.ROUND_UP_ID, MESSAGE.CREATED_AT)
                .from(MESSAGE)
                .where(MESSAGE.ID.eq(id), MESSAGE.ALLOW_UNSUBSCRIBE.isTrue())
                .fetchOne();
        if (row == null || row.value3().plus(ReaderLinks.WORK_FOR).isBefore(clock.instant())) return Optional.empty();
        var addresses = db.select(MESSAGE_RECIPIENT.ADDRESS)
                .from(MESSAGE_RECIPIENT)
                .where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(id))
                .fetch(MESSAGE_RECIPIENT.ADDRESS);
        UUID definition = row.value1() == null ? row.value2() : row.value1().value();
        return links.reader(ReaderLinks.Purpose.LEAVE, id, token, addresses)
                .map(address -> new Reader(definition, address, page(definition, address, token)));
    }

    private UnsubscribePages page(UUID definition, String address, String token) {
        return switch (definitions.byId(definition).orElseThrow()) {
            case RuleDefinition rule ->
                new UnsubscribePages(rule.delivery().texts().language(), rule.title(), rule.owner(), address, token);
            case RoundUpDefinition roundUp ->
                new UnsubscribePages(roundUp.language(), roundUp.title(), roundUp.owner(), address, token);
            default -> throw new IllegalStateException("neither a rule nor a round-up: " + definition);
        };
    }
}
