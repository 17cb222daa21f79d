package dev.oddsentry.service.api.recipients;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.ReaderChoiceView;
import dev.oddsentry.service.recipients.ReaderChoices;
import dev.oddsentry.service.recipients.RecipientLanguages;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.web.RefusedException;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Whom mail does not reach, seen and mended by people who log in. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class RecipientController {
    private final BlockedRecipients reach;
    private final RecipientLanguages languages;
    private final RuleNames rules;
    private final ReaderChoices choices;
    private final DefinitionStore definitions;

    RecipientController(
            BlockedRecipients reach,
            RecipientLanguages languages,
            RuleNames rules,
            ReaderChoices choices,
            DefinitionStore definitions) {
        this.choices = choices;
        this.definitions = definitions;
        this.languages = languages;
        this.reach = reach;
        this.rules = rules;
    }

    /** Addresses from which mail came back, to which nothing goes. */
    @GetMapping("/blocked-addresses")
    List<BlockedRecipients.BlockedAddress> listBlockedAddresses() {
        return reach.badAddresses();
    }

    /** The address is right again. */
    @DeleteMapping("/blocked-addresses/{address}")
    List<BlockedRecipients.BlockedAddress> unblockAddress(
            @AuthenticationPrincipal Person by, @PathVariable String address) {
        reach.release(by, address);
        return reach.badAddresses();
    }

    /** Readers who want their mail in a language of their own. */
    @GetMapping("/languages")
    List<RecipientLanguages.RecipientLanguage> listLanguages() {
        return languages.all();
    }

    /** @param language en, de or nb; null for that of each rule */
    record LanguageBody(@Nullable String language) {}

    @PutMapping("/languages/{address}")
    List<RecipientLanguages.RecipientLanguage> setLanguage(
            @AuthenticationPrincipal Person by, @PathVariable String address, @RequestBody LanguageBody body) {
        languages.set(by, address, body.language() == null ? null : language(body.language()));
        return languages.all();
    }

    private static Language language(String code) {
        return Arrays.stream(Language.values())
                .filter(each -> each.code().equalsIgnoreCase(code))
                .findFirst()
                .orElseThrow(() -> RefusedException.invalid("\"" + code + "\" is none of en, de, nb."));
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
