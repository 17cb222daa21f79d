package dev.oddsentry.service.api.access;

import dev.oddsentry.service.access.LoginGate;
import dev.oddsentry.service.accounts.Accounts;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** A person's own password, and links for those who have none or forgot it. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class PasswordController {
    private final Accounts accounts;
    private final People people;
    private final LoginGate gate;

    PasswordController(Accounts accounts, People people, LoginGate gate) {
        this.accounts = accounts;
        this.people = people;
        this.gate = gate;
    }

    record ChangePasswordBody(
            @NotNull @Size(max = 1_000) String present,
            @NotNull @Size(max = 1_000) String password) {}

    /** @param login the log-in name or the address */
    record ForgottenPasswordBody(@NotBlank @Size(max = 254) String login) {}

    record SetPasswordBody(
            @NotBlank @Size(max = 100) String token,
            @NotNull @Size(max = 1_000) String password) {}

    @PutMapping("/session/password")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void changePassword(
            @AuthenticationPrincipal Person person,
            @Valid @RequestBody ChangePasswordBody body,
            HttpServletRequest request) {
        if (!people.hasPassword(person))
            throw RefusedException.conflict("You have no password here. You log in through an identity provider.");
        var _ = gate.guess(
                        person.login(),
                        request.getRemoteAddr(),
                        Optional.empty(),
                        () -> people.authenticate(person.login(), body.present()))
                .orElseThrow(() -> RefusedException.invalid("The present password is wrong."));
        var session = request.getSession(false);
        accounts.changePassword(person, body.password(), session == null ? null : session.getId());
    }

    @PostMapping("/password-links")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void requestPasswordLink(@Valid @RequestBody ForgottenPasswordBody body) {
        accounts.sendForgotten(body.login());
    }

    @PostMapping("/password-links/use")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void setPassword(@Valid @RequestBody SetPasswordBody body) {
        accounts.setByLink(body.token(), body.password());
    }
}
