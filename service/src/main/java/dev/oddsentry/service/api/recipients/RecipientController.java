package dev.oddsentry.service.api.recipients;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.RecipientLanguages;
import dev.oddsentry.service.web.RefusedException;
import java.util.Arrays;
import java.util.List;
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

    RecipientController(BlockedRecipients reach, RecipientLanguages languages) {
        this.languages = languages;
        this.reach = reach;
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
}
