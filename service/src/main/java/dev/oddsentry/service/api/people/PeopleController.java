package dev.oddsentry.service.api.people;

import dev.oddsentry.service.accounts.Accounts;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.People.NewPerson;
import dev.oddsentry.service.people.People.PersonDetails;
import dev.oddsentry.service.people.People.UserView;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping(path = "/api/people", produces = "application/json")
class PeopleController {
    /** Longer ones work as well; a body of any length does not. */
    static final int MOST_PASSWORD = 1_000;

    private final People people;
    private final Accounts accounts;

    PeopleController(People people, Accounts accounts) {
        this.people = people;
        this.accounts = accounts;
    }

    /**
     * @param email empty for a service account
     * @param service true for a program, which logs in with tokens alone
     * @param password null to send an invitation, whose link sets it
     * @param teams by name; null for none
     */
    record NewPersonBody(
            @NotBlank @Pattern(regexp = "[a-z0-9._-]{1,60}", message = "lower-case letters, digits, dots and hyphens")
            String login,

            @NotBlank @Size(max = 200) String name,
            @NotNull @Email @Size(max = 254) String email,
            @Nullable Boolean service,
            @Nullable @Size(max = MOST_PASSWORD) String password,
            @NotNull Role role,
            @Nullable @Size(max = 200) List<@NotBlank String> teams) {}

    record PersonBody(
            @NotBlank @Size(max = 200) String name,
            @NotNull @Email @Size(max = 254) String email,
            @NotNull Role role,
            @NotNull @Size(max = 200) List<@NotBlank String> teams) {}

    /** @param disabled true to list users too who may no longer log in */
    @GetMapping
    List<UserView> listUsers(@RequestParam(defaultValue = "false") boolean disabled) {
        return people.views(disabled);
    }

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    UserView addUser(@AuthenticationPrincipal Person by, @Valid @RequestBody NewPersonBody body) {
        var teams = body.teams() == null ? List.<String>of() : body.teams();
        var details = new PersonDetails(body.name(), body.email(), body.role(), teams);
        return accounts.add(
                by, new NewPerson(body.login(), details, Boolean.TRUE.equals(body.service())), body.password());
    }

    @PutMapping("/{login}")
    UserView changeUser(
            @AuthenticationPrincipal Person by, @PathVariable String login, @Valid @RequestBody PersonBody body) {
        return people.change(
                by, login, new PersonDetails(body.name(), body.email(), body.role(), List.copyOf(body.teams())));
    }

    @PostMapping("/{login}/invitation")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void inviteUser(@AuthenticationPrincipal Person by, @PathVariable String login) {
        accounts.invite(by, login);
    }

    @PostMapping("/{login}/disable")
    UserView disableUser(@AuthenticationPrincipal Person by, @PathVariable String login) {
        return accounts.disable(by, login);
    }

    @PostMapping("/{login}/enable")
    UserView enableUser(@AuthenticationPrincipal Person by, @PathVariable String login) {
        return accounts.enable(by, login);
    }
}
