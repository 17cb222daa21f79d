package dev.oddsentry.service.mail;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.web.RefusedException;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The connection to the mail servers. */
@RestController
@RequestMapping(path = "/api/mail", produces = "application/json")
class MailController {
    private final MailTest test;

    MailController(MailTest test) {
        this.test = test;
    }

    /** Tries each server and sends nothing. */
    @PostMapping("/test")
    List<MailTest.Tried> test(@AuthenticationPrincipal Person by) {
        if (by.role() != Role.OPERATOR) throw RefusedException.forbidden("Only an operator tries the mail servers.");
        return test.tried();
    }
}
