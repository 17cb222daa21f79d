package dev.oddsentry.service.api.readers;

import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.ReaderChoiceView;
import dev.oddsentry.service.recipients.ReaderChoices;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.web.RefusedException;
import java.util.List;
import java.util.UUID;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What recipients chose by their links, for those who own the rule or the round-up. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class ChoicesOfReadersController {
    private final BlockedRecipients reach;
    private final RuleNames rules;
    private final ReaderChoices choices;
    private final DefinitionStore definitions;

    ChoicesOfReadersController(
            BlockedRecipients reach, RuleNames rules, ReaderChoices choices, DefinitionStore definitions) {
        this.reach = reach;
        this.rules = rules;
        this.choices = choices;
        this.definitions = definitions;
    }

    /** Readers who stopped the rule's mails, those who came back too. */
    @GetMapping("/rules/{name}/unsubscribed")
    List<BlockedRecipients.UnsubscribedRecipient> listUnsubscribed(@PathVariable String name) {
        return reach.leavers(rules.idOf(name).value());
    }

    /** Mails a reader again, who asked for it. */
    @DeleteMapping("/rules/{name}/unsubscribed/{address}")
    List<BlockedRecipients.UnsubscribedRecipient> resubscribe(
            @AuthenticationPrincipal Person by, @PathVariable String name, @PathVariable String address) {
        if (!reach.comeBack(rules.idOf(name).value(), address, by))
            throw RefusedException.notFound(address + " has not unsubscribed from " + name + ".");
        return reach.leavers(rules.idOf(name).value());
    }

    /** What recipients chose of the rule's messages: a pause, a collection, files as links. */
    @GetMapping("/rules/{name}/reader-choices")
    List<ReaderChoiceView> listReaderChoices(@PathVariable String name) {
        return views(rules.idOf(name).value());
    }

    /** The recipient gets each message again; what was kept back is sent now. */
    @DeleteMapping("/rules/{name}/reader-choices/{address}")
    List<ReaderChoiceView> endReaderChoice(
            @AuthenticationPrincipal Person by, @PathVariable String name, @PathVariable String address) {
        return ended(by, rules.idOf(name).value(), name, address);
    }

    /** The same of a round-up. */
    @GetMapping("/round-ups/{name}/reader-choices")
    List<ReaderChoiceView> listRoundUpReaderChoices(@PathVariable String name) {
        return views(roundUp(name));
    }

    @DeleteMapping("/round-ups/{name}/reader-choices/{address}")
    List<ReaderChoiceView> endRoundUpReaderChoice(
            @AuthenticationPrincipal Person by, @PathVariable String name, @PathVariable String address) {
        return ended(by, roundUp(name), name, address);
    }

    /** Recipients who unsubscribed from the round-up, those who came back too. */
    @GetMapping("/round-ups/{name}/unsubscribed")
    List<BlockedRecipients.UnsubscribedRecipient> listRoundUpUnsubscribed(@PathVariable String name) {
        return reach.leavers(roundUp(name));
    }

    @DeleteMapping("/round-ups/{name}/unsubscribed/{address}")
    List<BlockedRecipients.UnsubscribedRecipient> resubscribeToRoundUp(
            @AuthenticationPrincipal Person by, @PathVariable String name, @PathVariable String address) {
        var id = roundUp(name);
        if (!reach.comeBack(id, address, by))
            throw RefusedException.notFound(address + " has not unsubscribed from " + name + ".");
        return reach.leavers(id);
    }

    private UUID roundUp(String name) {
        return definitions
                .roundUp(name)
                .orElseThrow(() -> RefusedException.notFound("There is no round-up \"" + name + "\"."))
                .id();
    }

    private List<ReaderChoiceView> views(UUID definition) {
        return choices.of(definition).stream().map(ReaderChoiceView::of).toList();
    }

    private List<ReaderChoiceView> ended(Person by, UUID definition, String name, String address) {
        if (!choices.end(by, definition, name, address))
            throw RefusedException.notFound(address + " has chosen nothing for " + name + ".");
        return views(definition);
    }
}
