package dev.oddsentry.service.api.mail;

import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.mail.MailTest;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The connection to the mail servers. */
@RestController
@RequestMapping(path = "/api/mail", produces = "application/json")
class MailController {
    private final MailTest test;
    private final String sender;

    MailController(MailTest test, Settings settings) {
        this.sender = settings.mail().from();
        this.test = test;
    }

    /** The first operator's address often has no full domain, which strict servers refuse from anybody. */
    private String addressOf(Person by) {
        boolean hasFullDomain =
                by.email().substring(by.email().indexOf('@') + 1).contains(".");
        return hasFullDomain ? by.email() : sender;
    }

    /**
     * Tries each server as far as a recipient and sends nothing.
     *
     * @param to whom the servers are asked about; left out: the person who asks, or the sender of mail if their address has no full domain
     */
    @PostMapping("/test")
    List<MailTest.MailServerTest> testMailServers(
            @AuthenticationPrincipal Person by, @RequestParam(required = false) @Nullable String to) {
        String address = to == null ? addressOf(by) : to;
        if (!MailAddress.isOne(address))
            throw RefusedException.invalid(
                    "\"" + address + "\" is not a mail address. Example: ines.holm@skerryline.example");
        return test.tried(address);
    }
}
